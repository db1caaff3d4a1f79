import { memo } from 'react';
import { Box } from '@chakra-ui/react';
import { originsOf, type Pattern } from '@zero-lash/core/sheets';
import { useFormContext, useWatch } from 'react-hook-form';
import { ChoiceField, FormPart, TextField } from './FormField.tsx';
import { figuresTyped, isUsualOrigin } from './typedOrigins.ts';
import type { SheetValues } from './formValues.ts';

/** Where each figure of the sheet is from: its source and on which page, whoever wrote it, or the shop. */
export const OriginFields = memo(function OriginFields({ pattern }: { readonly pattern: Pattern | null }) {
  const { control } = useFormContext<SheetValues>();
  const [limits, tempFrom, wear, torques, plan, heatCycles, margin, origins] = useWatch({
    control,
    name: ['limits', 'tempFrom', 'wear', 'torques', 'plan', 'heatCycles', 'margin', 'origins'],
  });
  if (!pattern) return null;
  const figures = originsOf(figuresTyped({ limits, tempFrom, wear, torques, plan, heatCycles }, pattern));
  return (
    <FormPart
      title="Where each figure is from"
      columns={2}
      folded={figures.every(({ key }) => isUsualOrigin(origins[key]))}
    >
      <Box gridColumn="1 / -1" fontSize="sm" color="faded">
        What is printed is the source’s; what is not stands here as what it is. A page of its own only where
        it is another than the sheet’s.
      </Box>
      {figures.map(({ key, title }) =>
        key === 'margin' && margin.trim() === '' ? (
          <Box key={key} gridColumn="1 / -1" fontSize="sm">
            {title}: 15°, assumed by us
          </Box>
        ) : (
          <Box key={key} display="grid" gap="2" gridTemplateColumns="minmax(0, 1fr) 110px">
            <ChoiceField
              name={`origins.${key}.from`}
              label={title}
              options={[
                ['', 'nobody said'],
                ['source', 'the source'],
                ['assumed', 'assumed by us'],
                ['shop', 'the shop’s'],
              ]}
            />
            {origins[key]?.from === 'source' && (
              <TextField name={`origins.${key}.page`} label="Page" placeholder="as above" />
            )}
          </Box>
        ),
      )}
    </FormPart>
  );
});
