import { Box, Button, Flex, Input } from '@chakra-ui/react';
import { turnInWords } from '@zero-lash/core/setting';
import { useState, type FormEvent } from 'react';
import { Labelled } from '../app/Labelled.tsx';
import { useLengths } from '../app/lengths.ts';
import { advise, needReading, PIECE_WORDS, type MeansProps } from './settingAdvice.ts';

/** How far to turn a screw or a nut, and what was turned. */
export function TurnForm(props: MeansProps) {
  const { means, onRecord, target } = props;
  const { length } = useLengths();
  const [own, setOwn] = useState('');
  const [complaint, setComplaint] = useState<string>();
  const advice = advise(props, null);
  const turn = advice.kind === 'turn' ? advice.turn : null;

  function recordOwn(event: FormEvent) {
    event.preventDefault();
    const degrees = Number(own.replace(',', '.').replace('−', '-'));
    if (own.trim() === '' || !Number.isFinite(degrees) || Math.abs(degrees) > 7200) {
      setComplaint('Degrees, such as 45 to loosen or -45 to tighten.');
      return;
    }
    onRecord({ kind: 'turned', degrees });
  }

  return (
    <>
      <Box fontSize="lg" fontWeight="650">
        {turn === null && needReading(props)}
        {turn?.direction === 'none' && 'On target: nothing to turn'}
        {turn && turn.direction !== 'none' && (
          <>
            {turn.direction === 'loosen' ? 'Loosen' : 'Tighten'} {turnInWords(turn.degrees)}
          </>
        )}
      </Box>
      <Box fontSize="sm" color="faded">
        To {length(target)} at the middle of what was read; {PIECE_WORDS[means.kind]} pitch{' '}
        {'pitch' in means ? means.pitch : ''} mm. The lock nut moves it: measure again after.
      </Box>
      {turn && (
        <Button
          variant="solid"
          marginTop="3"
          width="100%"
          onClick={() => onRecord({ kind: 'turned', degrees: Math.round(turn.degrees) })}
        >
          Turned and locked as said
        </Button>
      )}
      <form onSubmit={recordOwn} noValidate>
        <Flex gap="2" alignItems="flex-end" marginTop="3">
          <Box flex="1">
            <Labelled label="Or what was turned, in degrees (− tightens)" error={complaint}>
              <Input
                value={own}
                onChange={(event) => setOwn(event.target.value)}
                inputMode="text"
                maxLength={8}
              />
            </Labelled>
          </Box>
          <Button type="submit">Write down</Button>
        </Flex>
      </form>
    </>
  );
}
