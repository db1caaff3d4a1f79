/** What was done at a point, as far as it is said. */
export interface SettingSaid {
  readonly kind: 'turned' | 'fitted' | 'left' | 'bare';
  readonly degrees: number | null;
  /** the piece that was in and the one that is in now, in mm */
  readonly installed: number | null;
  readonly fitted: number | null;
  readonly mark: string;
  readonly note: string;
  /** why it was left alone: by choice where nothing else is said */
  readonly cause?: keyof typeof LEFT_WORDS;
}

/** Why a point was left alone, as it is said. */
const LEFT_WORDS = {
  chosen: 'left alone',
  unreached: 'cannot be reached',
  apart: 'came apart before it was measured',
} as const;

/**
 * What was turned, fitted, taken out or left alone, in a few words: on the page, on paper, and wherever it is told.
 *
 * @param length writes a length of so many mm, in whatever unit is read there
 * @example settingInWords({ kind: 'turned', degrees: -30, installed: null, fitted: null, mark: '', note: '' }, String) // 'tightened 30°'
 */
export function settingInWords(
  { kind, degrees, installed, fitted, mark, note, cause = 'chosen' }: SettingSaid,
  length: (mm: number) => string,
): string {
  switch (kind) {
    case 'turned':
      return degrees === null || degrees === 0
        ? 'turned'
        : `${degrees > 0 ? 'loosened' : 'tightened'} ${Math.abs(degrees)}°`;
    case 'fitted':
      return `${installed === null ? 'nothing was in' : `${length(installed)} out`}, ${length(fitted!)} in${mark === '' ? '' : `, marked ${mark}`}`;
    case 'bare':
      return `${installed === null ? '' : `${length(installed)} out, `}nothing in`;
    case 'left':
      return `${LEFT_WORDS[cause]}: ${note}`;
  }
}
