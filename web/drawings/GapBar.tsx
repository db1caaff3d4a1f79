import type { KnownGap } from '@zero-lash/core/measuring';
import { paint, STATE_COLOURS, STATE_WORDS, type PointState } from './states.ts';

interface Props {
  /** limits in mm; null where its sheet has none yet: the gap alone is drawn, and no band */
  readonly min: number | null;
  readonly max: number | null;
  /** what is known of the gap in mm; null where nothing is measured, `hi` null or `floor` false where nothing bounds it */
  readonly gap: KnownGap | null;
  readonly state: PointState;
  /** where the point is aimed, in mm */
  readonly target?: number | undefined;
  /** 120 px for a list, 300 px with figures */
  readonly width: 120 | 300;
  /** writes a length in the unit of the shop */
  readonly figure: (mm: number) => string;
}

/** How much room stands beyond each limit, in bands. */
const BEYOND = 1.4;
const LEAST_WIDTH = 4;
const WEDGE = 9;

/** One reading against its limits: the band, both ends of what is known, the target. */
export function GapBar({ min, max, ...props }: Props) {
  return min === null || max === null ? (
    <BandBar {...props} band={null} />
  ) : (
    <BandBar {...props} band={{ min, max }} />
  );
}

interface BandProps extends Omit<Props, 'min' | 'max'> {
  readonly band: { readonly min: number; readonly max: number } | null;
}

/** How far a bar without a band reaches, in mm: half a millimetre, or past what is known. */
const REACH = 0.5;

function reachOf(gap: KnownGap | null): { readonly min: number; readonly max: number } {
  return { min: 0, max: Math.max(REACH, (gap?.hi ?? gap?.lo ?? 0) * 1.2) };
}

function BandBar({ band, gap, state, target, width, figure }: BandProps) {
  const large = width === 300;
  const height = large ? 74 : 26;
  const middle = large ? 32 : 13;
  const half = large ? 13 : 8;
  const edge = large ? 14 : 10;
  const { min, max } = band ?? reachOf(gap);
  const beyond = band ? (max - min) * BEYOND : 0;
  const from = Math.max(0, min - beyond);
  const to = max + beyond;
  const at = (mm: number) => edge + ((mm - from) / (to - from)) * (width - 2 * edge);
  const limits = band ? `limits ${figure(min)} to ${figure(max)}` : 'limits to come';
  const spoken = gap
    ? `${STATE_WORDS[state]}: ${gap.floor === false ? 'no lower end known' : figure(gap.lo)} to ${gap.hi === null ? 'no upper end known' : figure(gap.hi)}, ${limits}`
    : `not measured, ${limits}`;
  return (
    <svg
      className="gap-bar"
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={spoken}
      style={{ display: 'block', maxWidth: '100%' }}
    >
      <line x1="0" x2={width} y1={middle} y2={middle} stroke={paint('hairline')} />
      {band && (
        <rect
          x={at(min)}
          y={middle - half}
          width={at(max) - at(min)}
          height={half * 2}
          fill={paint('wash')}
        />
      )}
      {(band ? [min, max] : []).map((limit) => (
        <line
          key={limit}
          x1={at(limit)}
          x2={at(limit)}
          y1={middle - half - 3}
          y2={middle + half + 3}
          stroke={paint('ink')}
          strokeWidth="1.2"
        />
      ))}
      {target !== undefined && (
        <path
          d={`M${at(target)} ${middle - half + 2}l-5 -8h10z`}
          fill={paint('brass')}
          transform={large ? undefined : `translate(0 -3)`}
        />
      )}
      {gap ? (
        <Known gap={gap} state={state} at={at} middle={middle} half={half} width={width} edge={edge} />
      ) : (
        <rect
          x={at(min) + 3}
          y={middle - half * 0.55}
          width={at(max) - at(min) - 6}
          height={half * 1.1}
          fill="none"
          stroke={paint('faded')}
        />
      )}
      {large && !band && (
        <text x={edge} y={middle + half + 20} fontSize="14" fill={paint('faded')}>
          limits to come
        </text>
      )}
      {large && band && (
        <g fontSize="14" fill={paint('faded')} fontFamily="var(--zl-fonts-body)">
          <text x={at(min) - 3} y={middle + half + 20} textAnchor="end">
            min {figure(min)}
          </text>
          <text x={at(max) + 3} y={middle + half + 20}>
            max {figure(max)}
          </text>
        </g>
      )}
    </svg>
  );
}

