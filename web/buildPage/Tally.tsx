import { memo, useState } from 'react';
import { STATE_WORDS, type PointState } from '../drawings/states.ts';
import { VerdictMark } from '../drawings/VerdictMark.tsx';

/** How many points stand in each state, worst first. */
const ORDER: readonly PointState[] = [
  'tight',
  'conflict',
  'undecided-low',
  'undecided',
  'undecided-high',
  'loose',
  'off-base',
  'in-spec',
  'changed-since',
  'before-lock',
  'bare',
  'unreached',
  'apart',
  'passed-over',
  'unopened',
  'not-measured',
];

export const Tally = memo(function Tally({
  states,
}: {
  readonly states: Readonly<Record<string, PointState>>;
}) {
  const all = Object.values(states);
  const [before, setBefore] = useState(states);
  const [last, setLast] = useState<string | null>(null);
  if (before !== states) {
    const changed = Object.keys(states).filter((key) => states[key] !== before[key]);
    setBefore(states);
    if (changed.length === 1) setLast(`${changed[0]} ${STATE_WORDS[states[changed[0]!]!]}.`);
  }
  return (
    <div className="tally" role="status" aria-label="Points so far">
      {/* who does not see the head hears which point it was */}
      <span className="spoken">{last}</span>
      {ORDER.map((state) => {
        const count = all.filter((each) => each === state).length;
        return count > 0 ? (
          <span key={state}>
            {count} <VerdictMark state={state} withWord />
          </span>
        ) : null;
      })}
    </div>
  );
});
