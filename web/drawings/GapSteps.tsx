import { paint } from './states.ts';

/** One step of a gap's way: where it is after it, and what was done. */
export interface GapStep {
  readonly label: string;
  readonly lo: number;
  readonly hi: number;
  readonly done: boolean;
}

interface Props {
  readonly steps: readonly GapStep[];
  readonly min: number;
  readonly max: number;
  readonly target: number;
  readonly figure: (mm: number) => string;
  readonly label: string;
}

const HEIGHT = 170;
const TOP = 26;
const FLOOR = 124;
const LEFT = 52;
const STEP = 118;
const BAR = 40;

/** A gap from how it was found through each piece of work to before it is set: a stair, with the band behind it and nothing below which a valve is held open. */
export function GapSteps({ steps, min, max, target, figure, label }: Props) {
  const all = [...steps.flatMap(({ lo, hi }) => [lo, hi]), min, max, 0];
  const [least, most] = [Math.min(...all), Math.max(...all)];
  const room = Math.max(most - least, 0.01) * 1.1;
  const y = (mm: number) => FLOOR - ((mm - least + room * 0.04) / room) * (FLOOR - TOP);
  const width = LEFT + steps.length * STEP + 12;
  return (
    <div style={{ overflowX: 'auto' }} tabIndex={0} role="region" aria-label={label}>
      <svg
        width={width}
        height={HEIGHT}
        role="img"
        aria-label={`${label}: ${steps.map((step) => `${step.label}, ${figure(step.lo)} to ${figure(step.hi)}`).join('; ')}`}
        style={{ display: 'block' }}
        fontFamily="var(--zl-fonts-body)"
      >
        <rect
          x={LEFT}
          y={y(max)}
          width={width - LEFT}
          height={Math.max(1, y(min) - y(max))}
          fill={paint('wash')}
        />
        <line
          x1={LEFT}
          x2={width}
          y1={y(target)}
          y2={y(target)}
          stroke={paint('brass')}
          strokeDasharray="5 4"
        />
        <line x1={LEFT} x2={width} y1={y(0)} y2={y(0)} stroke={paint('tight')} strokeWidth="1.4" />
        {[
          [0, '0', 'tight'],
          [min, figure(min), 'faded'],
          [max, figure(max), 'faded'],
        ].map(([mm, text, colour]) => (
          <text
            key={text}
            x={LEFT - 6}
            y={y(mm as number) + 5}
            fontSize="14"
            textAnchor="end"
            fill={paint(colour as string)}
          >
            {text}
          </text>
        ))}
        {steps.map(({ label: name, lo, hi, done }, index) => {
          const x = LEFT + index * STEP + (STEP - BAR) / 2;
          const before = steps[index - 1];
          const open = hi < 0;
          const [first = '', ...rest] = wrapped(name);
          return (
            <g key={`${index} ${name}`}>
              {before && (
                <line
                  x1={x - (STEP - BAR)}
                  x2={x}
                  y1={y((before.lo + before.hi) / 2)}
                  y2={y((before.lo + before.hi) / 2)}
                  stroke={paint('faded')}
                  strokeDasharray="2 3"
                />
              )}
              <rect
                x={x}
                y={y(hi)}
                width={BAR}
                height={Math.max(3, y(lo) - y(hi))}
                fill={done ? paint(open ? 'tight' : 'ink') : paint('paper')}
                stroke={paint(open ? 'tight' : 'ink')}
                strokeWidth="1.6"
                strokeDasharray={done ? undefined : '4 3'}
              />
              <text
                x={x + BAR / 2}
                y={y(hi) - 6}
                textAnchor="middle"
                fontSize="14"
                stroke={paint('paper')}
                strokeWidth="4"
                paintOrder="stroke"
                fontWeight="650"
                fill={paint(open ? 'tight' : 'ink')}
              >
                {figure((lo + hi) / 2)}
              </text>
              {[first, rest.join(' ')].map((line, row) => (
                <text
                  key={row}
                  x={LEFT + (index + 0.5) * STEP}
                  y={FLOOR + 20 + row * 17}
                  fontSize="14"
                  textAnchor="middle"
                  fill={paint('faded')}
                >
                  {line}
                </text>
              ))}
            </g>
          );
        })}
      </svg>
    </div>
  );
}

const MOST = 16;

/** A label in two lines of words. */
function wrapped(text: string): string[] {
  const lines = [''];
  for (const word of text.split(' ')) {
    const last = lines.at(-1)!;
    if (last !== '' && last.length + word.length > MOST) lines.push(word);
    else lines[lines.length - 1] = last === '' ? word : `${last} ${word}`;
  }
  return lines;
}
