import { lastChange, readingAt, roundOfStage, SETTING } from '../builds/index.ts';
import { mmFromTenths, tenthsFromMm } from '../length/index.ts';
import {
  boundedGap,
  isDecided,
  limitedPoints,
  whyNoProof,
  whyUnknown,
  type LimitedPoint,
} from '../measuring/index.ts';
import { meansFor, pieceGain } from '../sheets/index.ts';
import { characteristicOf, figuresAt, partDispositions, wearSheetOf } from '../wear/index.ts';
import { chartSays } from './makersChart.ts';
import { pieceSystem } from './pieceSystem.ts';
import type { PlanChange, ShimPlanInput } from './shimPlan.ts';
import { sizesOf } from './sizes.ts';
import type { SetBuild } from './setBuild.ts';
import { aimFor } from './target.ts';

/** What is written down of an engine's wear, and the sheet it is graded by. */
type WornBuild = Pick<SetBuild, 'wear' | 'sheet'>;

/** Where pieces of one system lie, and what they cost; mm. */
export interface PiecesKept {
  readonly systems: readonly {
    readonly system: string;
    readonly sizes: readonly { readonly thickness: number; readonly count: number }[];
    readonly price: number;
    readonly sizePrices: readonly { readonly thickness: number; readonly price: number }[];
  }[];
}

/** Why a point is not planned for yet. */
export type NotPlanned =
  'not-measured' | 'no-blade' | 'undecided' | 'contradicts' | 'need-piece' | 'fitted' | 'bare' | 'no-offset';

/** A point that takes a graded piece, as far as it can be planned for; lengths in mm. */
export interface PiecePoint {
  readonly point: LimitedPoint;
  readonly system: string;
  readonly gap: { readonly lo: number; readonly hi: number } | null;
  readonly installed: number | null;
  readonly target: number;
  readonly gain: number;
  /** nothing is in: what stands for the piece is the offset of its seat */
  readonly bare: boolean;
  /** dished or worn, as the wear sheet says: it is not used again, here or elsewhere */
  readonly worn: boolean;
  /** what the maker's own chart says is fitted there; undefined where it says nothing of it */
  readonly chart: number | 'keep' | null | undefined;
  /** found in what the maker leaves alone, and not touched since: a plan leaves it too, unless it takes every point */
  readonly leftAlone: boolean;
  /** it was read, and is out of what it is judged by */
  readonly out: boolean;
  /** null where it is planned for */
  readonly why: NotPlanned | null;
}

/** What is to be done first where a reading is no gap that a piece can be chosen by. */
const NOT_KNOWN = { 'no-blade': 'no-blade', open: 'undecided', conflict: 'contradicts' } as const;

const PIECE = characteristicOf('piece-in')!;
const OFFSET = characteristicOf('seat-offset')!;

/** How much lower a shim lies at a point than what a bare gap is measured against, and where that is from; null where nobody knows. */
export function seatOffsetAt(
  { wear, sheet }: WornBuild,
  { key, role }: Pick<LimitedPoint, 'key' | 'role'>,
): { readonly mm: number; readonly from: 'measured' | 'sheet' } | null {
  const figures = figuresAt(wearSheetOf(wear, sheet.wearLimits), OFFSET, key, 'found');
  const measured = OFFSET.grade(figures, {})?.derived[0]?.value;
  if (measured !== undefined) return { mm: mmFromTenths(tenthsFromMm(measured)), from: 'measured' };
  const means = meansFor(sheet.pattern, role);
  const said = means.kind === 'shim' ? means.seatOffset : null;
  return said === null ? null : { mm: said, from: 'sheet' };
}

/** The piece that was found in at a point, as the wear sheet has it; mm. */
export function pieceFound({ wear, sheet }: WornBuild, key: string): number | null {
  return figuresAt(wearSheetOf(wear, sheet.wearLimits), PIECE, key, 'found')['value']?.[0] ?? null;
}

