import { ROLE_WORDS, type Pattern } from '@zero-lash/core/sheets';
import { arcsOf, CYCLE, layOutWheel, TURN, type WheelTrack } from '@zero-lash/core/turning';
import { memo, useMemo, useRef, type PointerEvent } from 'react';
import type { WheelStop } from './CrankWheel.tsx';
import { paint, type PointState } from './states.ts';
import { useWidth } from './useWidth.ts';
import { MarkShape } from './VerdictMark.tsx';

interface Props {
  readonly pattern: Pattern;
  /** where the crank is looked at, 0 to under 720 */
  readonly angle: number;
  readonly onTurn?: ((angle: number) => void) | undefined;
  readonly stops: readonly (WheelStop & { readonly points: readonly string[] })[];
  readonly states?: Readonly<Record<string, PointState>>;
  readonly selected?: string | null;
  readonly onSelect?: ((key: string) => void) | undefined;
  readonly label: string;
}

const TOP = 40;
const FOOT = 36;
const RIGHT = 22;
/** px a lane is high: as high as there is room for, and never so low that its name cannot be read */
const LANES = { wished: 264, least: 15, most: 22 };
const QUARTERS = [0, 180, 360, 540, 720];

/**
 * Two turns of the crank laid out straight: a lane for each group of points that move together, with where they are off
 * their base circle, and the stops across all of them. What crosses a stop without a bar may be measured there.
 */
export const TurnRuler = memo(function TurnRuler(props: Props) {
  const { pattern, angle, onTurn, stops, states = {}, selected = null, onSelect, label } = props;
  const tracks = useMemo(() => layOutWheel(pattern), [pattern]);
  const [room, width] = useWidth<HTMLDivElement>(420);
  const svg = useRef<SVGSVGElement>(null);
  const lane = Math.max(LANES.least, Math.min(LANES.most, LANES.wished / tracks.length));
  const names = Math.min(150, Math.max(...tracks.map(({ keys }) => keys.join(' ').length)) * 7.8 + 18);
  const scale = Math.max(120, width - names - RIGHT) / CYCLE;
  const across = (degrees: number) => names + degrees * scale;
  const foot = TOP + lane * tracks.length;

  function turn(event: PointerEvent) {
    if (!onTurn || (event.type === 'pointermove' && event.buttons === 0)) return;
    const { left } = svg.current!.getBoundingClientRect();
    const degrees = Math.round((event.clientX - left - names) / scale);
    if (degrees >= 0 && degrees < CYCLE) onTurn(degrees);
  }

  return (
    <div ref={room}>
      <svg
        ref={svg}
        width={width}
        height={foot + FOOT}
        role="group"
        aria-label={label}
        className="zl-ruler"
        fontFamily="var(--zl-fonts-body)"
        fontSize="14"
        style={{ display: 'block' }}
      >
        <rect
          x={names}
          y={TOP}
          width={CYCLE * scale}
          height={foot - TOP}
          fill={paint('raised')}
          onPointerDown={turn}
          onPointerMove={turn}
          style={{ touchAction: onTurn ? 'pan-y' : undefined, cursor: onTurn ? 'ew-resize' : undefined }}
        />
        {tracks.map((track, index) => (
          <Lane
            key={track.keys[0]}
            track={track}
            y={TOP + lane * index}
            height={lane}
            names={names}
            scale={scale}
            first={tracks[index - 1]?.cylinder !== track.cylinder}
            chosen={selected !== null && track.keys.includes(selected)}
            state={
              track.keys.map((key) => states[key]).find((state) => state && state !== 'in-spec') ??
              states[track.keys[0]!] ??
              null
            }
            onSelect={onSelect}
          />
        ))}
        <g pointerEvents="none">
          {QUARTERS.map((degrees) => (
            <g key={degrees}>
              <line
                x1={across(degrees)}
                x2={across(degrees)}
                y1={TOP}
                y2={foot + 4}
                stroke={paint('hairline')}
                strokeWidth={degrees === TURN ? 2 : 1}
              />
              <text x={across(degrees)} y={foot + 16} textAnchor="middle" fontSize="14" fill={paint('faded')}>
                {degrees % TURN}°
              </text>
            </g>
          ))}
          {(['1st turn', '2nd turn'] as const).map((name, turnOf) => (
            <text
              key={name}
              x={across(turnOf * TURN + TURN / 2)}
              y={foot + 32}
              textAnchor="middle"
              fontSize="14"
              fill={paint('faded')}
            >
              {name}
            </text>
          ))}
          {stops.map((stop, index) => (
            <StopLine
              key={stop.angle}
              x={across(stop.angle)}
              foot={foot}
              number={index + 1}
              place={stop.place}
            >
              {tracks.map(
                ({ keys }, row) =>
                  keys.some((key) => stop.points.includes(key)) && (
                    <circle
                      key={keys[0]}
                      cx={across(stop.angle)}
                      cy={TOP + lane * (row + 0.5)}
                      r={Math.min(5, lane / 3)}
                      fill={paint(stop.place === 'here' ? 'brass' : 'paper')}
                      stroke={paint('ink')}
                      strokeWidth="1.5"
                    />
                  ),
              )}
            </StopLine>
          ))}
          <line
            x1={across(angle)}
            x2={across(angle)}
            y1={TOP - 6}
            y2={foot}
            stroke={paint('tight')}
            strokeWidth="2"
            data-needle={angle}
          />
          <path d={`M${across(angle)} ${TOP}l-5 -8h10z`} fill={paint('tight')} />
        </g>
      </svg>
    </div>
  );
});

