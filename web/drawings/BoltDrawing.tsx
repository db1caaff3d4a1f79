import type { BoltPlace } from '@zero-lash/core/assembly';
import { paint } from './states.ts';

interface Props {
  readonly bolts: readonly BoltPlace[];
  /** the bolts' names in the order they are turned */
  readonly order: readonly string[];
  readonly label: string;
}

const PITCH = 82;
const EDGE = 30;
const RADIUS = 16;
/** Rows beyond two stand closer, so that a head stays a head. */
const ROW_SHARE = [1, 1, 1.3];

/** A head's bolts from above, front at the left, each with its number in the order. */
export function BoltDrawing({ bolts, order, label }: Props) {
  const columns = Math.max(1, ...bolts.map(({ x }) => x));
  const top = Math.max(1, ...bolts.map(({ y }) => y));
  const depth = (top * PITCH) / ROW_SHARE[Math.min(top, 2)]!;
  const at = (bolt: BoltPlace) => ({ x: EDGE + bolt.x * PITCH, y: EDGE + ((top - bolt.y) / top) * depth });
  const spoken = order.map((id) => id).join(', ');
  return (
    <div style={{ overflowX: 'auto' }} tabIndex={0} role="region" aria-label={label}>
      <svg
        width={columns * PITCH + 2 * EDGE}
        height={depth + 2 * EDGE + 18}
        role="img"
        aria-label={`${label}, bolts numbered from the front of the near row: ${spoken}`}
        style={{ display: 'block' }}
        fontFamily="var(--zl-fonts-body)"
      >
        <rect
          x={4}
          y={4}
          width={columns * PITCH + 2 * EDGE - 8}
          height={depth + 2 * EDGE - 8}
          rx={8}
          fill={paint('raised')}
          stroke={paint('faded')}
        />
        {Array.from({ length: Math.floor(columns) }, (_, index) => (
          <circle
            key={index}
            cx={EDGE + (index + 0.5) * PITCH}
            cy={EDGE + depth / 2}
            r={PITCH * 0.34}
            fill="none"
            stroke={paint('hairline')}
          />
        ))}
        {bolts.map((bolt) => {
          const { x, y } = at(bolt);
          return (
            <g key={bolt.id} transform={`translate(${x} ${y})`}>
              <circle r={RADIUS} fill={paint('paper')} stroke={paint('ink')} strokeWidth="1.5" />
              <text y="6" textAnchor="middle" fontSize="17" fontWeight="650" fill={paint('ink')}>
                {order.indexOf(bolt.id) + 1}
              </text>
            </g>
          );
        })}
        <text x={4} y={depth + 2 * EDGE + 13} fontSize="14" fill={paint('faded')}>
          ◂ front
        </text>
      </svg>
    </div>
  );
}
