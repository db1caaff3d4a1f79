import { torqueShown } from '@zero-lash/core/assembly';
import { counted, figureWithUnit, formatLength, tenthsFromMm, type ShownIn } from '@zero-lash/core/length';
import type { SheetRevision } from '@zero-lash/contract/sheets';
import type { RecheckStep } from '@zero-lash/core/rechecks';
import {
  ALSO_WORDS,
  LOCKING_WORDS,
  type AlsoKind,
  type GapAt,
  type Means,
  type Pattern,
  type SizeRange,
} from '@zero-lash/core/sheets';

/** `V-twin, 75°`, `in-line four`, `single` */
export function layoutInWords(pattern: Pick<Pattern, 'layout' | 'bankAngle' | 'cylinders'>): string {
  const count = pattern.cylinders.length;
  const number = ['', 'single', 'twin', 'three', 'four', 'five', 'six', '', 'eight', '', 'ten', '', 'twelve'][
    count
  ];
  switch (pattern.layout) {
    case 'single':
      return 'single';
    case 'inline':
      return `in-line ${number || count}`;
    case 'v':
      return `V-${number || count}, ${pattern.bankAngle}°`;
    case 'flat':
      return `flat ${number || count}`;
  }
}

const END_WORDS: Readonly<Record<Extract<Means, { readonly kind: 'screw' }>['end'], string>> = {
  valve: 'screw at the valve end',
  pushrod: 'screw at the pushrod end',
  'finger-pivot': 'screw under the ball of a finger',
  eccentric: 'eccentric that carries its rocker on the shaft',
};

/** How the gap is set, with its figures. */
export function meansInWords(means: Means, shown: ShownIn): string {
  switch (means.kind) {
    case 'screw':
      return `${END_WORDS[means.end]}, ${lockingSaid(means, shown)}, ${means.end === 'eccentric' ? 'set by the blade' : pitchSaid(means)}, ${means.end === 'finger-pivot' ? 'finger’s' : 'rocker'} ratio ${ratioSaid(means)}${gapTaken(means)}`;
    case 'pivot-nut':
      return `nut on the pivot, ${lockingSaid(means, shown)}, ${pitchSaid(means)}, rocker ratio ${ratioSaid(means)}`;
    case 'shim':
      return `shim ${{ 'on-bucket': 'on top of the bucket', 'under-bucket': 'under the bucket', 'under-finger': 'under the finger' }[means.seat]}, ${sizesSaid(means)}, ${means.diameter === null ? 'diameter not known' : `diameter ${means.diameter} mm`}${means.marking ? `, marked ${means.marking}` : ''}${inInches(means)}`;
    case 'bucket':
      return `graded bucket, ${sizesSaid(means)}${inInches(means)}`;
    case 'lash-cap':
      return `lash cap, ${sizesSaid(means)}${inInches(means)}`;
  }
}

/** How the gap is set, with every figure the sheet gives: what two revisions are held against each other by. */
export function meansInFull(means: Means, shown: ShownIn): string {
  const more =
    'torqueNm' in means
      ? [means.torqueNm !== null && `to ${torqueSaid(means, shown)}`]
      : [
          means.kind === 'shim' &&
            means.rockerRatio !== undefined &&
            `finger’s ratio ${means.rockerRatio}${gapTaken(means)}`,
          means.kind === 'shim' && means.turnsBare && 'may be turned with none in',
          means.kind === 'shim' && means.toolCrank && `crank before the tool goes in: ${means.toolCrank}`,
          means.kind === 'shim' &&
            means.seatOffset !== null &&
            `seat offset ${figureWithUnit(means.seatOffset, 'mm', shown)}`,
          means.kind !== 'shim' && means.marking && `marked ${means.marking}`,
        ];
  return [meansInWords(means, shown), ...more].filter(Boolean).join(', ');
}

/** The means of setting in one or two words, for a list. */
export const MEANS_SHORT: Readonly<Record<string, string>> = {
  screw: 'screw',
  'pivot-nut': 'pivot nut',
  shim: 'shim',
  bucket: 'graded bucket',
  'lash-cap': 'lash cap',
};

/** `1-3-4-2`, with the angles between where the firing is uneven. */
export function firingInWords(cylinders: Pattern['cylinders']): string {
  const order = [...cylinders].sort((a, b) => a.firesAt - b.firesAt);
  const gaps = order.map(
    (cylinder, index) => (order[(index + 1) % order.length]!.firesAt - cylinder.firesAt + 720) % 720 || 720,
  );
  const even = gaps.every((gap) => Math.abs(gap - gaps[0]!) < 1e-6);
  const names = order.map(({ id }) => id).join('-');
  return even ? `${names}, every ${gaps[0]}°` : `${names}, ${gaps.map((gap) => `${gap}°`).join(' then ')}`;
}

