import { Box } from '@chakra-ui/react';
import type { ReadingRow } from '@zero-lash/contract/measuring';
import {
  balancedPoints,
  checkInWords,
  checkKey,
  findingsNow,
  lastChange,
  liesUnderCam,
  SETTING,
} from '@zero-lash/core/builds';
import { tenthsFromMm } from '@zero-lash/core/length';
import { boundedGap, limitedPoints, whyNoProof, type LimitedPoint } from '@zero-lash/core/measuring';
import { useLengths } from '../app/lengths.ts';
import type { BuildView } from '../builds/buildView.ts';
import { Check } from '../builds/Check.tsx';
import { useBenchWrite } from '../builds/useBenchWrite.ts';
import { CamsOut } from './CamsOut.tsx';
import { ToolHold } from './ToolHold.tsx';

interface Props {
  readonly build: BuildView;
  readonly point: LimitedPoint;
}

/** What comes before a point is set: the tool, the bridge, and the other side of a valve that is drawn shut. */
export function BeforeSetting({ build, point }: Props) {
  return (
    <>
      {liesUnderCam(build.sheet.pattern, point.role) && <CamsOut build={build} enabled />}
      <ToolHold build={build} point={point.key} />
      <BridgeFirst build={build} point={point} />
      <OtherSide build={build} point={point} />
    </>
  );
}

function BridgeFirst({ build, point }: Props) {
  const put = useBenchWrite(build.id);
  if (!balancedPoints(build.sheet.pattern).includes(point.key)) return null;
  const check = checkKey('bridge', point.key);
  return (
    <Box marginBottom="3">
      <Check
        text={checkInWords(SETTING, check)}
        by={build.ticks.find((tick) => tick.done && tick.check === check)?.by}
        enabled
        onTick={(done) => put({ kind: 'tick', body: { stage: SETTING, check, done } })}
      />
    </Box>
  );
}

/** What stands at the other side of a valve that is drawn shut: the closing side first, then the opening side, and the sum of both. */
function OtherSide({ build, point }: Props) {
  const { interval, band, length } = useLengths();
  const closing = point.role.endsWith('-closing');
  const otherRole = closing ? point.role.replace('-closing', '') : `${point.role}-closing`;
  const other = limitedPoints(build.sheet).find(
    ({ cylinder, index, role }) => cylinder === point.cylinder && index === point.index && role === otherRole,
  );
  if (!other) return null;
  const found = findingsNow(build);
  const here = statusAt(build, found.get(point.key));
  const there = statusAt(build, found.get(other.key));
  const sum = here && there && { lo: add(here.lo, there.lo), hi: add(here.hi, there.hi) };
  return (
    <Box marginBottom="3" fontSize="sm">
      {closing ? (
        <Box>
          The closing side first, the valve held firmly shut. Changing it makes what was read at {other.key}{' '}
          old.
          {point.min === 0 &&
            ` A closing gap of nothing lets no blade in: where none goes and it still rocks at the gap, up and down, say so below; it is no more than ${length(point.max)}.`}
        </Box>
      ) : (
        !there && (
          <Box fontWeight="650">
            The closing side, {other.key}, is set and measured first, the valve held firmly shut.
          </Box>
        )
      )}
      <Box>
        {other.key}: {there ? interval(there) : 'not known on both sides since it was changed'}
        {sum && (
          <>
            ; both sides together <b>{interval(sum)}</b>, of{' '}
            {band(add(point.min, other.min), add(point.max, other.max))}
          </>
        )}
      </Box>
    </Box>
  );
}

/** A gap that still says how a point is, both its ends known; mm. */
function statusAt({ settings }: BuildView, reading: ReadingRow | undefined) {
  if (!reading) return null;
  const changed = lastChange(settings, reading.point)?.at ?? null;
  return whyNoProof(reading, changed) === null ? boundedGap(reading) : null;
}

const add = (a: number, b: number) => (tenthsFromMm(a) + tenthsFromMm(b)) / 10_000;
