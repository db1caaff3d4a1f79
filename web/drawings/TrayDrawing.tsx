import { layOutTray, type LedgerGroup, type LedgerLine } from '@zero-lash/core/parts';
import { useMemo } from 'react';
import { paint } from './states.ts';

interface Props {
  readonly ledger: readonly LedgerLine[];
  readonly group: LedgerGroup;
}

const CELL = { width: 78, height: 46 };
const EDGE = 3;

/** The tray of one group, seen from above: a numbered place a part, filled where it was counted. */
export function TrayDrawing({ ledger, group }: Props) {
  const tray = useMemo(() => layOutTray(ledger, group), [ledger, group]);
  if (tray.places.length === 0) return null;
  const counted = tray.places.filter(({ line }) => line.out !== null).length;
  return (
    <div style={{ overflowX: 'auto' }} tabIndex={0} role="region" aria-label="Tray">
      <svg
        width={tray.columns * CELL.width + 2 * EDGE}
        height={tray.rows * CELL.height + 2 * EDGE}
        role="img"
        aria-label={`Tray of ${tray.places.length} places, ${counted} counted`}
        style={{ display: 'block' }}
        fontFamily="var(--zl-fonts-body)"
      >
        <rect
          x={1}
          y={1}
          width={tray.columns * CELL.width + 2 * EDGE - 2}
          height={tray.rows * CELL.height + 2 * EDGE - 2}
          fill={paint('raised')}
          stroke={paint('faded')}
        />
        {tray.places.map(({ number, line, column, row }) => {
          const here = line.out !== null;
          const odd = here && line.out !== line.expected;
          return (
            <g
              key={line.key}
              transform={`translate(${EDGE + column * CELL.width} ${EDGE + row * CELL.height})`}
            >
              <rect
                x={2}
                y={2}
                width={CELL.width - 4}
                height={CELL.height - 4}
                rx={4}
                fill={here ? paint('wash') : 'none'}
                stroke={odd ? paint('tight') : paint('hairline')}
                strokeWidth={odd ? 2 : 1}
                strokeDasharray={here ? undefined : '3 4'}
              />
              <text
                x={8}
                y={18}
                fontSize="14"
                fontWeight="650"
                fill={paint('ink')}
                fontFamily="var(--zl-fonts-mono)"
              >
                {number}
              </text>
              <text
                x={CELL.width - 8}
                y={18}
                fontSize="14"
                textAnchor="end"
                fill={paint(odd ? 'tight' : 'faded')}
              >
                {here ? line.out : ''}
                {(here ? line.out! : line.expected) > 1 || odd ? `/${line.expected}` : ''}
              </text>
              <text x={8} y={37} fontSize="14" fill={paint('faded')}>
                {shortened(line.place || line.name)}
              </text>
            </g>
          );
        })}
      </svg>
    </div>
  );
}

const MOST = 11;
const shortened = (text: string) => (text.length > MOST ? `${text.slice(0, MOST - 1)}…` : text);
