import type { SheetRevision } from '@zero-lash/contract/sheets';
import { lashPoints, resolveBand, type LashPoint } from '@zero-lash/core/sheets';
import { tenthsFromMm, type Tenths } from '@zero-lash/core/length';
import { limitsFromMm, type Limits } from '@zero-lash/core/measuring';
import { aimFor } from '@zero-lash/core/setting';
import type { DemoBuild } from './world.ts';

/** The step between the blades of the demo bench. */
export const BLADE_STEP: Tenths = 100;
const CLOSED_UP_MM = 0.045;

/** A small seeded generator, so that the demo is the same every time it is loaded. */
function seeded(seed: number): () => number {
  let state = (seed * 2654435761) >>> 0;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}

/** The gaps of a demo engine as they truly are: found, set, and moved by running. */
export class DemoGaps {
  readonly random: () => number;
  readonly #sheet: SheetRevision;
  readonly #points: readonly LashPoint[];

  constructor(sheet: SheetRevision, seed: number) {
    this.random = seeded(seed);
    this.#sheet = sheet;
    this.#points = lashPoints(sheet.pattern);
  }

  target({ role }: LashPoint): Tenths {
    return aimFor('middle', role, this.limits(role));
  }

  limits(role: string): Limits {
    const printed = this.#sheet.limits.find((limit) => limit.role === role)!;
    return limitsFromMm(resolveBand(printed, null));
  }

  asFound(point: LashPoint, build: DemoBuild): Tenths {
    const told = build.found?.[point.key];
    if (told !== undefined) return tenthsFromMm(told);
    const hot = point.role === 'exhaust' ? 1 : 0.4;
    const times = build.runaway?.point === point.key ? build.runaway.times : 1;
    // an engine that came in to be rebuilt had closed up before; its drift is what it did after
    const closedUp = build.signedOffDaysAgo === undefined ? (build.drift ?? 0.02) : CLOSED_UP_MM;
    const moved = closedUp * 10_000 * hot * times;
    return Math.max(150, this.target(point) - moved + (this.random() - 0.5) * 500);
  }

  asSet(): Map<string, Tenths> {
    return new Map(
      this.#points.map((point) => {
        const { min, max } = this.limits(point.role);
        return [point.key, this.target(point) + (this.random() - 0.5) * (max - min) * 0.3];
      }),
    );
  }

  installed(): Tenths {
    return 24_000 + Math.round(this.random() * 10) * 500;
  }

  afterRunning(build: DemoBuild, asSet: ReadonlyMap<string, Tenths>, ranDays: number): Map<string, Tenths> {
    return new Map(
      this.#points.map((point) => {
        const hot = point.role === 'exhaust' ? 1 : 0.3;
        const times = build.runaway?.point === point.key ? build.runaway.times : 1;
        const moved = (build.drift ?? 0) * 10_000 * hot * times * (ranDays / 100 + 0.3);
        return [point.key, asSet.get(point.key)! - moved + (this.random() - 0.5) * 60];
      }),
    );
  }
}
