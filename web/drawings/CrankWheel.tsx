// Long because the wheel is drawn once, here: its face, its tracks, its stops, its needle, and how it is turned.
import { ROLE_WORDS, type Pattern } from '@zero-lash/core/sheets';
import {
  arcsOf,
  bandsOf,
  CYCLE,
  inCycle,
  layOutWheel,
  mayMeasureAt,
  onWheel,
  radiusIn,
  ringPath,
  TURN,
  type WheelTrack,
} from '@zero-lash/core/turning';
import {
  memo,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  type KeyboardEvent,
  type PointerEvent,
} from 'react';
import { paint, type PointState } from './states.ts';
import { useWidth } from './useWidth.ts';
import { MarkShape } from './VerdictMark.tsx';

/** A stop as the wheel shows it. Crank degrees, 0 to under 720. */
export interface WheelStop {
  readonly angle: number;
  readonly place: 'done' | 'here' | 'to-come';
}

interface Props {
  readonly pattern: Pattern;
  /** where the needle stands, 0 to under 720 */
  readonly angle: number;
  readonly onTurn?: ((angle: number) => void) | undefined;
  readonly stops?: readonly WheelStop[];
  /** the points that matter now: no others are drawn; all of them where it is left out */
  readonly matters?: readonly string[] | undefined;
  readonly states?: Readonly<Record<string, PointState>>;
  readonly selected?: string | null;
  readonly label: string;
}

const RADIUS = 190;
const EDGE = 30;
const FIELD = RADIUS + EDGE;
const BANDS = bandsOf(RADIUS);
/** A track thinner than this shows its role by colour and its state in the valve gear beside it. */
const LEAST_FOR_MARK = 5.5;
/** A chosen track is found again however many there are. */
const LEAST_CHOSEN = 4.5;
/** How many times larger things are written from which a wheel is a small one. */
const CROWDED = 1.2;
const STEP = 1;
const LONG_STEP = 10;
const WHEEL_STEP = 2;
/** Degrees a cylinder's name stands beside its firing TDC, so that a stop does not cover it. */
const BESIDE_STOP = 14;
const QUARTERS = [0, 90, 180, 270];

interface Written {
  /** how many times larger than drawn things are written, so that they stay legible on a small wheel */
  readonly grown: number;
}

