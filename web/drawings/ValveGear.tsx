import { Box } from '@chakra-ui/react';
import { type Pattern } from '@zero-lash/core/sheets';
import { gearAt, layOutWheel, marginOf, spannedPoints, type GearState } from '@zero-lash/core/turning';
import { memo, useMemo } from 'react';
import { paint } from './states.ts';

interface Props {
  readonly pattern: Pattern;
  /** crank degrees, 0 to under 720 */
  readonly angle: number;
  readonly selected?: string | null;
  readonly onSelect?: ((key: string) => void) | undefined;
}

const BASE = 11;
const NOSE = 20;
const LIFT = 9;
/** Steps a valve's lift is drawn in: finer than an eye sees, coarse enough that a still valve is not drawn again. */
const LIFT_STEPS = 50;

/** The valve gear at one angle: which lobe points where, and how far each valve is open. */
export function ValveGear({ pattern, angle, selected = null, onSelect }: Props) {
  const points = useMemo(() => spannedPoints(pattern), [pattern]);
  const tracks = useMemo(() => layOutWheel(pattern), [pattern]);
  const gear = new Map(gearAt(points, marginOf(pattern), angle).map((state) => [state.key, state]));
  return (
    <Box
      as="ul"
      display="grid"
      gridTemplateColumns="repeat(auto-fill, minmax(76px, 1fr))"
      gap="1"
      aria-label="Valve gear at this angle"
    >
      {tracks.map((track) => {
        const state = gear.get(track.keys[0]!)!;
        return (
          <Lobe
            key={track.keys[0]}
            name={track.keys.join(' ')}
            closed={state.closed}
            lift={Math.round(state.lift * LIFT_STEPS) / LIFT_STEPS}
            noseAt={Math.round(state.noseAt)}
            exhaust={track.role !== 'intake'}
            chosen={selected !== null && track.keys.includes(selected)}
            onSelect={onSelect && (() => onSelect(track.keys[0]!))}
          />
        );
      })}
    </Box>
  );
}

interface LobeProps extends Omit<GearState, 'key'> {
  readonly name: string;
  readonly exhaust: boolean;
  readonly chosen: boolean;
  readonly onSelect?: (() => void) | undefined;
}

const Lobe = memo(
  function Lobe({ name, closed, lift, noseAt, exhaust, chosen, onSelect }: LobeProps) {
    const follower = 26 + BASE + lift * LIFT;
    const words = lift > 0 ? `${Math.round(lift * 100)} % open` : closed ? 'measure' : 'ramp';
    return (
      <Box
        as="li"
        textAlign="center"
        fontSize="xs"
        lineHeight="1.15"
        paddingBottom="1"
        borderBottom="3px solid"
        borderColor={closed ? 'ink' : 'transparent'}
        background={chosen ? 'wash' : 'transparent'}
        cursor={onSelect ? 'pointer' : undefined}
        onClick={onSelect}
      >
        <svg
          width="56"
          height="58"
          viewBox="-28 0 56 58"
          aria-hidden
          style={{ display: 'block', margin: '0 auto' }}
        >
          <g transform={`translate(0 26) rotate(${-noseAt})`}>
            <path
              d={`M${-BASE} 0A${BASE} ${BASE} 0 1 1 ${BASE} 0C${BASE} ${BASE * 0.7} 5 ${NOSE} 0 ${NOSE}C-5 ${NOSE} ${-BASE} ${BASE * 0.7} ${-BASE} 0z`}
              fill={exhaust ? paint('raised') : paint('ink')}
              stroke={exhaust ? paint('brass') : paint('ink')}
              strokeWidth="1.6"
            />
            <circle r="2.2" fill={paint(exhaust ? 'brass' : 'paper')} />
          </g>
          <line x1="-12" x2="12" y1={follower} y2={follower} stroke={paint('ink')} strokeWidth="2" />
          <line x1="0" x2="0" y1={follower} y2="58" stroke={paint('faded')} strokeWidth="2" />
        </svg>
        <b>{name}</b>
        <Box color="faded">{words}</Box>
      </Box>
    );
  },
  (before, after) =>
    before.lift === after.lift &&
    before.noseAt === after.noseAt &&
    before.closed === after.closed &&
    before.chosen === after.chosen &&
    before.name === after.name,
);
