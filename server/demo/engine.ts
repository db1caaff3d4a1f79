// Long because a whole history is told in one place, in the order it happened.
import type { SheetRevision } from '@zero-lash/contract/sheets';
import { dueColumns } from '../rechecks/planning.ts';
import { capPasses } from '@zero-lash/core/assembly';
import { judge } from '@zero-lash/core/measuring';
import { lashPoints, meansFor, type LashPoint } from '@zero-lash/core/sheets';
import type { Tenths } from '@zero-lash/core/length';
import {
  checksAt,
  setsAsFound,
  jobOf,
  STAGE_KEYS,
  WHOLE_JOB,
  type RoundKind,
  stageOf,
  type StageKey,
} from '@zero-lash/core/builds';
import type { Day, RecheckOutcome } from '@zero-lash/core/rechecks';
import type { Knex } from 'knex';
import { dayIn } from '../clock.ts';
import { BLADE_STEP, DemoGaps } from './gaps.ts';
import { DEMO_SHOP, type DemoBuild, type DemoEngine } from './world.ts';
import { checkKey } from '@zero-lash/core/builds';

interface Cast {
  readonly bench: string;
  readonly lead: string;
  readonly bladeSet: string;
  readonly now: Date;
  readonly seed: number;
}

const MS_PER_DAY = 86_400_000;

/** Writes one demo engine with all that happened to it. */
export async function loadEngine(
  db: Knex,
  engine: DemoEngine,
  sheet: SheetRevision,
  cast: Cast,
): Promise<void> {
  const teller = new EngineTeller(db, engine, sheet, cast);
  await teller.tell();
}

/** Where owners' engines stand that do not say it in their name. */
const YARDS: Readonly<Record<string, string>> = {
  'Overmere Rack Railway': 'Overmere depot',
  'Kestrel Ridge Ropeway': 'Kestrel Ridge',
  'Frostmere Ice Track': 'Frostmere',
};

const placeOf = (name: string, owner: string) => YARDS[owner] ?? name.split(', ')[1] ?? '';

/** Tells the history of one engine as rows, in the order it happened. */
class EngineTeller {
  readonly #db: Knex;
  readonly #engine: DemoEngine;
  readonly #sheet: SheetRevision;
  readonly #cast: Cast;
  readonly #gaps: DemoGaps;
  readonly #points: readonly LashPoint[];
  #engineId = '';

  constructor(db: Knex, engine: DemoEngine, sheet: SheetRevision, cast: Cast) {
    this.#db = db;
    this.#engine = engine;
    this.#sheet = sheet;
    this.#cast = cast;
    this.#points = lashPoints(sheet.pattern);
    this.#gaps = new DemoGaps(sheet, cast.seed);
  }

  async tell(): Promise<void> {
    const { name, serial, owner, duty, usage } = this.#engine;
    const [row] = await this.#db('engines')
      .insert({
        sheet_id: this.#sheet.sheetId,
        name,
        serial,
        owner,
        duty,
        place: placeOf(name, owner),
        usage_unit: this.#sheet.usageUnit,
        usage: this.#shown(usage, 0),
        ran_before: usage - this.#shown(usage, 0),
        usage_at: this.#ago(1),
      })
      .returning('id');
    this.#engineId = row!.id;
    const oldest = Math.max(30, ...this.#engine.builds.map((build) => build.openedDaysAgo));
    for (let days = oldest; days >= 1; days -= Math.max(1, Math.round(oldest / 12)))
      if (days > 1) await this.#logUsage(days);
    await this.#logUsage(1);
    if (this.#engine.newMeterDaysAgo !== undefined) await this.#logUsage(this.#engine.newMeterDaysAgo, true);
    for (const [index, build] of this.#engine.builds.entries())
      await this.#tellBuild(build, index + 1, this.#engine.builds[index + 1]);
  }

  #ago(days: number): Date {
    return new Date(this.#cast.now.getTime() - days * MS_PER_DAY);
  }

  #day(days: number): Day {
    return dayIn(DEMO_SHOP.zone, this.#ago(days));
  }

  #usageAt(daysAgo: number): number {
    const { usage, usagePerDay } = this.#engine;
    return Math.max(0, Math.round((usage - daysAgo * usagePerDay) * 10) / 10);
  }

  /** What the meter shows where the engine has run so much in all: a new one began at 0. */
  #shown(running: number, daysAgo: number): number {
    const { newMeterDaysAgo = -1 } = this.#engine;
    return daysAgo > newMeterDaysAgo
      ? running
      : Math.round((running - this.#usageAt(newMeterDaysAgo)) * 10) / 10;
  }

  async #logUsage(daysAgo: number, newMeter = false): Promise<void> {
    const running = daysAgo === 1 ? this.#engine.usage : this.#usageAt(newMeter ? daysAgo : daysAgo - 1);
    await this.#db('usages').insert({
      engine_id: this.#engineId,
      usage: newMeter ? 0 : this.#shown(running, daysAgo - 1),
      running,
      new_meter: newMeter,
      old_stopped_at: newMeter ? running : null,
      meter_from: newMeter ? 0 : null,
      reason: newMeter ? `new meter, begun at 0; the old one stopped at ${running}` : '',
      read_at: this.#ago(daysAgo),
      by: this.#cast.bench,
    });
  }

