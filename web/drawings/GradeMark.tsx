import type { Grade } from '@zero-lash/core/wear';
import { paint } from './states.ts';

/** The word that stands beside every grade's mark. */
export const GRADE_WORDS: Readonly<Record<Grade, string>> = {
  keep: 'keep',
  watch: 'watch',
  replace: 'replace',
};

/** A cylinder is not replaced for a pressure: it is found out about. */
export const CYLINDER_WORDS: Readonly<Record<Grade, string>> = {
  keep: 'in order',
  watch: 'watch',
  replace: 'find out why',
};

const COLOURS: Readonly<Record<Grade | 'none', string>> = {
  keep: 'settled',
  watch: 'brass',
  replace: 'tight',
  none: 'faded',
};

/** The mark of a grade in a 16 × 16 field: a bar that stands on its line, one worn half down, one that is broken off. */
export function GradeShape({ grade }: { readonly grade: Grade | null }) {
  const colour = paint(COLOURS[grade ?? 'none']);
  switch (grade) {
    case 'keep':
      return <path d="M2 14h12M4 2h8v10H4z" fill={colour} stroke={colour} strokeWidth="1.4" />;
    case 'watch':
      return (
        <g stroke={colour} strokeWidth="1.4">
          <path d="M2 14h12M4 7h8v5H4z" fill={colour} />
          <path d="M4 7V2h8v5" fill="none" strokeDasharray="2 1.6" />
        </g>
      );
    case 'replace':
      return (
        <g stroke={colour} strokeWidth="1.4" fill="none">
          <path d="M2 14h12M4 12V9l3 1.6L9 8.4l3 1.6v2z" fill={colour} />
          <path d="M4 5l8-3M4 2l8 3" strokeWidth="2" />
        </g>
      );
    default:
      return <path d="M2 14h12M4 2h8v10H4z" fill="none" stroke={colour} strokeWidth="1.2" />;
  }
}

/** A grade with its word beside its mark. */
export function GradeMark({
  grade,
  words = GRADE_WORDS,
}: {
  readonly grade: Grade | null;
  readonly words?: Readonly<Record<Grade, string>> | undefined;
}) {
  return (
    <span className="wear-grade" style={{ color: paint(COLOURS[grade ?? 'none']), fontWeight: 600 }}>
      <svg width="16" height="16" viewBox="0 0 16 16" aria-hidden style={{ flexShrink: 0 }}>
        <GradeShape grade={grade} />
      </svg>
      {grade ? words[grade] : 'no limit'}
    </span>
  );
}
