import { median } from './table.mjs';

/**
 * A figure of a row: how it follows from what one turn measured, how it is written, and when it is met.
 *
 * @typedef {{ of: (turn: any) => number, show: (figure: number) => string, met: (figure: number) => boolean }} Figure
 *
 * A row: its name, what was measured, in words that may use the middle of what all turns measured, its figures, and the aim.
 * @typedef {{ name: string, what: (middle: (of: (turn: any) => number) => number) => string, figures: Figure[], aim: string }} Row
 *
 * A part: what it measures in one turn, ours and its baseline one after the other, and the rows that come of it. A part that comes
 * out the same every time is measured once.
 * @typedef {{ rows: Row[], turn: () => Promise<any>, same?: boolean }} Part
 */

/**
 * Judges a row by its runs: the middle of each run, and the middle of those. One good turn, or one good run, meets nothing.
 *
 * @param {Row} row
 * @param {any[][]} runs what each turn of each run measured
 * @example judged({ name: 'x', what: () => 'x', figures: [{ of: (turn) => turn.ms, show: String, met: (ms) => ms < 5 }], aim: 'under 5' }, [[{ ms: 3 }]]).met // true
 */
export function judged({ name, what, figures, aim }, runs) {
  const turns = runs.flat();
  const results = figures.map(({ of, show, met }) => {
    const middle = median(runs.map((run) => median(run.map(of))));
    const all = turns.map(of);
    const [least, most] = [Math.min(...all), Math.max(...all)];
    const spread = least === most ? '' : ` (${bare(show(least))} to ${bare(show(most))})`;
    return { text: `${show(middle)}${spread}`, met: met(middle) };
  });
  return {
    what: `${what((of) => median(turns.map(of)))} [${name}]`,
    result: results.map(({ text }) => text).join(', '),
    aim,
    met: results.every(({ met }) => met),
  };
}

/** The number of a figure as it is written, without what it is one of. */
const bare = (written) => /(?<![a-z\d])[\d.]+/.exec(written)[0];

/** A figure that is met under some most. */
export const under = (of, most, show) => ({ of, show, met: (figure) => figure < most });

export const ms = (figure) => `${figure.toFixed(figure < 10 ? 1 : 0)} ms`;
export const percent = (share) => `${(share * 100).toFixed(1)} %`;