interface KnownProps {
  readonly gap: KnownGap;
  readonly state: PointState;
  readonly at: (mm: number) => number;
  readonly middle: number;
  readonly half: number;
  readonly width: number;
  readonly edge: number;
}

function Known({ gap, state, at, middle, half, width, edge }: KnownProps) {
  const colour = paint(STATE_COLOURS[state]);
  const inside = (x: number) => Math.min(width - edge, Math.max(edge, x));
  const [openLeft, openRight] = [gap.floor === false, gap.hi === null];
  const ends = [openLeft ? 1 : at(gap.lo), gap.hi === null ? width - 1 : at(gap.hi)].sort((a, b) => a - b);
  const offLeft = !openLeft && ends[1]! < edge;
  const offRight = ends[0]! > width - edge;
  let left = openLeft ? 2 : inside(ends[0]!);
  let right = gap.hi === null ? width - 2 : inside(ends[1]!);
  if (right - left < LEAST_WIDTH) {
    const centre = (left + right) / 2;
    [left, right] = [centre - LEAST_WIDTH / 2, centre + LEAST_WIDTH / 2];
  }
  const tall = half * 0.8;
  const wedge = (tip: number, base: number) => `M${tip} ${middle}L${base} ${middle - tall}V${middle + tall}z`;
  return (
    <g>
      {(offLeft || offRight) && (
        <path
          d={offLeft ? `M6 ${middle - 5}L1 ${middle}l5 5` : `M${width - 6} ${middle - 5}l5 5l-5 5`}
          stroke={colour}
          strokeWidth="2"
          fill="none"
        />
      )}
      {state === 'in-spec' && (
        <rect x={left} y={middle - tall} width={right - left} height={tall * 2} fill={colour} />
      )}
      {state === 'tight' && (
        <path d={wedge(left, left - WEDGE) + wedge(right, right + WEDGE)} fill={colour} />
      )}
      {state === 'loose' && (
        <path d={wedge(left - WEDGE, left) + wedge(right + WEDGE, right)} fill={colour} />
      )}
      {state !== 'in-spec' && state !== 'tight' && state !== 'loose' && (
        <Hatched left={left} right={right} top={middle - tall} height={tall * 2} colour={colour} />
      )}
      {[left, right].map((x, index) =>
        (index === 1 ? openRight : openLeft) ? (
          <path
            key={index}
            d={index === 1 ? `M${x - 7} ${middle - 6}l7 6l-7 6` : `M${x + 7} ${middle - 6}l-7 6l7 6`}
            stroke={colour}
            strokeWidth="2"
            fill="none"
          />
        ) : (
          <line
            key={index}
            x1={x}
            x2={x}
            y1={middle - half}
            y2={middle + half}
            stroke={colour}
            strokeWidth="2"
          />
        ),
      )}
    </g>
  );
}

const HATCH = 6;

function Hatched(props: {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly height: number;
  readonly colour: string;
}) {
  const { left, right, top, height, colour } = props;
  const strokes = [];
  for (let x = left - height; x < right; x += HATCH) {
    const startsAt = Math.max(x, left);
    const endsAt = Math.min(x + height, right);
    if (endsAt > startsAt)
      strokes.push(`M${startsAt} ${top + height - (startsAt - x)}L${endsAt} ${top + height - (endsAt - x)}`);
  }
  return (
    <g stroke={colour} strokeWidth="1.2" fill="none">
      <rect x={left} y={top} width={right - left} height={height} />
      <path d={strokes.join('')} />
    </g>
  );
}
