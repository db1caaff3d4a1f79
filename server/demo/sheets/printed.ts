import type { RoleLimits } from '@zero-lash/contract/sheets';
import { printedFrom, type AlsoKind, type Role } from '@zero-lash/core/sheets';

const read = (text: string) => {
  const known = printedFrom(text, 'mm');
  if ('error' in known) throw new Error(`${text}: ${known.error}`);
  return known;
};

/** Limits of a role as the source of a demo sheet prints them, and what else it prints for it. */
export const printed = (
  role: Role,
  text: string,
  also: Partial<Readonly<Record<AlsoKind, string>>> = {},
): RoleLimits => ({
  role,
  ...read(text),
  also: Object.entries(also).map(([kind, other]) => ({ kind: kind as AlsoKind, ...read(other) })),
});
