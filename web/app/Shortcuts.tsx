import { Box, Button, Flex, Heading } from '@chakra-ui/react';
import { Link } from 'react-router';
import { shortcutsChosen, shortcutsToggled } from './preferences.ts';
import { useAppDispatch, useAppSelector } from './store.ts';
import { Tick } from './Tick.tsx';

const KEYS: readonly (readonly [string, string])[] = [
  ['?', 'show or hide this list'],
  ['← ↑ → ↓', 'on the head, or in an empty entry: walk to the next point'],
  ['0.15 Enter', 'keep a blade with a light drag, go to the next point'],
  ['0.13 0.15 Enter', 'keep a bracket: goes, will not'],
  ['>0.1 or <0.3', 'only the side that is known'],
  ['6 thou, 150 um, .006"', 'any unit, whatever the shop reads in'],
  ['0.13 g, d or w', 'try a blade: goes, drags, will not'],
  ['g, d or w', 'the blade that is lit: goes, drags, will not'],
  ['n', 'take the blade that settles it'],
  ['i', 'in an empty entry: the crank stands at the stop, “In position”'],
  ['Backspace', 'in an empty entry: take the last try back'],
  ['Enter', 'when asked about a slip: take the suggestion; after tries: keep them'],
  ['← →, PageUp, PageDown', 'on the crank wheel: 1° (shift 10°), from stop to stop'],
  ['Esc', 'empty the entry'],
  ['u', 'read in the other unit'],
  ['/', 'look for an engine'],
];

/** The keys that do the work, beside the page rather than over it. */
export function Shortcuts() {
  const dispatch = useAppDispatch();
  const on = useAppSelector((state) => state.preferences.shortcuts);
  return (
    <Box
      as="aside"
      aria-label="Keyboard shortcuts"
      position="absolute"
      right="12px"
      bottom="66px"
      width="min(460px, calc(100% - 24px))"
      maxHeight="calc(100% - 84px)"
      overflowY="auto"
      background="raised"
      border="1px solid"
      borderColor="ink"
      padding="4"
      zIndex="2"
    >
      <Flex justifyContent="space-between" alignItems="center">
        <Heading as="h2" fontSize="lg">
          Keys
        </Heading>
        <Button variant="plain" onClick={() => dispatch(shortcutsToggled())}>
          Close
        </Button>
      </Flex>
      <Tick
        label="Keys do this on this device"
        checked={on}
        onChange={({ target: { checked } }) => dispatch(shortcutsChosen(checked))}
      />
      <Link to="/guide" onClick={() => dispatch(shortcutsToggled())}>
        Your first day: a short guide
      </Link>
      <dl>
        {KEYS.map(([keys, what]) => (
          <Box
            key={keys}
            display="grid"
            gridTemplateColumns="170px 1fr"
            gap="3"
            paddingY="1"
            borderTop="1px solid"
            borderColor="hairline"
          >
            <Box as="dt" fontFamily="mono" fontSize="xs">
              {keys}
            </Box>
            <dd>{what}</dd>
          </Box>
        ))}
      </dl>
    </Box>
  );
}