/** `10-01` in words: 1 October. */
export function dayOfYearInWords(day: string): string {
  const [month, date] = day.split('-').map(Number);
  const named = new Date(Date.UTC(2000, month! - 1, date)).toLocaleDateString('en-GB', {
    ...{ month: 'long', timeZone: 'UTC' },
  });
  return `${date} ${named}`;
}

/** One step of a recheck plan. */
export function stepInWords(
  step: RecheckStep & { readonly season?: string; readonly points?: readonly string[] },
  unit: string,
): string {
  const when = [
    step.afterUsage !== null && `${step.afterUsage} ${unit}`,
    step.afterDays !== null && counted(step.afterDays, 'day'),
    step.afterCycles && counted(step.afterCycles, 'heat cycle'),
    // a slip of an imported file, shown as it stands
    !step.before && step.season,
    !step.before && step.until && `until ${step.until}`,
    step.before &&
      `before ${step.season || 'the season'} (${[step.before, step.until ?? ''].filter(Boolean).map(dayOfYearInWords).join(' to ')})`,
  ]
    .filter(Boolean)
    .join(' or ');
  return step.points && step.points.length > 0 ? `${when}, at ${step.points.join(' ')}` : when;
}

/** Where a finger's gap is taken, where the sheet says so. */
function gapTaken({ gapAt }: { readonly gapAt?: GapAt | undefined }): string {
  return gapAt === undefined ? '' : `, gap taken at the ${gapAt}`;
}

function inInches({ stampedIn }: { readonly stampedIn?: 'mm' | 'in' }): string {
  return stampedIn === 'in' ? ', stamped in inches' : '';
}

/** Where a revision of a sheet stands, in words. */
export const STATUS_WORDS: Readonly<Record<SheetRevision['status'], string>> = {
  draft: 'draft',
  published: 'published',
  foreign: 'another shop’s',
};

/** What else a source prints for a role, in words: of the other temperature, which one that is. */
export const alsoInWords = (kind: AlsoKind, condition: 'cold' | 'hot'): string =>
  kind === 'other-condition'
    ? `${condition === 'cold' ? 'hot' : 'cold'}, which is not measured by here`
    : ALSO_WORDS[kind];

type Adjuster = Extract<Means, { readonly kind: 'screw' | 'pivot-nut' }>;

/** An adjuster's thread as the source gives it, and in mm where that is something else. */
function pitchSaid({ pitch, asTyped }: Adjuster): string {
  if (pitch === null) return 'pitch not known: no angle, set by the blade';
  return asTyped?.pitch ? `${asTyped.pitch} (${pitch} mm a turn)` : `pitch ${pitch} mm`;
}

/** What holds an adjuster; what holds by its own grip with the least it turns with. */
function lockingSaid({ locking, runsAtNm, asTyped }: Adjuster, { system }: ShownIn): string {
  const held = LOCKING_WORDS[locking];
  if (locking !== 'self-locking' || runsAtNm === null || runsAtNm === undefined) return held;
  return `${held}, turning with at least ${asTyped?.runsAt ?? torqueShown([runsAtNm], system)}`;
}

/** The sizes a graded piece is made in. */
function sizesSaid({
  sizes,
  stampedIn,
}: {
  readonly sizes: SizeRange | null;
  readonly stampedIn?: 'mm' | 'in';
}): string {
  if (sizes === null) return 'sizes not known';
  if (stampedIn !== 'in') return `${sizes.from}–${sizes.to} mm by ${sizes.step}`;
  const [from, to, step] = [sizes.from, sizes.to, sizes.step].map((mm) =>
    formatLength(tenthsFromMm(mm), 'thou'),
  );
  return `${from}–${to} thou by ${step}`;
}

const ratioSaid = ({ rockerRatio }: Adjuster) => rockerRatio ?? 'not known';

/** The lock nut's torque as the source gives it, and as it is shown where that is something else. */
function torqueSaid({ torqueNm, torqueToNm, asTyped }: Adjuster, { system }: ShownIn): string {
  const is = torqueShown(
    [torqueNm, torqueToNm].filter((each) => each !== null && each !== undefined),
    system,
  );
  return asTyped?.torque && asTyped.torque !== is ? `${asTyped.torque} (${is})` : is;
}
