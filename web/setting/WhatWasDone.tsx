import type { Setting } from '@zero-lash/contract/setting';
import type { ShopUnit } from '@zero-lash/core/length';
import { settingInWords } from '@zero-lash/core/setting';
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
      Written down: <strong>{settingInWords(done, length)}</strong> by {done.by}.
    </>
  );
}
