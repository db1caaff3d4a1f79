import { counted } from '@zero-lash/core/length';
import { paint } from './states.ts';

interface Props {
  readonly system: {
    readonly title: string;
    /** mm, what the pieces are made in */
    readonly made: readonly number[];
    /** what lies there, or once did; mm */
    readonly sizes: readonly { readonly thickness: number; readonly count: number }[];
    /** so many of each size are to be there */
    readonly reorder: number;
  };
  readonly length: (mm: number) => string;
}

const CELL = { width: 86, height: 64 };
const COLUMNS = 10;
const MOST_DRAWN = 6;

/** A drawer from above: a compartment for each size that is made, with the pieces lying in it. */
export function PieceDrawer({ system: { title, made, sizes, reorder }, length }: Props) {
  const all = [...new Set([...made, ...sizes.map(({ thickness }) => thickness)])].sort((a, b) => a - b);
  const rows = Math.max(1, Math.ceil(all.length / COLUMNS));
  const columns = Math.max(1, Math.min(COLUMNS, all.length));
  const countOf = (mm: number) => sizes.find(({ thickness }) => thickness === mm)?.count ?? 0;
  const known = new Set(sizes.map(({ thickness }) => thickness));
  const total = sizes.reduce((sum, { count }) => sum + count, 0);
  const spoken = sizes
    .filter(({ count }) => count > 0)
    .map(({ thickness, count }) => `${length(thickness)} ${count}`)
    .join(', ');
  return (
    <div style={{ overflowX: 'auto' }} tabIndex={0} role="region" aria-label={title}>
      <svg
        width={columns * CELL.width + 8}
        height={rows * CELL.height + 8}
        role="img"
        aria-label={`${title}: ${counted(total, 'piece')}${spoken ? `; ${spoken}` : ''}`}
        style={{ display: 'block' }}
        fontFamily="var(--zl-fonts-body)"
      >
        <rect
          x={1}
          y={1}
          width={columns * CELL.width + 6}
          height={rows * CELL.height + 6}
          fill={paint('wash')}
          stroke={paint('ink')}
          strokeWidth="1.5"
        />
        {all.map((mm, index) => {
          const count = countOf(mm);
          return (
            <g
              key={mm}
              transform={`translate(${4 + (index % COLUMNS) * CELL.width} ${4 + Math.floor(index / COLUMNS) * CELL.height})`}
            >
              <rect
                width={CELL.width - 2}
                height={CELL.height - 2}
                fill={paint(count > 0 ? 'raised' : 'wash')}
                stroke={paint('hairline')}
              />
              <text x={8} y={18} fontSize="14" fontWeight="650" fill={paint(count > 0 ? 'ink' : 'faded')}>
                {length(mm)}
              </text>
              {Array.from({ length: Math.min(count, MOST_DRAWN) }, (_, piece) => (
                <ellipse
                  key={piece}
                  cx={24}
                  cy={CELL.height - 14 - piece * 4}
                  rx={14}
                  ry={5}
                  fill={paint('paper')}
                  stroke={paint('ink')}
                />
              ))}
              <text
                x={CELL.width - 10}
                y={CELL.height - 12}
                textAnchor="end"
                fontSize="16"
                fontWeight="650"
                fill={paint(known.has(mm) && count < reorder ? 'brass' : count > 0 ? 'ink' : 'faded')}
              >
                {count}
              </text>
            </g>
          );
        })}
      </svg>
    </div>
  );
}