/** Two turns of the crank: where each point may be measured, the stops, and where the crank is. */
export const CrankWheel = memo(function CrankWheel({
  pattern,
  angle,
  onTurn,
  stops = [],
  matters,
  states = {},
  selected = null,
  label,
}: Props) {
  const tracks = useMemo(() => layOutWheel(pattern, matters && new Set(matters)), [pattern, matters]);
  const svg = useRef<SVGSVGElement>(null);
  const [room, width] = useWidth<HTMLDivElement>(2 * FIELD);
  // where there is less room the wheel is drawn smaller; what is written on it is not
  const grown = Math.max(1, (2 * FIELD) / Math.max(width, 1));
  const now = useRef(angle);
  const held = useRef<number | null>(null);
  const closed = tracks.filter((track) => isClosed(track, angle));

  useLayoutEffect(() => {
    now.current = angle;
  }, [angle]);

  function turnTo(next: number) {
    const turned = Math.round(inCycle(next) * 10) / 10;
    now.current = turned >= CYCLE ? 0 : turned;
    onTurn?.(now.current);
  }

  useEffect(() => {
    const element = svg.current;
    if (!element || !onTurn) return undefined;
    // only while the wheel is held by the keyboard or a tap: a page must still scroll over it
    const onWheelTurned = (event: WheelEvent) => {
      if (document.activeElement !== element) return;
      event.preventDefault();
      turnTo(now.current + Math.sign(event.deltaY) * WHEEL_STEP);
    };
    element.addEventListener('wheel', onWheelTurned, { passive: false });
    return () => element.removeEventListener('wheel', onWheelTurned);
  }, [onTurn]);

  function onKeyDown(event: KeyboardEvent) {
    const step = event.shiftKey ? LONG_STEP : STEP;
    const forward = { ArrowRight: step, ArrowUp: step, ArrowLeft: -step, ArrowDown: -step }[event.key];
    const target =
      forward !== undefined
        ? now.current + forward
        : { PageDown: stopFrom(1), PageUp: stopFrom(-1), Home: stops[0]?.angle ?? 0 }[event.key];
    if (target === undefined) return;
    event.preventDefault();
    turnTo(target);
  }

  function stopFrom(direction: 1 | -1): number {
    const ahead = stops
      .map((stop) => ({ stop, way: inCycle((stop.angle - now.current) * direction) }))
      .filter(({ way }) => way > 0.05)
      .sort((a, b) => a.way - b.way)[0];
    return ahead?.stop.angle ?? now.current;
  }

  function placeOf(event: PointerEvent): { degrees: number; radius: number } {
    const box = svg.current!.getBoundingClientRect();
    const scale = (2 * FIELD) / box.width;
    const x = (event.clientX - box.left) * scale - FIELD;
    const y = (event.clientY - box.top) * scale - FIELD;
    const degrees = (Math.atan2(pattern.turns === 'clockwise' ? x : -x, -y) * 180) / Math.PI;
    return { degrees: (degrees + TURN) % TURN, radius: Math.hypot(x, y) };
  }

  function onPointerDown(event: PointerEvent) {
    if (!onTurn) return;
    const { degrees, radius } = placeOf(event);
    svg.current!.setPointerCapture(event.pointerId);
    held.current = degrees;
    if (radius < BANDS.pulley) return;
    const outer = radius > (BANDS.turns[0][1] + BANDS.turns[1][0]) / 2;
    turnTo(Math.round(degrees) + (outer ? TURN : 0));
  }

  function onPointerMove(event: PointerEvent) {
    if (held.current === null) return;
    const { degrees } = placeOf(event);
    const moved = ((degrees - held.current + TURN * 1.5) % TURN) - TURN / 2;
    held.current = degrees;
    turnTo(now.current + moved);
  }

  return (
    <div ref={room}>
      <svg
        ref={svg}
        viewBox={`${-FIELD} ${-FIELD} ${2 * FIELD} ${2 * FIELD}`}
        width="100%"
        style={{
          display: 'block',
          maxWidth: 2 * FIELD,
          margin: '0 auto',
          touchAction: onTurn ? 'none' : undefined,
        }}
        className="zl-crank-wheel"
        fontFamily="var(--zl-fonts-body)"
        fontSize="15"
        role={onTurn ? 'slider' : 'img'}
        tabIndex={onTurn ? 0 : undefined}
        aria-label={label}
        aria-valuemin={onTurn ? 0 : undefined}
        aria-valuemax={onTurn ? CYCLE - 1 : undefined}
        aria-valuenow={onTurn ? angle : undefined}
        aria-valuetext={onTurn ? spoken(angle, closed) : undefined}
        onKeyDown={onTurn && onKeyDown}
        onPointerDown={onPointerDown}
        onPointerMove={onPointerMove}
        onPointerUp={() => (held.current = null)}
        onPointerCancel={() => (held.current = null)}
      >
        <Face
          pattern={pattern}
          grown={grown}
          topTaken={grown > CROWDED && stops.some((stop) => stop.angle % TURN === 0)}
        />
        {tracks.map((track) => (
          <Track
            key={track.keys[0]}
            track={track}
            turns={pattern.turns}
            closed={closed.includes(track)}
            chosen={selected !== null && track.keys.includes(selected)}
            state={sharedState(track, states)}
          />
        ))}
        <Firing pattern={pattern} tracks={tracks} grown={grown} />
        <Needle angle={angle} turns={pattern.turns} grown={grown} />
        {stops.map((stop, index) => (
          <Stop key={stop.angle} stop={stop} number={index + 1} turns={pattern.turns} grown={grown} />
        ))}
      </svg>
    </div>
  );
});

function isClosed({ from, length }: WheelTrack, angle: number): boolean {
  const open = { start: inCycle(from + length), length: CYCLE - length };
  return length > 0 && mayMeasureAt(open, 0, angle);
}

function sharedState(track: WheelTrack, states: Readonly<Record<string, PointState>>): PointState | null {
  const all = [...new Set(track.keys.map((key) => states[key] ?? 'not-measured'))];
  return all.find((state) => state !== 'in-spec') ?? all[0] ?? null;
}

function turnInWords(angle: number): string {
  return angle >= TURN ? 'second turn' : 'first turn';
}

