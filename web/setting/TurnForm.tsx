import { torqueShown } from '@zero-lash/core/assembly';
import { Box, Button, Flex, Input } from '@chakra-ui/react';
import { newestRound } from '@zero-lash/core/builds';
import { adjusterAt, adviseSetting, turnInWords } from '@zero-lash/core/setting';
import { useState, type FormEvent } from 'react';
import { numberTyped, type MeasureSystem } from '@zero-lash/core/length';
import { Labelled } from '../app/Labelled.tsx';
import { useLengths, useShownIn } from '../app/lengths.ts';
import { Note } from '../app/Note.tsx';
import { useAppDispatch } from '../app/store.ts';
import { TurnDial } from '../drawings/TurnDial.tsx';
import { draftKey } from '../app/drafts.ts';
import { useKeptText } from '../app/useKeptText.ts';
import { notLockedYet } from '../measuring/locking.ts';
import { useFeel } from '../pieces/useFeel.ts';
import { needReading, noBladeWent, PIECE_WORDS, toSet, type MeansProps } from './settingAdvice.ts';
import { BetweenBlades, LockSaid } from './BetweenBlades.tsx';

/** How far to turn a screw or a nut, between which blades to set it, and what was turned. */
export function TurnForm(props: MeansProps) {
  const { means, point, onRecord, target, build } = props;
  const { length } = useLengths();
  const dispatch = useAppDispatch();
  const feel = useFeel();
  const adjuster = adjusterAt(build.sheet.pattern, point.role);
  const lock = feel?.locks.find((each) => each.adjuster === adjuster);
  const shift = lock?.use ?? 0;
  const [own, setOwn] = useKeptText(`turned:${build.id}:${point.key}`);
  const [complaint, setComplaint] = useState<string>();
  const [asked, setAsked] = useState<number | null>(null);
  // of a gap read with its nut tight the shift is in the reading already: it goes out with the nut and comes back with it
  const advice = adviseSetting(toSet(props, null, { lockShift: props.reading?.beforeLock ? shift : 0 }));
  const turn = advice.kind === 'turn' ? advice.turn : null;
  // what rounds to nothing is not turned
  const turns = turn !== null && Math.round(turn.degrees) !== 0;
  const nut = means.kind === 'pivot-nut';
  const itself = 'locking' in means && means.locking === 'self-locking';
  const round = newestRound(build.rounds, 'as-set');

  function recordOwn(event: FormEvent) {
    event.preventDefault();
    const degrees = numberTyped(own);
    if (!Number.isFinite(degrees) || degrees === 0 || Math.abs(degrees) > 7200) {
      setComplaint(
        degrees === 0
          ? 'Nothing was turned: leave it alone, or say how far it was.'
          : 'Degrees, such as 45 to loosen or -45 to tighten.',
      );
      return;
    }
    setComplaint(undefined);
    if (Math.abs(degrees) > WHOLE_TURN && asked !== degrees) setAsked(degrees);
    else turned(degrees);
  }

  function turned(degrees: number) {
    setAsked(null);
    setOwn('');
    onRecord({ kind: 'turned', degrees });
  }

  const shown = useShownIn(build.sheet.system);

  function turnedNotLocked(degrees: number) {
    turned(degrees);
    if (round) dispatch(notLockedYet(draftKey(round.id, point.key)));
  }

  return (
    <>
      <Flex gap="3" alignItems="center">
        <Box flex="1">
          <Box fontSize="lg" fontWeight="650">
            {advice.kind === 'no-blade-went' && noBladeWent(means)}
            {advice.kind === 'need-reading' && needReading(props)}
            {turn && !turns && 'On target: nothing to turn'}
            {advice.kind === 'by-blade' &&
              (advice.undecided
                ? 'Not decided: try another blade, or set it by the blade'
                : (isEccentric(means) ? BY_ECCENTRIC : BY_BLADE)[advice.direction])}
            {turn && turns && (
              <>
                {turn.direction === 'loosen' ? 'Loosen' : 'Tighten'} {turnInWords(turn.degrees, nut)}
              </>
            )}
          </Box>
          {turn && turns && (
            <Box fontSize="sm">
              {turn.direction === 'loosen' ? 'Anticlockwise' : 'Clockwise'}, looking at its head.
            </Box>
          )}
        </Box>
        {turn && turns && (
          <TurnDial
            degrees={turn.degrees}
            nut={nut}
            label={`${turn.direction} ${turnInWords(turn.degrees, nut)}, ${turn.direction === 'loosen' ? 'anticlockwise' : 'clockwise'}`}
          />
        )}
      </Flex>
      {turn && turns && (
        <Flex gap="2" marginTop="3" direction="column">
          <Button
            variant="solid"
            onClick={() => onRecord({ kind: 'turned', degrees: Math.round(turn.degrees) })}
          >
            {itself ? 'Turned as said' : 'Turned and locked as said'}
          </Button>
          {!itself && (
            <Button onClick={() => turnedNotLocked(Math.round(turn.degrees))}>Turned, not locked yet</Button>
          )}
        </Flex>
      )}
      {advice.kind === 'by-blade' && (advice.undecided || advice.direction !== 'none') && (
        <Button
          variant="solid"
          marginTop="3"
          onClick={() => {
            setAsked(null);
            setOwn('');
            onRecord({ kind: 'turned', degrees: null });
          }}
        >
          {itself ? 'Turned by the blade' : 'Turned by the blade, and locked'}
        </Button>
      )}
      <Box fontSize="sm" color="faded" marginTop="2">
        Brings the middle of the reading to {length(target)}; {turnedPiece(means)} {threadInWords(means)}.{' '}
        {holdInWords(means, shown.system)}
        {turn && turns && assumedInWords(build.sheet)}
      </Box>
      {lock && <LockSaid {...lock} />}
      <BetweenBlades point={point} target={target} shift={shift} />
      <form onSubmit={recordOwn} noValidate>
        <Flex gap="2" alignItems="flex-end" marginTop="3">
          <Box flex="1">
            <Labelled label="Or what was turned, in degrees (− tightens)" error={complaint}>
              <Input
                value={own}
                onChange={(event) => {
                  setOwn(event.target.value);
                  setAsked(null);
                }}
                inputMode="text"
                maxLength={8}
              />
            </Labelled>
          </Box>
          <Button type="submit">Write down</Button>
        </Flex>
      </form>
      {asked !== null && (
        <Note role="alert" marginTop="2">
          {Math.abs(asked)}° is more than a whole turn: {pitchMoves(means, asked, length)}. Was it turned that
          far?
          <Flex gap="2" marginTop="2" flexWrap="wrap">
            <Button variant="solid" onClick={() => turned(asked)}>
              Yes, {asked}°
            </Button>
            <Button onClick={() => turned(asked / 10)}>I meant {asked / 10}°</Button>
            <Button onClick={() => setAsked(null)}>Change it</Button>
          </Flex>
        </Note>
      )}
    </>
  );
}

