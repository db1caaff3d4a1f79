import { hasMeter } from '@zero-lash/core/rechecks';
import { Box } from '@chakra-ui/react';
import type { EngineView } from '@zero-lash/contract/engines';
import { ShopTime } from '../app/ShopTime.tsx';
import { useLengths } from '../app/lengths.ts';
import { ROUND_WORDS } from '@zero-lash/core/builds';
import { Empty } from '../app/Page.tsx';
import { GapBar } from '../drawings/GapBar.tsx';
import { VerdictMark } from '../drawings/VerdictMark.tsx';

const ROUNDS_SHOWN = 5;

/** Every point's gap, round by round, against the limits it was judged by: a row that walks to one side is drifting. */
export function GapCourse({ engine }: { readonly engine: EngineView }) {
  const { figure, interval } = useLengths();
  const rounds = [...new Map(engine.gaps.map((gap) => [gap.at, gap])).values()].slice(-ROUNDS_SHOWN);
  // one that an earlier revision had is shown too, after those of today
  const points = [...new Set([...engine.limits, ...engine.gaps].map(({ point }) => point))];
  const gapAt = new Map(engine.gaps.map((gap) => [`${gap.at} ${gap.point}`, gap]));
  if (rounds.length === 0) return <Empty>Nothing is measured yet. The first gaps come with As found.</Empty>;
  return (
    <Box overflowX="auto" tabIndex={0} role="region" aria-label="Gaps over time">
      <table>
        <thead>
          <Box as="tr" borderBottom="1px solid" borderColor="ink">
            <th scope="col">Point</th>
            {rounds.map((round) => (
              <Box
                as="th"
                key={round.at}
                {...{ scope: 'col' }}
                fontWeight="400"
                paddingX="2"
                paddingBottom="1"
              >
                <Box fontWeight="650">{ROUND_WORDS[round.round]}</Box>
                <Box fontSize="sm" color="faded">
                  <ShopTime at={round.at} day />
                  {round.usage !== null && hasMeter(engine.usageUnit) && ` · ${round.usage}`}
                </Box>
              </Box>
            ))}
          </Box>
        </thead>
        <tbody>
          {points.map((point) => (
            <Box as="tr" key={point} borderBottom="1px solid" borderColor="hairline">
              <Box as="th" {...{ scope: 'row' }} fontWeight="650" paddingRight="2" height="44px">
                {point}
              </Box>
              {rounds.map((round) => {
                const gap = gapAt.get(`${round.at} ${point}`);
                return (
                  <Box as="td" key={round.at} paddingX="2">
                    {gap && (
                      <Box>
                        <GapBar
                          min={gap.limits?.min ?? null}
                          max={gap.limits?.max ?? null}
                          gap={gap}
                          state={gap.verdict}
                          width={120}
                          figure={figure}
                        />
                        <Box
                          fontSize="sm"
                          display="flex"
                          gap="2"
                          alignItems="center"
                          lineHeight="1.1"
                          paddingBottom="1"
                        >
                          <VerdictMark state={gap.verdict} size={13} />
                          {interval(gap)}
                          {gap.onLimit && ' by the allowance'}
                        </Box>
                      </Box>
                    )}
                  </Box>
                );
              })}
            </Box>
          ))}
        </tbody>
      </table>
    </Box>
  );
}
