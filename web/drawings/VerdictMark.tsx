import { paint, STATE_COLOURS, STATE_WORDS, type PointState } from './states.ts';

/** The mark of a state in a 16 × 16 field, for use inside another drawing. */
export function MarkShape({ state }: { readonly state: PointState }) {
  const colour = paint(STATE_COLOURS[state]);
  switch (state) {
    case 'in-spec':
      return <rect x="2" y="4" width="12" height="8" fill={colour} />;
    case 'tight':
      return <path d="M0 2.5v11L7.4 8zM16 2.5v11L8.6 8z" fill={colour} />;
    case 'loose':
      return <path d="M7 2.5v11L-.4 8zM9 2.5v11L16.4 8z" fill={colour} />;
    case 'not-measured':
      return <rect x="2.5" y="4.5" width="11" height="7" fill="none" stroke={colour} strokeWidth="1.2" />;
    case 'off-base':
      return (
        <g stroke={colour} fill="none" strokeWidth="1.3">
          <rect x="2.5" y="4.5" width="11" height="7" strokeDasharray="2.5 1.8" />
          <path d="M8 1.5v3M8 11.5v3" />
        </g>
      );
    case 'changed-since':
      return (
        <g stroke={colour} fill="none" strokeWidth="1.3">
          <rect x="2.5" y="4.5" width="11" height="7" />
          <path d="M5 8h6M8 5.8v4.4" />
        </g>
      );
    case 'before-lock':
      return (
        <g stroke={colour} fill="none" strokeWidth="1.3">
          <rect x="2.5" y="4.5" width="11" height="7" />
          <circle cx="8" cy="8" r="1.8" />
        </g>
      );
    case 'bare':
      return <path d="M2.5 4.5v7h11v-7M5.5 4.5h5" fill="none" stroke={colour} strokeWidth="1.3" />;
    case 'unreached':
      return <path d="M2.5 4.5h11v7h-11zM4 13.5l8-11" stroke={colour} strokeWidth="1.3" fill="none" />;
    case 'apart':
      return <path d="M6.5 4.5h-4v7h4M9.5 4.5h4v7h-4" stroke={colour} strokeWidth="1.3" fill="none" />;
    case 'passed-over':
    case 'unopened':
      return <path d="M4 8h8" stroke={colour} strokeWidth="1.6" fill="none" />;
    case 'conflict':
      return <path d="M3 3l10 10M13 3L3 13" stroke={colour} strokeWidth="2.4" fill="none" />;
    default:
      return (
        <g stroke={colour} fill="none" strokeWidth="1.3">
          <rect x="2" y="4" width="12" height="8" />
          <path d="M2 9l5-5M4 12l8-8M9 12l5-5" />
        </g>
      );
  }
}

interface Props {
  readonly state: PointState;
  /** writes the word beside the mark; without it the mark speaks it */
  readonly withWord?: boolean;
  readonly size?: number;
}

/** A state's mark, with its word beside it or spoken. */
export function VerdictMark({ state, withWord = false, size = 16 }: Props) {
  const svg = (
    <svg
      width={size}
      height={size}
      viewBox="-1 0 18 16"
      role={withWord ? undefined : 'img'}
      aria-hidden={withWord || undefined}
      aria-label={withWord ? undefined : STATE_WORDS[state]}
      style={{ flexShrink: 0 }}
    >
      <MarkShape state={state} />
    </svg>
  );
  if (!withWord) return svg;
  return (
    <span className="zl-verdict" style={{ color: paint(STATE_COLOURS[state]) }}>
      {svg}
      {STATE_WORDS[state]}
    </span>
  );
}