function StopLine({
  x,
  foot,
  number,
  place,
  children,
}: {
  readonly x: number;
  readonly foot: number;
  readonly number: number;
  readonly place: WheelStop['place'];
  readonly children: React.ReactNode;
}) {
  const here = place === 'here';
  return (
    <g>
      <line
        x1={x}
        x2={x}
        y1={TOP - 14}
        y2={foot}
        stroke={paint('ink')}
        strokeWidth={here ? 2 : 1}
        strokeDasharray={place === 'done' ? '2 3' : undefined}
      />
      {children}
      <circle cx={x} cy={TOP - 24} r="11" fill={paint(here ? 'brass' : 'paper')} stroke={paint('ink')} />
      <text
        x={x}
        y={TOP - 19}
        textAnchor="middle"
        fontSize="14"
        fontWeight="650"
        fill={paint(here ? 'paper' : 'ink')}
      >
        {place === 'done' ? '✓' : number}
      </text>
    </g>
  );
}

interface LaneProps {
  readonly track: WheelTrack;
  readonly y: number;
  readonly height: number;
  /** px that its name takes, left of the ruler */
  readonly names: number;
  /** px a degree */
  readonly scale: number;
  /** the first lane of its cylinder */
  readonly first: boolean;
  readonly chosen: boolean;
  readonly state: PointState | null;
  readonly onSelect?: ((key: string) => void) | undefined;
}

/** One lane: where its points are off their base circle, with the margin kept clear of both ramps. */
const Lane = memo(function Lane(props: LaneProps) {
  const { track, y, height, names, scale, first, chosen, state, onSelect } = props;
  const middle = y + height / 2;
  const thick = height * (track.role === 'brake' ? 0.24 : 0.5);
  const colour = paint(
    chosen ? 'loose' : track.role === 'intake' ? 'ink' : track.role === 'brake' ? 'faded' : 'brass',
  );
  const name = track.keys.join(' ');
  return (
    <g data-lane={name}>
      <title>{`${name}: ${ROLE_WORDS[track.role]}, cylinder ${track.cylinder}`}</title>
      {first && <line x1="0" x2={names + CYCLE * scale} y1={y} y2={y} stroke={paint('hairline')} />}
      {chosen && <rect x="0" y={y} width={names} height={height} fill={paint('wash')} />}
      <text
        x="2"
        y={middle + height * 0.3}
        fill={paint('ink')}
        fontWeight={chosen ? 700 : 500}
        onClick={onSelect && (() => onSelect(track.keys[0]!))}
        style={{ cursor: onSelect ? 'pointer' : undefined }}
      >
        {name}
      </text>
      <g pointerEvents="none">
        {arcsOf(track.span.start, track.span.length).map(({ turn, from, to }) => (
          <rect
            key={`${turn} ${from}`}
            x={names + (turn * TURN + from) * scale}
            y={middle - thick / 2}
            width={(to - from) * scale}
            height={thick}
            fill={track.role === 'exhaust' && !chosen ? paint('raised') : colour}
            stroke={colour}
            strokeWidth="1.5"
          />
        ))}
      </g>
      {state && state !== 'not-measured' && (
        <g transform={`translate(${names + CYCLE * scale + 4} ${middle - 7}) scale(.85)`}>
          <MarkShape state={state} />
        </g>
      )}
    </g>
  );
});