function spoken(angle: number, closed: readonly WheelTrack[]): string {
  const keys = closed.flatMap(({ keys: own }) => own);
  return `${angle % TURN}°, ${turnInWords(angle)}: ${keys.length > 0 ? `${keys.join(', ')} may be measured` : 'nothing may be measured'}`;
}

/** The bands of both turns, the degrees round the rim, and the pulley with its marks. */
const Face = memo(function Face({
  pattern,
  grown,
  topTaken,
}: {
  readonly pattern: Pattern;
  /** a stop's number stands where the top is named */
  readonly topTaken: boolean;
} & Written) {
  return (
    <g>
      {BANDS.turns.map(([inner, outer]) => (
        <g key={outer} fill="none">
          <circle r={(inner + outer) / 2} strokeWidth={outer - inner} stroke={paint('raised')} />
          <circle r={inner} stroke={paint('hairline')} />
          <circle r={outer} stroke={paint('hairline')} />
        </g>
      ))}
      {QUARTERS.filter((degrees) => degrees !== 0 || !topTaken).map((degrees) => {
        const [from, to] = [BANDS.pulley, RADIUS * 0.93].map((radius) =>
          onWheel(pattern.turns, radius, degrees),
        );
        const label = onWheel(pattern.turns, RADIUS + 16, degrees);
        const side = Math.sign(Math.round(label.x));
        return (
          <g key={degrees}>
            <line x1={from!.x} y1={from!.y} x2={to!.x} y2={to!.y} stroke={paint('hairline')} />
            <text
              transform={`translate(${side === 0 ? label.x : side * FIELD} ${label.y}) scale(${grown})`}
              y="5"
              textAnchor={side === 0 ? 'middle' : side < 0 ? 'start' : 'end'}
              fill={paint('faded')}
            >
              {degrees}°
            </text>
          </g>
        );
      })}
      <circle r={BANDS.pulley} fill={paint('paper')} stroke={paint('ink')} />
      {[...new Set(pattern.marks.map((mark) => mark % TURN))].map((mark) => (
        <path
          key={mark}
          d={`M0 ${-BANDS.pulley + 1}l-5 9h10z`}
          transform={`rotate(${pattern.turns === 'clockwise' ? mark : -mark})`}
          fill={paint('brass')}
        />
      ))}
    </g>
  );
});

/** Each cylinder's name on its own tracks, where it fires. */
const Firing = memo(function Firing({
  pattern,
  tracks,
  grown,
}: {
  readonly pattern: Pattern;
  readonly tracks: readonly WheelTrack[];
} & Written) {
  return (
    <g fontSize="14" fontWeight="650" textAnchor="middle" fill={paint('ink')} pointerEvents="none">
      {pattern.cylinders.map(({ id, firesAt }) => {
        const own = tracks.filter(({ cylinder }) => cylinder === id);
        if (own.length === 0) return null;
        const place = own.reduce((sum, track) => sum + track.place, 0) / own.length;
        const band = BANDS.turns[firesAt >= TURN ? 1 : 0];
        const at = onWheel(pattern.turns, radiusIn(band, place), firesAt + BESIDE_STOP);
        return (
          <g key={id} transform={`translate(${at.x} ${at.y}) scale(${grown})`}>
            <circle r="9" fill={paint('raised')} />
            <text y="5">{id}</text>
          </g>
        );
      })}
    </g>
  );
});

interface TrackProps {
  readonly track: WheelTrack;
  readonly turns: Pattern['turns'];
  /** may be measured where the needle stands */
  readonly closed: boolean;
  readonly chosen: boolean;
  readonly state: PointState | null;
}

