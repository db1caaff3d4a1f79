/**
 * How the key of each kind of check begins: what follows is what it is a check of. Keys stand in builds, records and on devices, so
 * that these are never changed. No mark is the beginning of another.
 */
const MARKS = {
  /** a tool that holds a valve down, at a point */
  tool: 'tool ',
  /** a bridge that is balanced, of a point */
  bridge: 'bridge ',
  /** a point that was far out or moved fast, looked at before it is set */
  looked: 'looked ',
  /** a head whose cover is still on, because another one is finished first */
  unopened: 'unopened ',
  /** a point that a lead lets stand */
  accepted: 'accepted ',
  /** a heat cycle, by its number from 1 */
  'heat-cycle': 'heat ',
  /** a step of assembly, by its place in the sheet from 0 */
  step: 'step ',
  /** a pass of tightening: its fastening's place in the sheet and its own, from 0, such as `0.1` */
  pass: 'pass ',
  /** what is slackened or taken out, by its head, and of two cams which: `A`, `A-intake` */
  rockers: 'rockers-',
  cam: 'cam-',
  cover: 'cover-',
  'new-cam': 'newcam-',
  head: 'head-',
  /** of these an engine has one at the most; the first: that the crank stands where cams come out, locked */
  'cams-out-position': 'cams-out-position',
  'ledger-explained': 'ledger-explained',
  'turned-bare': 'turned-bare',
} as const;

/** A kind of check that is no fixed one of a stage. */
export type CheckKind = keyof typeof MARKS;

/**
 * Writes the key of a check.
 *
 * @param subject what it is a check of; nothing for a kind of which an engine has one
 * @example checkKey('tool', '3E') // 'tool 3E'
 */
export const checkKey = (kind: CheckKind, subject: string | number = ''): string =>
  `${MARKS[kind]}${subject}`;

/**
 * Says what a check of one kind is of; null where it is of another kind.
 *
 * @example subjectOf('tool', 'tool 3E') // '3E'
 */
export const subjectOf = (kind: CheckKind, check: string): string | null =>
  check.startsWith(MARKS[kind]) ? check.slice(MARKS[kind].length) : null;

/**
 * Reads the key of a check; null where it is a fixed one of a stage.
 *
 * @example kindOf('cam-A-intake') // { kind: 'cam', subject: 'A-intake' }
 */
export function kindOf(check: string): { readonly kind: CheckKind; readonly subject: string } | null {
  const kind = (Object.keys(MARKS) as CheckKind[]).find((each) => check.startsWith(MARKS[each]));
  return kind ? { kind, subject: subjectOf(kind, check)! } : null;
}
