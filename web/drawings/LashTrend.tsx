import { tenthsFromMm } from '@zero-lash/core/length';
import { judge, limitsFromMm } from '@zero-lash/core/measuring';
import { paint, STATE_COLOURS } from './states.ts';

/** One look at a point: the bracket it was found in, at what the engine had run; mm. */
export interface TrendLook {
  readonly usage: number;
  readonly lo: number;
  readonly hi: number;
}

interface Props {
  readonly limits: { readonly min: number; readonly max: number };
  readonly looks: readonly TrendLook[];
  /** the forecast along the running, with its spread; mm */
  readonly ahead: readonly { readonly usage: number; readonly mean: number; readonly sd: number }[];
  readonly now: number;
  /** when it is looked at next, and when the plan would have; null where running does not say */
  readonly due: number | null;
  readonly planned: number | null;
  /** the running that the drawing reaches over */
  readonly from: number;
  readonly to: number;
  /** a small one stands among many, without figures */
  readonly size: 'small' | 'large';
  /** how wide a large one may be, px: its figures stay as large as they are */
  readonly width?: number;
  readonly label: string;
  /** writes a length in the unit of the shop */
  readonly figure: (mm: number) => string;
  readonly unit: string;
}

const SIZES = {
  small: { width: 168, height: 92, left: 4, right: 4, top: 6, bottom: 6, half: 3 },
  large: { width: 640, height: 280, left: 62, right: 18, top: 24, bottom: 44, half: 6 },
} as const;
/** The forecast is drawn with the spread in which 80 % lie. */
const WITHIN_80 = 1.2816;
/** How much of the band stands free beyond each limit. */
const BEYOND = 0.45;

/**
 * A gap against its running: the looks as brackets, its limits, the forecast with its spread, now, the plan and the next look.
 */
export function LashTrend(props: Props) {
  const { limits, looks, ahead, now, due, planned, from, to, size, label, figure, unit } = props;
  const room = { ...SIZES[size], ...(size === 'large' && props.width ? { width: props.width } : {}) };
  const large = size === 'large';
  const band = limits.max - limits.min;
  const ends = looks.flatMap(({ lo, hi }) => [lo, hi]);
  const low = Math.min(limits.min - band * BEYOND, ...ends);
  const high = Math.max(limits.max + band * BEYOND, ...ends);
  const x = (usage: number) =>
    room.left + ((usage - from) / Math.max(to - from, 1)) * (room.width - room.left - room.right);
  const y = (mm: number) =>
    room.top +
    ((high - Math.min(high, Math.max(low, mm))) / (high - low)) * (room.height - room.top - room.bottom);
  const upper = ahead.map(({ usage, mean, sd }) => `${x(usage)},${y(mean + WITHIN_80 * sd)}`);
  const lower = ahead.map(({ usage, mean, sd }) => `${x(usage)},${y(mean - WITHIN_80 * sd)}`).reverse();
  const bottom = room.height - room.bottom;
  return (
    <svg
      viewBox={`0 0 ${room.width} ${room.height}`}
      width={room.width}
      height={room.height}
      role="img"
      aria-label={label}
      style={{ display: 'block', maxWidth: '100%', height: 'auto' }}
    >
      <rect
        x={room.left}
        width={room.width - room.left - room.right}
        y={y(limits.max)}
        height={y(limits.min) - y(limits.max)}
        fill={paint('wash')}
      />
      {ahead.length > 0 && (
        <>
          <polygon points={[...upper, ...lower].join(' ')} fill={paint('brass')} opacity="0.22" />
          <polyline
            points={ahead.map(({ usage, mean }) => `${x(usage)},${y(mean)}`).join(' ')}
            fill="none"
            stroke={paint('brass')}
            strokeWidth={large ? 1.6 : 1.2}
            strokeDasharray="6 4"
          />
        </>
      )}
      {[limits.min, limits.max].map((limit) => (
        <line
          key={limit}
          x1={room.left}
          x2={room.width - room.right}
          y1={y(limit)}
          y2={y(limit)}
          stroke={paint('ink')}
          strokeWidth="1.2"
        />
      ))}
      <line x1={x(now)} x2={x(now)} y1={room.top} y2={bottom} stroke={paint('faded')} strokeDasharray="2 3" />
      {due !== null && due <= to && (
        <g stroke={paint('ink')} fill={paint('ink')}>
          <line x1={x(due)} x2={x(due)} y1={room.top} y2={bottom} strokeWidth="1.4" />
          <path d={`M${x(due)} ${room.top + 7}l-5 -7h10z`} stroke="none" />
        </g>
      )}
      {planned !== null && planned !== due && planned <= to && (
        <line
          x1={x(planned)}
          x2={x(planned)}
          y1={room.top}
          y2={bottom}
          stroke={paint('hairline')}
          strokeWidth="1.4"
        />
      )}
      {looks.map(({ usage, lo, hi }, index) => {
        // only what is known on both sides is a look
        const { verdict } = judge(
          { lo: tenthsFromMm(lo), hi: tenthsFromMm(hi), floor: true },
          limitsFromMm(limits),
        );
        const colour = paint(STATE_COLOURS[verdict]);
        const [top, foot] = [y(hi), y(lo)];
        return (
          <g key={index} stroke={colour} strokeWidth={large ? 2 : 1.5} fill="none">
            <line x1={x(usage)} x2={x(usage)} y1={top} y2={Math.max(foot, top + 2)} />
            <path
              d={`M${x(usage) - room.half} ${top}h${room.half * 2}M${x(usage) - room.half} ${foot}h${room.half * 2}`}
            />
          </g>
        );
      })}
      {large && (
        <g fontSize="14" fill={paint('faded')} fontFamily="var(--zl-fonts-body)">
          <text x={room.left - 6} y={y(limits.max) + 5} textAnchor="end">
            {figure(limits.max)}
          </text>
          <text x={room.left - 6} y={y(limits.min) + 5} textAnchor="end">
            {figure(limits.min)}
          </text>
          <text x={room.left} y={room.height - 22}>
            set, {Math.round(from)}
          </text>
          <text x={x(now)} y={room.height - 22} textAnchor="middle">
            now
          </text>
          <text x={room.width - room.right} y={room.height - 6} textAnchor="end">
            {Math.round(to)} {unit}
          </text>
          {due !== null && due <= to && (
            <text x={x(due)} y={room.top - 8} textAnchor="middle" fill={paint('ink')}>
              next check {Math.round(due)}
            </text>
          )}
        </g>
      )}
    </svg>
  );
}
