// Long because every way a piece may be named, warned and written down at a point meets in this one form.
import { Box, Button, Flex, Input } from '@chakra-ui/react';
import { lastChange } from '@zero-lash/core/builds';
import { mmFromTenths, parseLength, tenthsFromMm } from '@zero-lash/core/length';
import {
  adviseSetting,
  alreadyIn,
  feelSpread,
  isInHand,
  markDiffers,
  pieceSystem,
  pieceWarning,
  piecesWornOut,
  readMark,
  sizesOf,
  surelyThin,
  whatItLeaves,
} from '@zero-lash/core/setting';
import { pieceGain } from '@zero-lash/core/sheets';
import { useMemo, useState, type FormEvent } from 'react';
import { Labelled } from '../app/Labelled.tsx';
import { useLengths } from '../app/lengths.ts';
import { Question } from '../app/Question.tsx';
import { useKeptText } from '../app/useKeptText.ts';
import { PieceQuestion, sameWarning, type AskedPiece } from './PieceQuestion.tsx';
import { GapBar } from '../drawings/GapBar.tsx';
import { reachOf } from '../instruments/reach.ts';
import { useBench } from '../instruments/useBench.ts';
import { useDrawerQuery } from '../pieces/endpoints.ts';
import { useFeel } from '../pieces/useFeel.ts';
import { piecesElsewhere, usualWay, type PieceWay } from './pieceWay.ts';
import { PieceWayChoice } from './PieceWayChoice.tsx';
import {
  needReading,
  noBladeWent,
  noPieceInWords,
  PIECE_WORDS,
  tipLimitAt,
  toSet,
  type MeansProps,
} from './settingAdvice.ts';

interface FitFormProps extends MeansProps {
  readonly installed: number | null;
  /** leaves the point for the end of the lap, with what is in there now; absent where nothing is collected */
  readonly onCollect?: (installed: number | null, asTyped: string) => void;
}

