import { Box, Heading } from '@chakra-ui/react';
import { boltPlaces, boltsInRows, tightenOrder } from '@zero-lash/core/assembly';
import type { Bank } from '@zero-lash/core/sheets';
import { useMemo } from 'react';
import { Fold } from '../app/Fold.tsx';
import type { BuildView } from '../builds/buildView.ts';
import { BoltDrawing } from '../drawings/BoltDrawing.tsx';

/** Something with bolts, drawn in the order they are slackened. */
interface Slackened {
  readonly label: string;
  readonly bolts: ReturnType<typeof boltPlaces>;
  readonly order: readonly string[];
  /** who says so */
  readonly by: 'maker' | 'places' | 'usual';
}

/** What the sheet draws the bolts of; where it draws none, a head with bolts where most heads have them. */
function slackened({ pattern, torques }: BuildView['sheet'], what: Slackening): readonly Slackened[] {
  const drawn = torques
    .filter(({ rows, fastening }) => rows.length > 0 && isOf(fastening, what))
    .map(({ fastening, rows, sequence }): Slackened => {
      const bolts = boltsInRows(rows);
      return sequence.length > 0
        ? { label: fastening, bolts, order: sequence.map(String).reverse(), by: 'maker' }
        : { label: fastening, bolts, order: tightenOrder({ bolts }).slacken, by: 'places' };
    });
  if (drawn.length > 0 || what === 'cover') return drawn;
  const banks = [...new Set(pattern.cylinders.map(({ bank }) => bank))].sort() as Bank[];
  return banks.map((bank) => {
    const bolts = boltPlaces(pattern, bank);
    const label = banks.length > 1 ? `Head of bank ${bank}` : 'Head';
    return { label, bolts, order: tightenOrder({ bolts }).slacken, by: 'usual' };
  });
}

const WHOSE: Readonly<Record<Slackened['by'], string>> = {
  maker: 'the maker’s order of tightening, the other way round.',
  places: 'worked out from where the sheet says its bolts stand, from the ends inward, crosswise.',
  usual:
    'worked out for a head with bolts at the corners of every bore, from the ends inward, crosswise. Where the head is another, this is not its order.',
};

/** The cover before anything is measured; the train and its head only once every gap was read as it was found. */
type Slackening = 'cover' | 'train';

const isOf = (fastening: string, what: Slackening) => /cover/i.test(fastening) === (what === 'cover');

interface Props {
  readonly build: BuildView;
  readonly what: Slackening;
}

/** In which order bolts are slackened: as the sheet says, or worked out from where they stand. */
export function SlackenOrder({ build, what }: Props) {
  const { sheet } = build;
  const heads = useMemo(() => slackened(sheet, what), [sheet, what]);
  const said = sheet.torques.filter(({ order, fastening }) => order !== '' && isOf(fastening, what));
  if (what === 'cover' && said.length + heads.length === 0) return null;
  return (
    <Fold
      title={<b>In which order to slacken {what === 'cover' ? 'the cover' : 'the train and its head'}</b>}
      ruled="above"
    >
      {said.length > 0 && (
        <Box paddingBottom="2">
          <Heading as="h4" fontSize="md" fontWeight="650">
            The sheet says
          </Heading>
          {said.map(({ fastening, order }) => (
            <Box key={fastening}>
              {fastening}, tightened {order}: slackened the other way round, in part turns.
            </Box>
          ))}
        </Box>
      )}
      {heads.map(({ label, bolts, order, by }) => (
        <Box key={label} paddingBottom="2">
          <b>{label}</b>: {WHOSE[by]}
          <BoltDrawing bolts={bolts} order={order} label={label} />
        </Box>
      ))}
      <Box color="faded" fontSize="sm" paddingBottom="2">
        A quarter turn at a time. Where the maker’s manual gives an order, the manual governs.
        {what === 'train' &&
          ' Cam caps: all of them evenly, half a turn at a time, until no spring presses any more.'}
      </Box>
    </Fold>
  );
}
