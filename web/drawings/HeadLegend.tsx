import { Box } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { paint } from './states.ts';

/** What the lines of a head map mean, each as it is drawn there. */
const LINES: readonly (readonly [string, ReactNode])[] = [
  ['exhaust', <rect key="e" {...{ x: 3, y: 3, width: 22, height: 22, rx: 2 }} />],
  ['intake', <rect key="i" {...{ x: 3, y: 3, width: 22, height: 22, rx: 9 }} />],
  [
    'may be measured where the crank stands',
    <g key="c">
      <rect {...{ x: 3, y: 3, width: 22, height: 22, rx: 2 }} />
      <rect {...{ x: 3, y: 9, width: 4, height: 10 }} fill={paint('brass')} stroke="none" />
    </g>,
  ],
  [
    'not here: turn on first',
    <rect key="n" {...{ x: 3, y: 3, width: 22, height: 22, rx: 2 }} strokeDasharray="3 4" />,
  ],
  [
    'done at this stage',
    <g key="d">
      <circle {...{ cx: 14, cy: 14, r: 9 }} fill={paint('brass')} stroke="none" />
      <path d="M10 14l3 3l5 -6" stroke={paint('paper')} strokeWidth="1.8" />
    </g>,
  ],
  [
    'waiting to be sent',
    <circle key="w" {...{ cx: 14, cy: 14, r: 6 }} stroke={paint('brass')} strokeWidth="2.5" />,
  ],
];

/** Says what a head map's lines mean, to whoever asks. */
export function HeadLegend() {
  return (
    <Box as="details" fontSize="sm" textAlign="center">
      <Box as="summary" cursor="pointer" minHeight="44px" paddingY="2" color="faded">
        What the lines mean
      </Box>
      <Box as="ul" display="flex" flexWrap="wrap" columnGap="18px" rowGap="1" justifyContent="center">
        {LINES.map(([words, drawn]) => (
          <Box as="li" key={words} display="flex" gap="2" alignItems="center">
            <svg width="28" height="28" viewBox="0 0 28 28" fill="none" stroke={paint('faded')} aria-hidden>
              {drawn}
            </svg>
            {words}
          </Box>
        ))}
      </Box>
    </Box>
  );
}
