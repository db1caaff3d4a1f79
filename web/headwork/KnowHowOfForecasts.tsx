import { Box } from '@chakra-ui/react';
import { useLengths } from '../app/lengths.ts';
import { useForecastsOfSheetQuery } from './endpoints.ts';

/** How good forecasts on this pattern were, once gaps were measured. */
export function KnowHowOfForecasts({ sheetId }: { readonly sheetId: string }) {
  const { data } = useForecastsOfSheetQuery(sheetId);
  const { length, unit } = useLengths();
  const bias = data?.bias;
  if (!bias) return null;
  const by = length(Math.abs(bias.mean));
  const spread = bias.sd === null ? '' : ` ± ${length(bias.sd)}`;
  const way =
    Math.abs(bias.mean) < 0.0005 ? 'right' : bias.mean > 0 ? `${by}${spread} low` : `${by}${spread} high`;
  return (
    <Box fontSize="sm" color="faded" aria-label={`How good forecasts were, in ${unit}`}>
      Forecasts on this pattern were {way}, over {bias.count} {bias.count === 1 ? 'gap' : 'gaps'} measured
      after their head work.
    </Box>
  );
}
