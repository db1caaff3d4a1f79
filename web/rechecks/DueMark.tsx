import { DUE_WORDS, type DueState } from '@zero-lash/core/rechecks';

/** How near a recheck is: a full, a half or an open hourglass-like dial, with the word. */
export function DueMark({ state }: { readonly state: DueState }) {
  const colour = { 'not-held': 'tight', overdue: 'tight', due: 'brass', coming: 'faded', waiting: 'faded' }[
    state
  ];
  const paint = `var(--zl-colors-${colour})`;
  return (
    <span className="zl-due" style={{ color: paint }}>
      <svg width="16" height="16" viewBox="0 0 16 16" aria-hidden>
        <path
          d="M3 1.5h10L3 14.5h10z"
          fill={state === 'overdue' || state === 'not-held' ? paint : 'none'}
          stroke={paint}
          strokeWidth="1.4"
        />
        {state === 'due' && <path d="M8 8l5 6.5H3z" fill={paint} />}
      </svg>
      {DUE_WORDS[state]}
    </span>
  );
}
