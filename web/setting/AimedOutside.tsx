import type { BuildAbout } from '../builds/buildView.ts';
import { ROLE_WORDS } from '@zero-lash/core/sheets';
import { memo } from 'react';
import { Caution } from '../app/Caution.tsx';
import { useLengths } from '../app/lengths.ts';

/** Says on every page of a build that it is aimed outside the maker's band, why, and who stands for it. */
export const AimedOutside = memo(function AimedOutside({ build }: { readonly build: BuildAbout }) {
  const { length } = useLengths();
  const outside = build.sheet.limits.filter(({ aimedOutside }) => aimedOutside).map(({ role }) => role);
  const own = build.ownAims;
  if (outside.length === 0 || !own) return null;
  const figures = own.figures
    .filter(({ role }) => outside.includes(role))
    .map(({ role, target }) => `${ROLE_WORDS[role]} ${length(target)}`);
  return (
    <Caution>
      <b>Aimed outside the maker’s band</b>: {figures.join(', ')}, because: {own.reason}. {own.by} stands for
      it.
    </Caution>
  );
});
