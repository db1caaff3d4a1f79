import { paint } from './states.ts';

interface Props {
  /** how far, in degrees; above 0 it loosens, which is against the clock as one looks at its head */
  readonly degrees: number;
  /** a nut with six flats is turned, and not a screw with a slot */
  readonly nut: boolean;
  readonly label: string;
}

const SIZE = 124;
const MIDDLE = SIZE / 2;
const RADIUS = 46;
const WHOLE = 360;
/** Less than this is a touch, and is drawn as one; degrees. */
const LEAST_DRAWN = 4;

/** A place on the dial: 0° on top, with the clock. */
function at(degrees: number, radius: number): { readonly x: number; readonly y: number } {
  const angle = (degrees * Math.PI) / 180;
  return { x: MIDDLE + radius * Math.sin(angle), y: MIDDLE - radius * Math.cos(angle) };
}

/** The adjuster as the person at it sees it, where its slot or flat is now, and how far round it goes. */
export function TurnDial({ degrees, nut, label }: Props) {
  const clockwise = degrees < 0;
  const size = Math.abs(degrees);
  const whole = Math.floor(size / WHOLE);
  const rest = size - whole * WHOLE;
  const end = (clockwise ? 1 : -1) * Math.max(rest, LEAST_DRAWN);
  const tip = at(end, RADIUS);
  const head = end - (clockwise ? 1 : -1) * 11;
  const sweep = clockwise ? 1 : 0;
  const colour = paint('brass');
  return (
    <svg width={SIZE} height={SIZE} viewBox={`0 0 ${SIZE} ${SIZE}`} role="img" aria-label={label}>
      <circle cx={MIDDLE} cy={MIDDLE} r={RADIUS} fill="none" stroke={paint('hairline')} />
      {Array.from({ length: 24 }, (_, index) => {
        const outer = at(index * 15, RADIUS + (index % 6 === 0 ? 8 : 4));
        const inner = at(index * 15, RADIUS);
        return (
          <line
            key={index}
            {...{ x1: inner.x, y1: inner.y, x2: outer.x, y2: outer.y }}
            stroke={paint(index % 6 === 0 ? 'ink' : 'faded')}
          />
        );
      })}
      {nut ? (
        <polygon
          points={[0, 60, 120, 180, 240, 300]
            .map((corner) => at(corner + 30, 27))
            .map(({ x, y }) => `${x},${y}`)
            .join(' ')}
          fill={paint('raised')}
          stroke={paint('ink')}
          strokeWidth="1.4"
        />
      ) : (
        <>
          <circle
            cx={MIDDLE}
            cy={MIDDLE}
            r="24"
            fill={paint('raised')}
            stroke={paint('ink')}
            strokeWidth="1.4"
          />
          <line
            {...{ x1: MIDDLE, y1: MIDDLE - 23, x2: MIDDLE, y2: MIDDLE + 23 }}
            stroke={paint('ink')}
            strokeWidth="4"
          />
        </>
      )}
      <line
        {...{ x1: MIDDLE, y1: MIDDLE, x2: tip.x, y2: tip.y }}
        stroke={colour}
        strokeDasharray="3 3"
        strokeWidth="1.4"
      />
      <path
        d={`M ${MIDDLE} ${MIDDLE - RADIUS} A ${RADIUS} ${RADIUS} 0 ${rest > WHOLE / 2 ? 1 : 0} ${sweep} ${tip.x} ${tip.y}`}
        fill="none"
        stroke={colour}
        strokeWidth="3.4"
      />
      <polygon
        points={[tip, at(head, RADIUS + 6), at(head, RADIUS - 6)].map(({ x, y }) => `${x},${y}`).join(' ')}
        fill={colour}
      />
      {whole > 0 && (
        <text
          x={MIDDLE}
          y={MIDDLE + 6}
          textAnchor="middle"
          fontSize="17"
          fontWeight="650"
          fill={paint('ink')}
          stroke={paint('raised')}
          strokeWidth="4"
          paintOrder="stroke"
        >
          {whole} ×
        </text>
      )}
    </svg>
  );
}