/** Which shim, bucket or cap to fit, what it will leave, and what was fitted. */
export function FitForm(props: FitFormProps) {
  const { means, point, reading, onRecord } = props;
  // pieces are called what is stamped on them; what they leave is read as the page reads
  const { unit, figure, length } = useLengths(point.stamped);
  const page = useLengths();
  const { interval } = page;
  const beside = (mm: number) => (page.unit === unit ? '' : ` (${page.length(mm)})`);
  const piece = PIECE_WORDS[means.kind];
  const [isIn, setIsIn] = useState(props.installed === null ? '' : figure(props.installed));
  const [fitted, setFitted] = useKeptText(`fitted:${props.build.id}:${point.key}`);
  const [mark, setMark] = useKeptText(`fitted:${props.build.id}:${point.key}:mark`);
  const [complaints, setComplaints] = useState<{ installed?: string; fitted?: string }>({});
  const [asked, setAsked] = useState<AskedPiece | null>(null);
  const [unreadable, setUnreadable] = useState<string | null>(null);
  const [said, setSaid] = useState<Partial<PieceWay>>({});
  const [twice, setTwice] = useState<string | null>(null);
  const [differs, setDiffers] = useState<{ readonly mark: number; readonly fitted: number } | null>(null);
  const sizes = 'sizes' in means ? means.sizes : null;
  const pieceFrom = (text: string): number | null => {
    const parsed = parseLength(text, unit);
    return 'error' in parsed || parsed.mm < 0.1 || parsed.mm > 50 ? null : parsed.mm;
  };
  const installed = pieceFrom(isIn);
  const noSuch =
    sizes !== null &&
    installed !== null &&
    pieceWarning(tenthsFromMm(installed), sizes, null)?.code === 'not-made';
  // from a piece that is not made nothing is worked out before it is known what was meant
  const guard = useFeel()?.guard ?? USUAL_GUARD;
  const at = toSet(props, noSuch ? null : installed, { guard });
  const advice = adviseSetting(at);
  const choice = advice.kind === 'fit' ? advice : null;
  const marked = sizes === null || mark.trim() === '' ? null : readMark(mark, sizesOf(sizes), point.stamped);
  const typed = fitted.trim() === '' ? null : pieceFrom(fitted);
  // what is stamped is gone by where nobody measured it
  const byMark = fitted.trim() === '' && marked !== null ? mmFromTenths(marked) : null;
  const chosen = fitted.trim() === '' ? (byMark ?? (choice ? mmFromTenths(choice.size) : null)) : typed;
  const { data: drawer = null } = useDrawerQuery(undefined, { refetchOnMountOrArgChange: true });
  const { build } = props;
  // what was worn is out once something was fitted since
  const worn = useMemo(
    () => lastChange(build.settings, point.key) === null && piecesWornOut(build).has(point.key),
    [build, point.key],
  );
  const system = pieceSystem(means)?.key;
  const inHand =
    drawer && system && choice ? isInHand(build, system, mmFromTenths(choice.size), drawer) : null;
  const usual = usualWay(build, point, installed, chosen, worn, drawer);
  // a piece that stays in goes nowhere
  const stays = usual.from === 'unsaid';
  const way: PieceWay = stays ? usual : { ...usual, ...said };
  const leaves = chosen === null ? null : whatItLeaves(at, tenthsFromMm(chosen));
  const result = leaves && { lo: inWhole(leaves.lo), hi: inWhole(leaves.hi) };
  const { blades, maxStack } = useBench();
  // where nothing is known below, one piece is named with which a blade will surely go
  const thin =
    advice.kind === 'no-blade-went' && sizes && reading?.hi && installed !== null && !noSuch
      ? surelyThin(
          {
            hi: tenthsFromMm(reading.hi),
            installed: tenthsFromMm(installed),
            gain: pieceGain(props.build.sheet.pattern, point.role),
          },
          sizesOf(sizes),
          tenthsFromMm(reachOf(blades, maxStack).to),
        )
      : null;

  function record(event: FormEvent) {
    event.preventDefault();
    const next = {
      ...(installed === null ? { installed: `The thickness in there now, such as ${figure(2.4)}.` } : {}),
      ...(chosen === null ? { fitted: `The thickness fitted, such as ${figure(2.4)}.` } : {}),
    };
    setComplaints(next);
    if (installed === null || chosen === null) return undefined;
    if (sizes !== null && mark.trim() !== '' && marked === null && unreadable !== mark)
      return setUnreadable(mark);
    if (marked !== null && typed !== null && markDiffers(marked, tenthsFromMm(typed)))
      return setDiffers({ mark: mmFromTenths(marked), fitted: typed });
    const warning = warningOf(installed, chosen);
    if (warning && !sameWarning(warning, asked)) return setAsked(warning);
    return askTwice(installed, chosen);
  }

  /** Writes it down, but asks first about a piece that is in at another point already. */
  function askTwice(installedMm: number, fittedMm: number) {
    const moves = tenthsFromMm(installedMm) !== tenthsFromMm(fittedMm);
    const there =
      sizes !== null && moves && twice === null
        ? alreadyIn(
            { thickness: tenthsFromMm(fittedMm), mark },
            piecesElsewhere(build, point),
            sizesOf(sizes),
            point.stamped,
          )
        : null;
    if (there === null) return write(installedMm, fittedMm);
    setAsked(null);
    setUnreadable(null);
    return setTwice(there);
  }

  function write(installedMm: number, fittedMm: number, note = '', giver: string | null = null) {
    setAsked(null);
    setDiffers(null);
    setUnreadable(null);
    setTwice(null);
    setFitted('');
    setMark('');
    onRecord({
      ...{ kind: 'fitted', installed: installedMm, fitted: fittedMm, mark: mark.trim(), note },
      ...{ from: giver === null ? way.from : 'engine', to: way.to, giver },
    });
  }

  /** Of a mark and a micrometer that differ one is believed, and both are kept. */
  function believe(which: 'micrometer' | 'mark') {
    const { mark: stamp, fitted: measured } = differs!;
    const both = `mark ${figure(stamp)}, micrometer ${figure(measured)} ${unit}`;
    const why = which === 'micrometer' ? 'the mark is worn or lies' : 'the micrometer slipped';
    write(installed!, which === 'micrometer' ? measured : stamp, `${both}: ${why}`);
  }

  /** What looks wrong with the two figures, if anything: the piece that is out first. */
  function warningOf(installedMm: number, fittedMm: number): AskedPiece | null {
    if (!sizes) return null;
    const out = pieceWarning(tenthsFromMm(installedMm), sizes, null);
    if (out) return { ...out, field: 'installed', mm: installedMm };
    const gap = reading && { installed: tenthsFromMm(installedMm), verdict: reading.verdict };
    const into = pieceWarning(tenthsFromMm(fittedMm), sizes, gap ?? null);
    return into && { ...into, field: 'fitted', mm: fittedMm };
  }

  return (
    <form onSubmit={record} noValidate>
      <Flex gap="3">
        <Labelled label={`in now, ${unit}`} error={complaints.installed}>
          <Input
            value={isIn}
            onChange={(event) => setIsIn(event.target.value)}
            inputMode="decimal"
            maxLength={12}
          />
        </Labelled>
        <Labelled label={`fitted, ${unit}`} error={complaints.fitted}>
          <Input
            value={fitted}
            placeholder={choice ? figure(mmFromTenths(choice.size)) : ''}
            onChange={(event) => {
              setTwice(null);
              setFitted(event.target.value);
            }}
            inputMode="decimal"
            maxLength={12}
          />
        </Labelled>
        <Labelled label="its mark">
          <Input
            value={mark}
            onChange={(event) => {
              setTwice(null);
              setMark(event.target.value);
            }}
            maxLength={20}
          />
        </Labelled>
      </Flex>
      <Box fontSize="lg" fontWeight="650" marginTop="3">
        {advice.kind === 'need-reading' && needReading(props)}
        {advice.kind === 'no-blade-went' && noBladeWent(means)}
        {advice.kind === 'need-installed' && `Type the ${piece} that is in now, by micrometer`}
        {advice.kind === 'no-piece' && `No ${piece} that is made brings it into spec`}
        {advice.kind === 'chart-has-none' && 'The maker’s chart prints no piece for this gap'}
        {choice &&
          (choice.size === tenthsFromMm(installed!)
            ? `Keep the ${length(installed!)} ${piece}`
            : `Fit ${length(mmFromTenths(choice.size))}${beside(mmFromTenths(choice.size))}: ${choice.size < tenthsFromMm(installed!) ? 'thinner opens the gap' : 'thicker closes the gap'}`)}
      </Box>
      {advice.kind === 'no-piece' && (
        <Box fontSize="sm">
          {noPieceInWords(advice.why, length(inMicrons(advice.wanted)), tipOf(props, length))}
        </Box>
      )}
      {thin !== null && (
        <Box fontSize="sm">
          With <b>{length(mmFromTenths(thin))}</b> in, a blade will surely go: measure with that, then choose.
        </Box>
      )}
      {choice && sizes && (
        <Box fontSize="sm" color="faded">
          {choice.by === 'chart'
            ? 'By the maker’s chart, which governs.'
            : `Exactly ${length(inMicrons(choice.wanted!))} is wanted; made from ${figure(sizes.from)} to ${length(sizes.to)} by ${figure(sizes.step)}.`}
          {choice.status === 'likely' &&
            ' It is likely only: what is known of the gap is wider than the band.'}
        </Box>
      )}
      {result && leaves && (
        <Flex alignItems="center" gap="3" marginTop="2">
          <GapBar
            min={point.min}
            max={point.max}
            gap={result}
            state={leaves.verdict}
            width={120}
            figure={figure}
          />
          <Box>leaves {leaves.heldOpen ? 'the valve held open' : interval(result)}</Box>
        </Flex>
      )}
      {props.onCollect && choice && choice.size !== choice.installed && (
        <Box fontSize="sm">
          {inHand === true && <>{length(mmFromTenths(choice.size))} is in hand: fit it here.</>}
          {inHand === false && (
            <>
              No {length(mmFromTenths(choice.size))} is in hand: collect it, and all of them are planned
              together when the lap is done.
            </>
          )}
        </Box>
      )}
      {byMark !== null && <Box fontSize="sm">Its mark reads {length(byMark)}; nobody measured it.</Box>}
      {unreadable !== null && unreadable === mark && (
        <Question
          answers={[
            {
              label:
                typed === null
                  ? `Keep “${mark.trim()}”`
                  : `Keep “${mark.trim()}”, ${length(typed)} by micrometer`,
              onChoose: () =>
                typed === null
                  ? setComplaints({ fitted: `Its mark says no size: measure it, such as ${figure(2.4)}.` })
                  : askTwice(installed!, typed),
            },
          ]}
          onChange={() => setUnreadable(null)}
          takesFocus
        >
          “{mark.trim()}” is no size that is made here, as far as a mark can be read: {figure(sizes!.from)} to{' '}
          {length(sizes!.to)} by {figure(sizes!.step)}. Is it what stands on the {piece}?
        </Question>
      )}
      {differs && (
        <Question
          answers={[
            {
              label: 'The micrometer: the mark is worn or lies',
              onChoose: () => believe('micrometer'),
            },
            { label: 'The mark: the micrometer slipped', onChoose: () => believe('mark') },
          ]}
          onChange={() => setDiffers(null)}
          takesFocus
        >
          Its mark reads {length(differs.mark)}, the micrometer {length(differs.fitted)}. Which is believed?
        </Question>
      )}
      {asked && sizes && (
        <PieceQuestion
          asked={asked}
          unit={unit}
          piece={piece}
          made={`${figure(sizes.from)} to ${length(sizes.to)} by ${figure(sizes.step)}`}
          tight={reading?.verdict === 'tight'}
          onUse={(mm) => {
            (asked.field === 'installed' ? setIsIn : setFitted)(figure(mm));
            setAsked(null);
          }}
          onKeep={() => askTwice(installed!, chosen!)}
          onChange={() => setAsked(null)}
        />
      )}
      {twice !== null && chosen !== null && installed !== null && (
        <Question
          answers={[
            { label: 'Another one like it', onChoose: () => write(installed, chosen) },
            {
              label: `The same: it came out of ${twice}`,
              onChoose: () => write(installed, chosen, '', twice),
            },
          ]}
          onChange={() => setTwice(null)}
          takesFocus
        >
          {mark.trim() === '' ? length(chosen) : `“${mark.trim()}”`} is in at {twice} by the record, and a
          piece is in one place. Which is this?
        </Question>
      )}
      {!stays && chosen !== null && (
        <PieceWayChoice
          way={way}
          bare={installed === null}
          onChoose={(more) => setSaid({ ...said, ...more })}
        />
      )}
      <Button type="submit" variant="solid" marginTop="3" width="100%">
        {fitted.trim() === '' && chosen !== null ? `Fitted ${figure(chosen)}` : 'Write down'}
      </Button>
      {props.onCollect && (
        <Button variant="plain" onClick={() => props.onCollect!(noSuch ? null : installed, isIn.trim())}>
          Collect it for the end of the lap
        </Button>
      )}
    </form>
  );
}

/** How far inside the band a piece is chosen where nothing is known of anybody's feel; the plan keeps the same. */
const USUAL_GUARD = feelSpread({ looks: [] }).guard;
/** Tenths of a micrometre that were worked out, in mm: to the tenth for a gap, to the micrometre for a thickness. */
const inWhole = (tenths: number) => mmFromTenths(Math.round(tenths));
const inMicrons = (tenths: number) => mmFromTenths(Math.round(tenths / 10) * 10);

function tipOf({ build, point }: MeansProps, length: (mm: number) => string): string | null {
  const limit = tipLimitAt(build, point);
  return limit === null ? null : length(limit);
}
