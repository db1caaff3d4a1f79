import type { Setting } from '@zero-lash/contract/setting';
import type { ShopUnit } from '@zero-lash/core/length';
import { useLengths } from '../app/lengths.ts';

interface Props {
  readonly done: Setting;
  /** the unit pieces are stamped in */
  readonly unit: ShopUnit;
}

/** What was last turned, fitted or left alone at a point, and by whom: for everybody who looks. */
export function WhatWasDone({ done, unit }: Props) {
  const { length } = useLengths(unit);
  return (
    <>
      Written down: <strong>{inWords(done, length)}</strong> by {done.by}.
    </>
  );
}

function inWords({ kind, degrees, installed, fitted, mark, note }: Setting, length: (mm: number) => string) {
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
      return `left alone: ${note}`;
  }
}
