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
  const unknown: Drawn = {
    ...{ colour: paint('faded'), solid: '', ends: '' },
    outline: box(at(min) + 3, at(max) - 3, half * 0.55),
  };
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
      <Known drawn={gap ? drawnOf(gap, { state, at, half, width, edge }) : unknown} middle={middle} />
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

/** What is drawn of a gap, as paths about the middle of the bar: what is filled, what is outlined, and its ends. */
interface Drawn {
  readonly colour: string;
  readonly solid: string;
  readonly outline: string;
  readonly ends: string;
}

/** The same three paths whatever is known: nothing is made or taken away between a tap and the frame that answers it. */
function Known({
  drawn: { colour, solid, outline, ends },
  middle,
}: {
  readonly drawn: Drawn;
  readonly middle: number;
}) {
  return (
    <g transform={`translate(0 ${middle})`} fill="none">
      <path d={solid} fill={colour} />
      <path d={outline} stroke={colour} strokeWidth="1.2" />
      <path d={ends} stroke={colour} strokeWidth="2" />
    </g>
  );
}

interface Bar {
  readonly state: PointState;
  readonly at: (mm: number) => number;
  readonly half: number;
  readonly width: number;
  readonly edge: number;
}

function drawnOf(gap: KnownGap, { state, at, half, width, edge }: Bar): Drawn {
  const inside = (x: number) => Math.min(width - edge, Math.max(edge, x));
  const [openLeft, openRight] = [gap.floor === false, gap.hi === null];
  const reach = [openLeft ? 1 : at(gap.lo), gap.hi === null ? width - 1 : at(gap.hi)].sort((a, b) => a - b);
  const offLeft = !openLeft && reach[1]! < edge;
  const offRight = reach[0]! > width - edge;
  let left = openLeft ? 2 : inside(reach[0]!);
  let right = gap.hi === null ? width - 2 : inside(reach[1]!);
  if (right - left < LEAST_WIDTH) {
    const centre = (left + right) / 2;
    [left, right] = [centre - LEAST_WIDTH / 2, centre + LEAST_WIDTH / 2];
  }
  const tall = half * 0.8;
  const plain = state === 'in-spec' || state === 'tight' || state === 'loose';
  return {
    colour: paint(STATE_COLOURS[state]),
    solid: plain ? solidOf(state, left, right, tall) : '',
    outline: plain ? '' : box(left, right, tall) + hatching(left, right, tall),
    ends: [
      offLeft ? 'M6 -5L1 0l5 5' : offRight ? `M${width - 6} -5l5 5l-5 5` : '',
      openLeft ? `M${left + 7} -6l-7 6l7 6` : `M${left} ${-half}V${half}`,
      openRight ? `M${right - 7} -6l7 6l-7 6` : `M${right} ${-half}V${half}`,
    ].join(''),
  };
}

function solidOf(state: 'in-spec' | 'tight' | 'loose', left: number, right: number, tall: number): string {
  const wedge = (tip: number, base: number) => `M${tip} 0L${base} ${-tall}V${tall}z`;
  if (state === 'in-spec') return box(left, right, tall);
  return state === 'tight'
    ? wedge(left, left - WEDGE) + wedge(right, right + WEDGE)
    : wedge(left - WEDGE, left) + wedge(right + WEDGE, right);
}

const box = (left: number, right: number, tall: number) => `M${left} ${-tall}H${right}V${tall}H${left}z`;

const HATCH = 6;

function hatching(left: number, right: number, tall: number): string {
  const strokes = [];
  const height = tall * 2;
  for (let x = left - height; x < right; x += HATCH) {
    const startsAt = Math.max(x, left);
    const endsAt = Math.min(x + height, right);
    if (endsAt > startsAt)
      strokes.push(`M${startsAt} ${tall - (startsAt - x)}L${endsAt} ${tall - (endsAt - x)}`);
  }
  return strokes.join('');
}
