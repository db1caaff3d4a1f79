import { Box, Button, Flex } from '@chakra-ui/react';
import { memo, useEffect, useState } from 'react';
import { aloudChosen, pedalTaught, tonesChosen, type PedalAction } from '../app/preferences.ts';
import { useAppDispatch, useAppSelector } from '../app/store.ts';
import { Tick } from '../app/Tick.tsx';
import { whyNotTaught } from './usePedal.ts';
import { hasVoice } from './useVoice.ts';

const ACTIONS: readonly (readonly [PedalAction, string])[] = [
  ['goes', 'goes'],
  ['wont', 'won’t'],
  ['next', 'next point, or “In position”'],
  ['back', 'take the last try back'],
];

/** Both hands at the engine: what a pedal does on this device, and whether it speaks and sounds. */
export const HandsFree = memo(function HandsFree() {
  const { aloud, tones } = useAppSelector((state) => state.preferences);
  const dispatch = useAppDispatch();
  const voice = useVoices();
  return (
    <Box as="details" fontSize="sm" paddingTop="2">
      <Box as="summary" minHeight="44px" paddingY="2" cursor="pointer">
        Pedal, voice and tones
      </Box>
      <Teaching />
      <Tick
        label="Say the next point, blade and verdict aloud"
        aside={voice ? undefined : 'this browser has no voice'}
        checked={aloud && voice}
        disabled={!voice}
        onChange={({ target: { checked } }) => dispatch(aloudChosen(checked))}
      />
      <Tick
        label="A short tone for each verdict"
        checked={tones}
        onChange={({ target: { checked } }) => dispatch(tonesChosen(checked))}
      />
    </Box>
  );
});

/** Teaches a pedal: whatever it sends when it is pressed is what it is known by. */
function Teaching() {
  const pedal = useAppSelector((state) => state.preferences.pedal);
  const dispatch = useAppDispatch();
  const [teaching, setTeaching] = useState<PedalAction | null>(null);
  const [complaint, setComplaint] = useState<string | null>(null);
  useEffect(() => {
    if (!teaching) return undefined;
    const learn = (event: KeyboardEvent) => {
      event.preventDefault();
      event.stopPropagation();
      const why = event.key === 'Escape' ? null : whyNotTaught(event.key);
      setComplaint(why);
      if (why) return;
      if (event.key !== 'Escape') dispatch(pedalTaught({ action: teaching, key: event.key }));
      setTeaching(null);
    };
    window.addEventListener('keydown', learn, { capture: true });
    return () => window.removeEventListener('keydown', learn, { capture: true });
  }, [teaching, dispatch]);
  return (
    <Box as="ul" aria-label="Pedal">
      {ACTIONS.map(([action, words]) => (
        <Flex
          as="li"
          key={action}
          gap="2"
          alignItems="center"
          borderBottom="1px solid"
          borderColor="hairline"
        >
          <Box flex="1">
            {words}: <b>{pedal[action] ? keyInWords(pedal[action]) : '–'}</b>
          </Box>
          {pedal[action] && (
            <Button
              variant="plain"
              aria-label={`Forget the key for ${words}`}
              onClick={() => dispatch(pedalTaught({ action, key: null }))}
            >
              Forget
            </Button>
          )}
          <Button
            aria-label={`Teach the key for ${words}`}
            aria-pressed={teaching === action}
            onClick={(event) => {
              // a pedal that sends a space or an Enter would press the button instead
              event.currentTarget.blur();
              setComplaint(null);
              setTeaching(teaching === action ? null : action);
            }}
          >
            {teaching === action ? 'Press it…' : 'Teach'}
          </Button>
        </Flex>
      ))}
      {complaint && (
        <Box color="tight" role="alert" paddingY="1">
          {complaint}
        </Box>
      )}
      <Box color="faded" paddingY="1">
        While the crank is being turned the pedal answers for no blade: it only says “In position”.
      </Box>
    </Box>
  );
}

const keyInWords = (key: string) => (key === ' ' ? 'Space' : key);

/** Voices come when the browser has found them. */
function useVoices(): boolean {
  const [voice, setVoice] = useState(hasVoice);
  useEffect(() => {
    if (!('speechSynthesis' in window)) return undefined;
    const found = () => setVoice(hasVoice());
    window.speechSynthesis.addEventListener('voiceschanged', found);
    return () => window.speechSynthesis.removeEventListener('voiceschanged', found);
  }, []);
  return voice;
}
