import { paint } from './states.ts';

interface Bars {
  readonly cylinder: string;
  /** in the unit that is read in; null where it was not taken */
  readonly before: number | null;
  readonly after: number | null;
}

const HEIGHT = 120;
const FLOOR = 96;
const STEP = 74;
const WIDTH = 22;

/** Compression cylinder by cylinder, before beside after. */
export function PressureBars({ bars }: { readonly bars: readonly Bars[] }) {
  const most = Math.max(0, ...bars.flatMap(({ before, after }) => [before ?? 0, after ?? 0]));
  if (most === 0) return null;
  const high = (pressure: number) => (pressure / most) * (FLOOR - 22);
  return (
    <div style={{ overflowX: 'auto' }} tabIndex={0} role="region" aria-label="Compression by cylinder">
      <svg
        width={bars.length * STEP + 12}
        height={HEIGHT}
        role="img"
        aria-label={bars
          .map(
            ({ cylinder, before, after }) =>
              `cylinder ${cylinder}: ${before ?? 'not taken'}${after === null ? '' : `, after ${after}`}`,
          )
          .join('; ')}
        style={{ display: 'block' }}
        fontFamily="var(--zl-fonts-body)"
      >
        <line x1="0" x2={bars.length * STEP + 12} y1={FLOOR} y2={FLOOR} stroke={paint('ink')} />
        {bars.map(({ cylinder, before, after }, index) => (
          <g key={cylinder} transform={`translate(${index * STEP + 8} 0)`}>
            {([before, after] as const).map(
              (pressure, second) =>
                pressure !== null && (
                  <g key={second} transform={`translate(${second * (WIDTH + 6)} 0)`}>
                    <rect
                      y={FLOOR - high(pressure)}
                      width={WIDTH}
                      height={high(pressure)}
                      fill={second === 0 ? paint('ink') : paint('paper')}
                      stroke={paint('ink')}
                      strokeWidth="1.4"
                    />
                    <text
                      x={WIDTH / 2}
                      y={FLOOR - high(pressure) - 5}
                      fontSize="14"
                      textAnchor="middle"
                      fill={paint('ink')}
                    >
                      {pressure}
                    </text>
                  </g>
                ),
            )}
            <text
              x={WIDTH}
              y={HEIGHT - 6}
              fontSize="14"
              fontWeight="650"
              textAnchor="middle"
              fill={paint('faded')}
            >
              {cylinder}
            </text>
          </g>
        ))}
      </svg>
    </div>
  );
}