/** Where points that move together may be measured: intakes solid, exhausts hollow, brake rockers dashed. */
const Track = memo(function Track({ track, turns, closed, chosen, state }: TrackProps) {
  const [inner, outer] = BANDS.turns[0];
  const room = (outer - inner) * track.share;
  const width = Math.max(1.2, room * 0.78);
  const colour = chosen
    ? 'loose'
    : track.role === 'intake'
      ? 'ink'
      : track.role === 'brake'
        ? 'faded'
        : 'brass';
  const arcs = arcsOf(track.from, track.length);
  const longest = arcs.reduce(
    (long, arc) => (arc.to - arc.from > long.to - long.from ? arc : long),
    arcs[0]!,
  );
  const hollow = track.role === 'exhaust' && width > 4;
  return (
    <g
      data-track={track.keys.join(' ')}
      data-closed={closed}
      fill="none"
      opacity={closed || chosen ? 1 : 0.4}
    >
      <title>{`${track.keys.join(', ')}: ${ROLE_WORDS[track.role]}, cylinder ${track.cylinder}`}</title>
      {arcs.map((arc) => {
        const path = ringPath(turns, radiusIn(BANDS.turns[arc.turn], track.place), arc);
        return (
          <g key={`${arc.turn} ${arc.from}`}>
            <path
              d={path}
              stroke={paint(colour)}
              strokeWidth={
                chosen ? Math.max(width, LEAST_CHOSEN) : track.role === 'brake' ? width / 2.5 : width
              }
            />
            {hollow && <path d={path} stroke={paint('raised')} strokeWidth={width - 2.4} />}
          </g>
        );
      })}
      {state && state !== 'not-measured' && room > LEAST_FOR_MARK && longest && (
        <StateOnTrack arc={longest} turns={turns} place={track.place} state={state} />
      )}
    </g>
  );
});

function StateOnTrack({
  arc,
  turns,
  place,
  state,
}: {
  readonly arc: { readonly turn: 0 | 1; readonly from: number; readonly to: number };
  readonly turns: Pattern['turns'];
  readonly place: number;
  readonly state: PointState;
}) {
  const at = onWheel(turns, radiusIn(BANDS.turns[arc.turn], place), (arc.from + arc.to) / 2);
  return (
    <g transform={`translate(${at.x - 6} ${at.y - 6}) scale(.75)`}>
      <rect x="-2" y="-1" width="20" height="18" fill={paint('raised')} />
      <MarkShape state={state} />
    </g>
  );
}

const Stop = memo(function Stop({
  stop,
  number,
  turns,
  grown,
}: {
  readonly stop: WheelStop;
  readonly number: number;
  readonly turns: Pattern['turns'];
} & Written) {
  const [inner, outer] = BANDS.turns[stop.angle >= TURN ? 1 : 0];
  const [from, to, label] = [inner - 4, outer + 4, outer + (stop.angle >= TURN ? 11 : 3)].map((radius) =>
    onWheel(turns, radius, stop.angle),
  );
  const here = stop.place === 'here';
  return (
    <g>
      <line
        x1={from!.x}
        y1={from!.y}
        x2={to!.x}
        y2={to!.y}
        stroke={paint('ink')}
        strokeWidth={here ? 3 : 1.5}
        strokeDasharray={stop.place === 'done' ? '2 3' : undefined}
      />
      <g transform={`translate(${label!.x} ${label!.y}) scale(${grown})`}>
        <circle r="11" fill={paint(here ? 'brass' : 'paper')} stroke={paint('ink')} />
        <text y="5" textAnchor="middle" fontSize="14" fontWeight="650" fill={paint(here ? 'paper' : 'ink')}>
          {stop.place === 'done' ? '✓' : number}
        </text>
      </g>
    </g>
  );
});

const Needle = memo(function Needle({
  angle,
  turns,
  grown,
}: { readonly angle: number; readonly turns: Pattern['turns'] } & Written) {
  const second = angle >= TURN;
  const [first, other] = BANDS.turns;
  const thick = second ? other : first;
  const degrees = turns === 'clockwise' ? angle : -angle;
  return (
    <g>
      <g transform={`rotate(${degrees})`}>
        <line y1={-BANDS.pulley} y2={-RADIUS * 0.94} stroke={paint('tight')} strokeWidth="1" />
        <line y1={-thick[0]} y2={-thick[1]} stroke={paint('tight')} strokeWidth="4" />
        <path d={`M0 ${-BANDS.pulley - 1}l-5 9h10z`} fill={paint('tight')} />
      </g>
      <g transform={`scale(${grown})`}>
        <text
          y="2"
          textAnchor="middle"
          fontSize={grown > CROWDED ? 20 : 24}
          fontWeight="650"
          fill={paint('ink')}
        >
          {Math.round((angle % TURN) * 10) / 10}°
        </text>
        <text y={grown > CROWDED ? 17 : 20} textAnchor="middle" fontSize="14" fill={paint('faded')}>
          {grown > CROWDED ? `turn ${second ? 2 : 1}` : `${second ? '2nd' : '1st'} turn`}
        </text>
      </g>
    </g>
  );
});
