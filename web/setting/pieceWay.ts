import type { NewSetting } from '@zero-lash/contract/setting';
import type { Drawer } from '@zero-lash/contract/pieces';
import { lastChange } from '@zero-lash/core/builds';
import { tenthsFromMm } from '@zero-lash/core/length';
import { besideTheEngine, pieceFound, pieceSystem, type PieceIn } from '@zero-lash/core/setting';
import { meansFor } from '@zero-lash/core/sheets';
import { limitedPoints, type LimitedPoint } from '@zero-lash/core/measuring';
import type { BuildView } from '../builds/buildView.ts';

/** Where a piece that is fitted comes from, and where the one that is taken out goes. */
export interface PieceWay {
  readonly from: NonNullable<NewSetting['from']>;
  readonly to: NonNullable<NewSetting['to']>;
}

const STAYS: PieceWay = { from: 'unsaid', to: 'unsaid' };

/**
 * Where a piece most likely comes from, and where the other goes, until somebody says otherwise: what lies beside the engine comes
 * from there, what the drawer has from the drawer, and what it has not was bought.
 *
 * @param installed mm, what comes out; null where nothing is in
 * @param fitted mm
 * @param drawer null where it is not known on this device
 */
export function usualWay(
  build: Pick<BuildView, 'settings' | 'sheet'>,
  { role }: Pick<LimitedPoint, 'role'>,
  installed: number | null,
  fitted: number | null,
  worn: boolean,
  drawer: Drawer | null,
): PieceWay {
  if (fitted === null || (installed !== null && same(installed, fitted))) return STAYS;
  const to = installed === null ? 'unsaid' : worn ? 'scrapped' : 'drawer';
  if (besideTheEngine(build.settings).tray.some((each) => same(each, fitted))) return { from: 'engine', to };
  const system = pieceSystem(meansFor(build.sheet.pattern, role))?.key;
  const kept = drawer?.systems.find((each) => each.system === system);
  const there = kept?.sizes.find(({ thickness }) => same(thickness, fitted))?.count ?? 0;
  return { from: drawer === null || there > 0 ? 'drawer' : 'bought', to };
}

/** What is in by now at every other point that takes a piece of the same system, as far as the record knows it. */
export function piecesElsewhere(build: BuildView, here: LimitedPoint): readonly PieceIn[] {
  const { pattern } = build.sheet;
  const system = pieceSystem(meansFor(pattern, here.role))?.key;
  return limitedPoints(build.sheet).flatMap(({ key, role }): PieceIn[] => {
    if (key === here.key || pieceSystem(meansFor(pattern, role))?.key !== system) return [];
    const change = lastChange(build.settings, key);
    if (change?.kind === 'bare') return [];
    const thickness = change?.fitted ?? pieceFound(build, key);
    return thickness === null
      ? []
      : [{ point: key, thickness: tenthsFromMm(thickness), mark: change?.mark ?? '' }];
  });
}

const same = (a: number, b: number) => tenthsFromMm(a) === tenthsFromMm(b);
