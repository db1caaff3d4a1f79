import { Box } from '@chakra-ui/react';
import type { ReadingRow } from '@zero-lash/contract/measuring';
import { useShopTimes } from '../app/useShopTimes.ts';
import { useLengths } from '../app/lengths.ts';
import { VerdictMark } from '../drawings/VerdictMark.tsx';
import { useHistoryQuery } from './endpoints.ts';

/** Every reading the point had in this round, newest first: nothing typed is ever lost. */
export function PointHistory({ reading }: { readonly reading: ReadingRow }) {
  const times = useShopTimes();
  const { interval, unit, band } = useLengths();
  const { data } = useHistoryQuery({
    roundId: reading.roundId,
    point: reading.point,
    // one that came in late leaves the same reading standing, with one more behind it
    newest: `${reading.id} ${reading.earlier}`,
  });
  return (
    <Box as="details" marginTop="3" fontSize="sm">
      <Box as="summary" cursor="pointer" minHeight="44px" paddingY="2" color="faded">
        Measured {reading.earlier + 1} times in this round
      </Box>
      <ul>
        {data?.map((row) => (
          <Box
            as="li"
            key={row.id}
            display="flex"
            gap="3"
            alignItems="center"
            paddingY="1"
            borderTop="1px solid"
            borderColor="hairline"
          >
            <VerdictMark state={row.verdict} />
            <Box minWidth="0">
              <Box fontFamily="mono">{row.asTyped}</Box>
              {interval(row)} {unit}
              {!row.floor && ', no blade went'}
              <Box color="faded">
                {row.limits
                  ? `judged by ${band(row.limits.min, row.limits.max)}`
                  : 'read before its limits were here'}
              </Box>
            </Box>
            <Box color="faded" marginLeft="auto" textAlign="right">
              {[
                `${row.by}, ${times.moment(row.takenAt)}`,
                row.onLimit && 'in spec only by the allowance',
                row.instrument,
                row.crankAngle !== null &&
                  `crank at ${row.crankAngle}°${row.offBase ? ', off its base circle' : ''}`,
                row.blind && 'second look',
                row.supersededBy ? `superseded by ${row.supersededBy}: ${row.supersededWhy}` : row.reason,
              ]
                .filter(Boolean)
                .join(' · ')}
            </Box>
          </Box>
        ))}
      </ul>
    </Box>
  );
}