/** The points whose piece the wear sheet has replaced: dished, worn or cracked. It is not used again, here or elsewhere. */
export function piecesWornOut({ wear, sheet }: WornBuild): ReadonlySet<string> {
  return new Set(
    partDispositions(wearSheetOf(wear, sheet.wearLimits), sheet.pattern)
      .filter(({ part, decided, verdict }) => part === 'piece' && (decided?.fate ?? verdict) === 'replace')
      .map(({ place }) => place),
  );
}

/** What stands at each point that takes a graded piece; closing sides are set by hand, after their opening sides. */
export function piecePoints(build: SetBuild): readonly PiecePoint[] {
  const { sheet, settings, wear, aim, ownAims } = build;
  const round = roundOfStage(build, SETTING);
  const worn = wearSheetOf(wear, sheet.wearLimits);
  const wornOut = piecesWornOut(build);
  return limitedPoints(sheet).flatMap((point): PiecePoint[] => {
    const system = pieceSystem(meansFor(sheet.pattern, point.role));
    if (!system || point.role.endsWith('closing')) return [];
    const reading = readingAt(round, point.key);
    const change = lastChange(settings, point.key);
    const bare = change?.kind === 'bare';
    const fitted = change?.fitted ?? null;
    const installed = bare
      ? (seatOffsetAt(build, point)?.mm ?? null)
      : (fitted ?? figuresAt(worn, PIECE, point.key, 'found')['value']?.[0] ?? null);
    const proof = reading ? whyNoProof(reading, change?.at ?? null) : 'not-measured';
    const gap = reading && proof === null ? boundedGap(reading) : null;
    const chart = sheet.pieceCharts?.find(({ role }) => role === point.role);
    const why = (): NotPlanned | null => {
      if (bare && proof !== null) return 'bare';
      if (proof === 'changed-since') return fitted === null ? 'not-measured' : 'fitted';
      if (!reading || proof !== null) return 'not-measured';
      if (gap === null) return NOT_KNOWN[whyUnknown(reading)!];
      if (bare) return installed === null ? 'no-offset' : null;
      if (!isDecided(reading.verdict)) return 'undecided';
      return installed === null ? 'need-piece' : null;
    };
    return [
      {
        chart: chart && gap && installed !== null && !bare ? chartSays(chart, gap, installed) : undefined,
        ...{
          point,
          system: system.key,
          gap,
          installed,
          bare,
          worn: wornOut.has(point.key) && change === null,
          leftAlone: point.asFound !== null && change === null && reading?.verdict === 'in-spec',
          out: gap !== null && isDecided(reading!.verdict) && reading!.verdict !== 'in-spec',
          why: why(),
        },
        target: mmFromTenths(aimFor(aim, point.role, point.toSet, ownAims?.figures)),
        gain: pieceGain(sheet.pattern, point.role),
      },
    ];
  });
}

/** What a person chooses of a plan. */
export interface PlanChoices {
  readonly change: PlanChange;
  /** pieces may change places */
  readonly reuse: boolean;
  readonly drawer: boolean;
  readonly keep: readonly string[];
  readonly without: readonly { readonly key: string; readonly thickness: number }[];
  /** mm, how far inside the band the plan keeps */
  readonly guard: number;
}

/** The pieces that lie beside the engine: taken out, wanted again, and not in anywhere. */
interface Beside {
  readonly tray: readonly number[];
  /** points whose piece is in under another valve already */
  readonly gone: ReadonlySet<string>;
}

/**
 * Follows the pieces that were moved within the engine: what was taken out lies in the tray until it goes in somewhere; what
 * came straight out of another point leaves that one without, until it is fitted itself.
 */
export function besideTheEngine(
  settings: readonly Pick<
    SetBuild['settings'][number],
    'kind' | 'installed' | 'fitted' | 'from' | 'to' | 'giver' | 'point'
  >[],
): Beside {
  const fitted = settings.filter(({ kind }) => kind === 'fitted');
  const tray = fitted.flatMap(({ to, installed, point }) =>
    to === 'engine' && installed !== null ? [{ of: point, thickness: installed }] : [],
  );
  const gone = new Set<string>();
  const refitted = new Set(fitted.map(({ point }) => point));
  for (const { from, giver, fitted: into } of fitted) {
    if (from !== 'engine' || into === null) continue;
    const lies = tray.findIndex(({ of, thickness }) =>
      giver === null ? same(thickness, into) : of === giver,
    );
    if (lies >= 0) tray.splice(lies, 1);
    else if (giver !== null && !refitted.has(giver)) gone.add(giver);
  }
  return { tray: tray.map(({ thickness }) => thickness), gone };
}

