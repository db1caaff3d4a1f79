import { randomUUID } from 'node:crypto';
import type { BuildWrite } from '@zero-lash/contract/builds';
import type { EngineRow } from '@zero-lash/contract/engines';
import type { SheetRevision } from '@zero-lash/contract/sheets';
import {
  checksAt,
  nextStage,
  roundToRead,
  stageOf,
  type JobKey,
  type StageKey,
} from '@zero-lash/core/builds';
import { lashPoints, resolveBand } from '@zero-lash/core/sheets';
import { mayMeasurePoint } from '@zero-lash/core/turning';
import { expect } from 'vitest';
import { BENCH, LEAD, type BuildView, type TestShop } from './shop.ts';

/** The band of a role, as a shop without a rule of its own has it; mm. */
export const bandOf = ({ limits }: Pick<SheetRevision, 'limits'>, role: string) =>
  resolveBand(
    limits.find((limit) => limit.role === role)!,
    null,
  );

/** One build worked on through the server, as a person would. */
export class Work {
  build: BuildView;
  readonly #shop: TestShop;

  private constructor(shop: TestShop, build: BuildView) {
    this.#shop = shop;
    this.build = build;
  }

  /** A build on a new engine of the pattern of another, or on an engine of one's own. */
  static async on(
    shop: TestShop,
    like: string,
    own?: { readonly engineId: string; readonly revisionId: string; readonly job?: JobKey },
  ): Promise<Work> {
    if (own) {
      const { engineId, ...asked } = own;
      const opened = await shop.write(BENCH, 'POST', `engines/${engineId}/builds`, {
        ...{ complaint: 'Proof', ...asked },
      });
      return new Work(shop, opened.body);
    }
    const { sheet } = await shop.buildOf(like);
    const { body: engine } = await shop.call<EngineRow>(BENCH, 'POST', 'engines', {
      ...{ name: `Proof ${randomUUID().slice(0, 8)}`, serial: '', owner: '', duty: '', usage: 10 },
      sheetId: sheet.sheetId,
    });
    const opened = await shop.write(BENCH, 'POST', `engines/${engine.id}/builds`, {
      ...{ revisionId: sheet.id, complaint: 'Proof' },
    });
    return new Work(shop, opened.body);
  }

  get points(): string[] {
    return lashPoints(this.build.sheet.pattern).map(({ key }) => key);
  }

  async #send(method: 'POST' | 'GET', path: string, body?: object, who = BENCH) {
    const answer = await this.#shop.call<BuildView & BuildWrite & { code: string }>(who, method, path, body);
    const { seq } = this.build;
    this.build = await this.#shop.buildAfter(this.build, answer.body);
    // every write is numbered, and what is refused is not
    expect(this.build.seq, path).toBe(seq + (answer.status < 300 ? 1 : 0));
    return answer;
  }

  go(to: StageKey) {
    return this.#send('POST', `builds/${this.build.id}/stage`, { to, version: this.build.version });
  }

  async tickAll(): Promise<void> {
    const { stage } = this.build;
    for (const { key: check } of checksAt(this.build.job, stage))
      await this.#send('POST', `builds/${this.build.id}/ticks`, { stage, check, done: true });
    // a count over nothing wants a word
    if (stageOf(stage).demands.includes('counted'))
      await this.#send('POST', `builds/${this.build.id}/notes`, { stage, text: 'Only the cover came off.' });
  }

  /** Writes something of the build that has no way of its own here. */
  write(room: string, body: object, who = BENCH) {
    return this.#send('POST', `builds/${this.build.id}/${room}`, body, who);
  }

  /** Measures a point in the newest round: a gap in mm, in the middle of its band, too tight, at its upper edge, off its base circle, or takes it back. */
  measure(point: string, how: number | 'sound' | 'tight' | 'edge' | 'off-base' | 'withdrawn' = 'sound') {
    const { role } = lashPoints(this.build.sheet.pattern).find(({ key }) => key === point)!;
    const gapAt = (at: Exclude<typeof how, number>) => {
      const { min, max } = bandOf(this.build.sheet, role);
      return Math.round((at === 'tight' ? min / 2 : at === 'edge' ? max : (min + max) / 2) * 1000) / 1000;
    };
    const middle = typeof how === 'number' ? how : gapAt(how);
    const open = Array.from({ length: 72 }, (_, index) => index * 10).find(
      (angle) => !mayMeasurePoint(this.build.sheet.pattern, point, angle),
    );
    const round = roundToRead(this.build, this.build.stage, point) ??
      this.build.rounds.at(-1) ?? { id: randomUUID() };
    return this.#send('POST', `rounds/${round.id}/readings`, {
      ...{ point, asTyped: String(how), reason: how === 'withdrawn' ? 'a slip' : '' },
      reading:
        how === 'withdrawn'
          ? { kind: 'tries', tries: [] }
          : { kind: 'value', value: middle, uncertainty: 0.001 },
      crankAngle: how === 'off-base' ? open : null,
    });
  }

  /** Ticks one check, or takes its tick back. */
  tick(stage: StageKey, check: string, { who = BENCH, done = true } = {}) {
    return this.#send('POST', `builds/${this.build.id}/ticks`, { stage, check, done }, who);
  }

  abandon(why: string) {
    return this.#send('POST', `builds/${this.build.id}/abandon`, { version: this.build.version, why });
  }

  restore() {
    return this.#send('POST', `builds/${this.build.id}/restore`, { version: this.build.version });
  }

  set(point: string, setting: object = { kind: 'turned', degrees: 20 }) {
    return this.#send('POST', `builds/${this.build.id}/settings`, { point, ...setting });
  }

  signOff() {
    return this.#send(
      'POST',
      `builds/${this.build.id}/sign-off`,
      { version: this.build.version, seq: this.build.seq },
      LEAD,
    );
  }

  /** Goes stage by stage, everything ticked and every point found sound, as far as it is told. */
  async reach(stage: StageKey, how: 'sound' | 'tight' = 'sound'): Promise<void> {
    while (this.build.stage !== stage) {
      await this.tickAll();
      const measured = stageOf(this.build.stage).measures !== null;
      if (measured) for (const point of this.points) await this.measure(point, how);
      const next = nextStage(this.build.job, this.build.stage)!;
      expect((await this.go(next)).status, `${this.build.stage} to ${next}`).toBe(200);
    }
  }

  /** Begins the planned recheck and measures every point of it, one of them tight where it is named; gives its id. */
  async recheck(tight?: string): Promise<string> {
    const { id } = this.build.rechecks.find(({ status }) => status === 'planned')!;
    await this.#send('POST', `rechecks/${id}/round`, {});
    for (const point of this.points) await this.measure(point, point === tight ? 'tight' : 'sound');
    return id;
  }

  /** Judges a recheck. */
  judge(id: string) {
    return this.#send('POST', `rechecks/${id}/outcome`);
  }

  /** The short build that sets again what a recheck of this one found. */
  async setAgain(recheckId: string): Promise<Work> {
    const { body } = await this.#shop.write(BENCH, 'POST', `engines/${this.build.engine.id}/builds`, {
      ...{ revisionId: this.build.sheet.id, complaint: 'Did not hold', recheckId },
    });
    return new Work(this.#shop, body);
  }

  ticked(stage: StageKey): string[] {
    return this.build.ticks.filter((tick) => tick.stage === stage && tick.done).map(({ check }) => check);
  }
}