const WHOLE_TURN = 360;

/** What holds it, and what that asks for once it is turned. */
function holdInWords(means: MeansProps['means'], system: MeasureSystem): string {
  if (!('locking' in means)) return '';
  if (means.locking === 'lock-nut') return 'The lock nut moves it: measure again after.';
  if (means.locking === 'inner-screw')
    return 'The screw inside it is slackened first, and moves it as it is tightened: measure again after.';
  const { runsAtNm: runs, asTyped } = means;
  const least =
    runs === null || runs === undefined
      ? ''
      : `with less than ${asTyped?.runsAt ?? torqueShown([runs], system)}, or `;
  return `It holds by its own grip: one that turns ${least}by the fingers alone is renewed.`;
}

/** That an angle hangs on a figure nobody printed. */
function assumedInWords({ origins }: MeansProps['build']['sheet']): string {
  const assumed = [
    origins?.pitch?.from === 'assumed' && 'thread',
    origins?.['rocker-ratio']?.from === 'assumed' && 'rocker ratio',
  ].filter(Boolean);
  return assumed.length === 0
    ? ''
    : ` Its ${assumed.join(' and ')} ${assumed.length > 1 ? 'are' : 'is'} assumed by us: the blade decides.`;
}

/** Which way, where no angle can be given. */
const BY_BLADE = {
  loosen: 'Loosen, and set it by the blade',
  tighten: 'Tighten, and set it by the blade',
  none: 'On target: nothing to turn',
} as const;

/** The same of an eccentric, which closes or opens whichever way it was laid. */
const BY_ECCENTRIC = {
  loosen: 'Open it by its eccentric, and set it by the blade',
  tighten: 'Close it by its eccentric, and set it by the blade',
  none: 'On target: nothing to turn',
} as const;

const isEccentric = (means: MeansProps['means']): boolean =>
  means.kind === 'screw' && means.end === 'eccentric';

/** What is turned, in a word. */
const turnedPiece = (means: MeansProps['means']): string =>
  isEccentric(means) ? 'eccentric' : PIECE_WORDS[means.kind];

/** An adjuster's thread, and what follows where the sheet does not say it: `pitch 1.25 mm`. */
function threadInWords(means: MeansProps['means']): string {
  if (!('pitch' in means)) return '';
  if (isEccentric(means)) return 'without a thread, so no angle is given';
  if (means.pitch === null) return 'of no known pitch, so no angle is given';
  return `${means.asTyped?.pitch ?? `pitch ${means.pitch} mm`}${means.rockerRatio === null ? ', rocker ratio not known' : ''}`;
}

/** What a turn moves the screw by: `the screw moves 1.25 mm`. */
function pitchMoves(
  means: MeansProps['means'],
  degrees: number,
  length: ReturnType<typeof useLengths>['length'],
): string {
  if (!('pitch' in means) || means.pitch === null)
    return `the ${turnedPiece(means)} goes round ${Math.round((Math.abs(degrees) / WHOLE_TURN) * 10) / 10} times`;
  const moved = (means.pitch * Math.abs(degrees)) / WHOLE_TURN;
  return `the ${turnedPiece(means)} moves ${length(Math.round(moved * 100) / 100)}`;
}