/** Every piece there is to choose from but one size, for a point: what a person bars by hand, said by the maker. */
function othersThan(
  size: number,
  key: string,
  made: readonly number[],
  pieces: readonly { readonly thickness: number }[],
): { readonly key: string; readonly thickness: number }[] {
  const all = new Set([...made, ...pieces.map(({ thickness }) => thickness)].map(tenthsFromMm));
  // a piece is called by the size it is made in, and measures a little off it
  return [...all]
    .filter((thickness) => Math.abs(thickness - tenthsFromMm(size)) > OFF_SIZE)
    .map((thickness) => ({ key, thickness: mmFromTenths(thickness) }));
}

/** What a piece costs to buy; nothing where nobody put a price in, and then one costs as much as another. */
function priceOf(kept: PiecesKept['systems'][number] | undefined, thickness: number): number | undefined {
  const price = kept?.sizePrices.find((own) => same(own.thickness, thickness))?.price ?? kept?.price;
  return price === 0 ? undefined : price;
}

const OFF_SIZE = 150;
const installedOf = (points: readonly PiecePoint[]) =>
  points.flatMap(({ installed }) => (installed === null ? [] : [{ thickness: installed }]));

const same = (a: number, b: number) => tenthsFromMm(a) === tenthsFromMm(b);

/** What the planner is asked, one question for each system of pieces. */
export function planQuestions(
  build: SetBuild,
  points: readonly PiecePoint[],
  drawer: PiecesKept | undefined,
  choices: PlanChoices,
): readonly ShimPlanInput[] {
  const planned = points.filter(({ why }) => why === null);
  const { tray, gone } = besideTheEngine(build.settings);
  return [...new Set(planned.map(({ system }) => system))].map((system): ShimPlanInput => {
    const own = planned.filter((each) => each.system === system);
    const kept = drawer?.systems.find((each) => each.system === system);
    const means = meansFor(build.sheet.pattern, own[0]!.point.role);
    const made = 'sizes' in means ? sizesOf(means.sizes).map(mmFromTenths) : [];
    const keys = new Set(own.map(({ point }) => point.key));
    const stock = [
      ...(choices.drawer
        ? (kept?.sizes ?? []).map(({ thickness, count }) => ({ thickness, qty: count }))
        : []),
      ...tray.map((thickness) => ({ thickness, qty: 1 })),
    ];
    return {
      points: own.map(({ point, gap, installed, target, gain, bare, worn }) => ({
        ...{ key: point.key, ...gap!, floor: true, installed: installed!, target, gain },
        ...{ ...point.spec, gone: bare || worn || gone.has(point.key) },
      })),
      stock,
      orderable: made.map((thickness) => ({
        thickness,
        price: priceOf(kept, thickness),
      })),
      change: choices.change,
      reuseRemoved: choices.reuse,
      guard: choices.guard,
      keep: [
        ...(choices.change.rule === 'all'
          ? []
          : own.flatMap(({ point, leftAlone }) => (leftAlone ? [point.key] : []))),
        ...choices.keep.filter((key) => keys.has(key)),
        // what the maker says stays in does, and where he prints none no other one is fitted
        ...own.flatMap(({ point, chart }) => (chart === 'keep' || chart === null ? [point.key] : [])),
      ],
      without: [
        ...choices.without.filter(({ key }) => keys.has(key)),
        // where the maker prints which piece it is, no other one is fitted
        ...own.flatMap(({ point, chart }) =>
          typeof chart === 'number'
            ? othersThan(chart, point.key, made, [...stock, ...installedOf(own)])
            : [],
        ),
      ],
    };
  });
}