  async #tellBuild(build: DemoBuild, number: number, next: DemoBuild | undefined): Promise<void> {
    const { openedDaysAgo, stage } = build;
    const inStage = Math.min(openedDaysAgo, 2) / 2;
    const [row] = await this.#db('builds')
      .insert({
        engine_id: this.#engineId,
        revision_id: this.#sheet.id,
        number,
        ...{ job: build.job ?? WHOLE_JOB, stage },
        stage_since: this.#ago(build.signedOffDaysAgo ?? inStage),
        complaint: build.complaint,
        opened_at: this.#ago(openedDaysAgo),
        opened_by: this.#cast.bench,
        closed_at: next ? this.#ago(next.openedDaysAgo) : null,
      })
      .returning('id');
    const buildId: string = row!.id;
    await this.#tellStages(buildId, build);
    await this.#tellMeasuring(buildId, build);
    if (build.signedOffDaysAgo !== undefined)
      await this.#tellRunning(buildId, build, build.signedOffDaysAgo, next !== undefined);
  }

  async #tellStages(buildId: string, build: DemoBuild): Promise<void> {
    const { key: job, stages } = jobOf(build.job ?? WHOLE_JOB);
    const reached = stages.indexOf(build.stage);
    const span = build.openedDaysAgo - (build.signedOffDaysAgo ?? 0.5);
    const when = (index: number) => this.#ago(build.openedDaysAgo - (span * index) / Math.max(1, reached));
    for (const [index, stage] of stages.slice(0, reached).entries()) {
      const by = stage === 'close' ? this.#cast.lead : this.#cast.bench;
      await this.#db('stage_moves').insert({
        build_id: buildId,
        from_stage: stage,
        to_stage: stages[index + 1]!,
        by,
        at: when(index + 1),
      });
      for (const { key } of checksAt(job, stage, {
        touched: true,
        camOut: true,
        hot: false,
        pattern: this.#sheet.pattern,
      }))
        await this.#db('stage_ticks').insert({
          build_id: buildId,
          stage,
          check_key: key,
          by,
          at: when(index + 0.8),
        });
    }
    if (build.stage === 'close')
      await this.#db('stage_ticks').insert({
        build_id: buildId,
        stage: 'close',
        check_key: 'counted-in',
        by: this.#cast.bench,
        at: this.#ago(0.2),
      });
    for (const { stage, text } of build.notes ?? [])
      await this.#db('stage_notes').insert({
        build_id: buildId,
        stage,
        text,
        by: this.#cast.bench,
        at: when(stages.indexOf(stage) + 0.5),
      });
  }

  async #tellMeasuring(buildId: string, build: DemoBuild): Promise<void> {
    const at = (stage: StageKey) => STAGE_KEYS.indexOf(build.stage) - STAGE_KEYS.indexOf(stage);
    const span = build.openedDaysAgo - (build.signedOffDaysAgo ?? 0.4);
    const share = (stage: StageKey) => (at(stage) === 0 ? (build.progress ?? 0) : 1);
    if (at('as-found') < 0) return;
    const foundAt = build.openedDaysAgo - span * 0.25;
    const gaps = new Map(this.#points.map((point) => [point.key, this.#gaps.asFound(point, build)]));
    const asFound = await this.#round(buildId, 'as-found', 1, foundAt, at('prove') >= 0);
    // found and set in one lap: as far as it went
    const inLap = setsAsFound(build.job ?? WHOLE_JOB, build.stage);
    await this.#measure(asFound, gaps, inLap ? share(build.stage) : share('as-found'), foundAt);
    if (at('set') < 0) return;
    const setAt = build.openedDaysAgo - span * 0.6;
    await this.#round(buildId, 'as-set', 1, setAt, at('prove') >= 0);
    const installed = new Map(this.#points.map(({ key }) => [key, this.#gaps.installed()]));
    if (!inLap) await this.#setAll(buildId, gaps, installed, share('set'), setAt);
    if (at('prove') < 0) return;
    await this.#tick(buildId, 'set', this.#putTogether(), setAt - 0.02);
    const provedAt = build.openedDaysAgo - span * 0.8;
    const proved = await this.#round(buildId, 'proved', 1, provedAt, build.signedOffDaysAgo !== undefined);
    // the two turns come before what is read at proving
    const before = stageOf('prove').checks.filter(({ beforeReadings }) => beforeReadings);
    await this.#tick(
      buildId,
      'prove',
      before.map(({ key }) => key),
      provedAt + 0.01,
    );
    await this.#measure(proved, this.#gaps.asSet(), share('prove'), provedAt);
  }

  /** Ticks checks of a stage at a moment, over what was ticked there. */
  async #tick(buildId: string, stage: StageKey, checks: readonly string[], daysAgo: number): Promise<void> {
    for (const check_key of checks)
      await this.#db('stage_ticks')
        .insert({ build_id: buildId, stage, check_key, by: this.#cast.bench, at: this.#ago(daysAgo) })
        .onConflict(['build_id', 'stage', 'check_key'])
        .merge();
  }

  /** What is put together again once a cam was out: its caps, and what the sheet does not let be skipped. */
  #putTogether(): string[] {
    const { torques, assembly = [] } = this.#sheet;
    return [
      ...capPasses(torques).map(({ key }) => key),
      ...assembly.flatMap(({ hold }, index) => (hold ? [checkKey('step', index)] : [])),
    ];
  }

  async #round(
    buildId: string,
    kind: RoundKind,
    number: number,
    daysAgo: number,
    closed: boolean,
    recheckId: string | null = null,
  ): Promise<string> {
    const [row] = await this.#db('rounds')
      .insert({
        build_id: buildId,
        revision_id: this.#sheet.id,
        recheck_id: recheckId,
        kind,
        number,
        opened_at: this.#ago(daysAgo),
        opened_by: this.#cast.bench,
        closed_at: closed ? this.#ago(daysAgo - 0.1) : null,
        usage: this.#usageAt(daysAgo),
      })
      .returning('id');
    await this.#db('round_conditions').insert({
      round_id: row!.id,
      engine_temp_c: 14 + Math.round(this.#gaps.random() * 8),
      hours_since_run: 16 + Math.round(this.#gaps.random() * 40),
      by: this.#cast.bench,
      at: this.#ago(daysAgo),
    });
    return row!.id;
  }

  async #measure(
    roundId: string,
    gaps: ReadonlyMap<string, Tenths>,
    share: number,
    daysAgo: number,
  ): Promise<void> {
    const done = this.#points.slice(0, Math.round(this.#points.length * share));
    const rows = done.map((point, index) => {
      const gap = gaps.get(point.key)!;
      const lo = Math.floor(gap / BLADE_STEP) * BLADE_STEP;
      const hi = lo + BLADE_STEP;
      const { min, max } = this.#gaps.limits(point.role);
      const judged = judge({ lo, hi }, { min, max });
      return {
        round_id: roundId,
        revision_id: this.#sheet.id,
        point: point.key,
        reading: JSON.stringify({ kind: 'bracket', go: lo / 10_000, noGo: hi / 10_000 }),
        as_typed: `${(lo / 10_000).toFixed(2)} ${(hi / 10_000).toFixed(2)}`,
        lo,
        hi,
        min_tenths: min,
        max_tenths: max,
        verdict: judged.verdict,
        on_limit: judged.onLimit,
        by: this.#cast.bench,
        at: new Date(this.#ago(daysAgo).getTime() + index * 90_000),
        taken_at: new Date(this.#ago(daysAgo).getTime() + index * 90_000),
        instrument_id: this.#cast.bladeSet,
      };
    });
    if (rows.length > 0) await this.#db('readings').insert(rows);
  }

  async #setAll(
    buildId: string,
    gaps: ReadonlyMap<string, Tenths>,
    installed: ReadonlyMap<string, Tenths>,
    share: number,
    daysAgo: number,
  ): Promise<void> {
    const out = this.#points.filter((point) => {
      const { min, max } = this.#gaps.limits(point.role);
      const gap = gaps.get(point.key)!;
      return gap < min + BLADE_STEP || gap > max - BLADE_STEP;
    });
    const done = out.slice(0, Math.ceil(out.length * share));
    for (const point of done) {
      const means = meansFor(this.#sheet.pattern, point.role);
      const wanted = gaps.get(point.key)! - this.#gaps.target(point);
      const was = installed.get(point.key)!;
      const turned = means.kind === 'screw' || means.kind === 'pivot-nut';
      const degrees = turned ? Math.round(((-wanted / 10_000 / means.pitch!) * 360) / 5) * 5 : null;
      await this.#db('settings').insert({
        build_id: buildId,
        revision_id: this.#sheet.id,
        point: point.key,
        kind: turned ? 'turned' : 'fitted',
        degrees,
        installed: turned ? null : was,
        fitted: turned ? null : was + Math.round(wanted / 500) * 500,
        by: this.#cast.bench,
        at: this.#ago(daysAgo),
        came_at: this.#ago(daysAgo),
      });
    }
  }

  async #tellRunning(
    buildId: string,
    build: DemoBuild,
    signedOffDaysAgo: number,
    ended: boolean,
  ): Promise<void> {
    await this.#db('sign_offs').insert({
      build_id: buildId,
      by: this.#cast.lead,
      at: this.#ago(signedOffDaysAgo),
      usage: this.#usageAt(signedOffDaysAgo),
      statement: '',
    });
    const asSet = this.#gaps.asSet();
    let from = signedOffDaysAgo;
    let sequence = 1;
    let after: RecheckOutcome | null = null;
    for (const daysAgo of build.recheckedDaysAgo ?? []) {
      after = await this.#tellRecheck(buildId, build, after, {
        sequence,
        from,
        daysAgo,
        signedOffDaysAgo,
        asSet,
      });
      from = daysAgo;
      sequence += 1;
    }
    await this.#db('rechecks').insert({
      ...this.#due(buildId, sequence, from, after),
      status: ended ? 'dropped' : 'planned',
    });
  }

  #due(buildId: string, sequence: number, from: number, after: RecheckOutcome | null) {
    const usage = this.#usageAt(from);
    return {
      build_id: buildId,
      engine_id: this.#engineId,
      ...dueColumns(this.#sheet.recheckPlan, sequence, { day: this.#day(from), usage, cycles: 0, after }),
    };
  }

  async #tellRecheck(
    buildId: string,
    build: DemoBuild,
    after: RecheckOutcome | null,
    at: {
      readonly sequence: number;
      readonly from: number;
      readonly daysAgo: number;
      readonly signedOffDaysAgo: number;
      readonly asSet: ReadonlyMap<string, Tenths>;
    },
  ): Promise<RecheckOutcome> {
    const ran = at.signedOffDaysAgo - at.daysAgo;
    const gaps = this.#gaps.afterRunning(build, at.asSet, ran);
    const out = this.#points.some((point) => {
      const { min, max } = this.#gaps.limits(point.role);
      const lo = Math.floor(gaps.get(point.key)! / BLADE_STEP) * BLADE_STEP;
      return judge({ lo, hi: lo + BLADE_STEP }, { min, max }).verdict !== 'in-spec';
    });
    const [recheck] = await this.#db('rechecks')
      .insert({
        ...this.#due(buildId, at.sequence, at.from, after),
        status: 'done',
        outcome: out ? 'out' : 'held',
        done_at: this.#ago(at.daysAgo),
        done_by: this.#cast.bench,
      })
      .returning('id');
    const round = await this.#round(buildId, 'recheck', at.sequence, at.daysAgo, true, recheck!.id);
    await this.#measure(round, gaps, 1, at.daysAgo);
    return out ? 'out' : 'held';
  }
}
