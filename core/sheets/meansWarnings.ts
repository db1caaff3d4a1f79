import type { Means } from './pattern.ts';

/** A question about a figure of a means of setting that can hardly be meant. */
export interface MeansWarning {
  readonly field: 'pitch' | 'rockerRatio' | 'torqueNm' | 'from' | 'to' | 'step' | 'diameter';
  readonly text: string;
}

type Range = readonly [least: number, most: number];

/** What is usual in the trade; outside it a figure is asked about, not refused. */
const USUAL: Readonly<Record<MeansWarning['field'], Range>> = {
  pitch: [0.5, 1.5],
  rockerRatio: [1, 2],
  torqueNm: [5, 90],
  from: [0.9, 8],
  to: [0.9, 8],
  step: [0.01, 0.1],
  diameter: [5, 40],
};

/** What a figure is called when it is asked about. */
const NAMES: Readonly<Record<MeansWarning['field'], string>> = {
  pitch: 'A thread pitch',
  rockerRatio: 'A rocker ratio',
  torqueNm: 'A lock nut torque',
  from: 'A thinnest piece',
  to: 'A thickest piece',
  step: 'A step',
  diameter: 'A shim diameter',
};

/**
 * Asks about figures of a means of setting that lie outside what the trade uses: most often the decimal point is one
 * place out.
 *
 * @param means lengths in mm, torque in Nm
 * @example meansWarnings({ ...pattern.means, pitch: 10 }).map(({ field }) => field) // ['pitch']
 */
export function meansWarnings(means: Means): MeansWarning[] {
  const figures: Partial<Record<MeansWarning['field'], number | null>> =
    'sizes' in means
      ? { ...(means.sizes ?? {}), ...('diameter' in means ? { diameter: means.diameter } : {}) }
      : { pitch: means.pitch, rockerRatio: means.rockerRatio, torqueNm: means.torqueNm };
  return (Object.entries(figures) as [MeansWarning['field'], number | null][]).flatMap(([field, figure]) => {
    const [least, most] = USUAL[field];
    if (figure === null || (figure >= least && figure <= most)) return [];
    const tenfold = [figure / 10, figure * 10].find((other) => other >= least && other <= most);
    const meant = tenfold === undefined ? '' : ` Did you mean ${Math.round(tenfold * 1e6) / 1e6}?`;
    return [{ field, text: `${NAMES[field]} of ${figure} is unusual.${meant}` }];
  });
}
