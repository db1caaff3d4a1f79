import type { SimulatedGauge } from '@zero-lash/contract/instruments';
import type { FastifyBaseLogger } from 'fastify';
import type { Knex } from 'knex';
import { everySoOften, inBackground } from '../background.ts';
import type { LiveBus } from '../plugins/bus.ts';
import { allowsNetwork, reachable } from './address.ts';
import { GaugeLine, type Press, type Said } from './line.ts';

/** How often the gauges are read again even where nothing was told of them: the first time, and after a loss. */
const READ_EVERY_MS = 5000;
/** A press that took longer than this to be passed on is not what the person sees any more. */
const TOO_LATE_MS = 2000;

/** How one gauge is reached from this process. */
export interface GaugeLink {
  readonly instrument: string;
  readonly connected: boolean;
  readonly simulated: boolean;
}

/**
 * Listens to the gauges the shop has, and passes what they say to the device that holds each. Whatever one gauge does,
 * or is written down as, is between it and its own line.
 */
export class GaugeListener {
  readonly #db: Knex;
  readonly #bus: LiveBus;
  readonly #log: FastifyBaseLogger;
  readonly #lines = new Map<string, GaugeLine>();
  readonly #endings: (() => void)[] = [];

  constructor(db: Knex, bus: LiveBus, log: FastifyBaseLogger) {
    this.#db = db;
    this.#bus = bus;
    this.#log = log;
  }

  start(): void {
    this.#endings.push(
      this.#bus.subscribe((event) => {
        if (event.kind === 'changed' && event.topics.includes('tools'))
          inBackground(this.#log, 'reading the gauges', this.#readGauges());
      }),
      everySoOften(this.#log, 'reading the gauges', READ_EVERY_MS, () => this.#readGauges()),
    );
  }

  stop(): void {
    for (const end of this.#endings.splice(0)) end();
    for (const line of this.#lines.values()) line.end();
    this.#lines.clear();
  }

  links(): GaugeLink[] {
    return [...this.#lines].map(([instrument, { connected, simulated }]) => ({
      instrument,
      connected,
      simulated,
    }));
  }

  /** Tells a simulated gauge what to be like; false where it is not reached or is a real one. */
  simulate(instrument: string, nature: SimulatedGauge, press: boolean): boolean {
    const line = this.#lines.get(instrument);
    if (!line?.connected || !line.simulated) return false;
    for (const [what, value] of Object.entries(nature)) line.send(`SIM ${what} ${value}`);
    if (press) line.send('SIM press');
    return true;
  }

  async #readGauges(): Promise<void> {
    const onNetwork = await allowsNetwork(this.#db);
    const gauges = await this.#db('instruments')
      .where({ kind: 'digital-gauge', active: true })
      .select<{ id: string; address: string }[]>('id', 'address');
    if (this.#endings.length === 0) return;
    const wanted = new Map(gauges.map(({ id, address }) => [id, reachable(address, onNetwork)]));
    for (const [id, line] of this.#lines) {
      const place = wanted.get(id);
      if (place && place.host === line.place.host && place.port === line.place.port) continue;
      line.end();
      this.#lines.delete(id);
    }
    for (const [id, place] of wanted)
      if (place && !this.#lines.has(id))
        this.#lines.set(id, new GaugeLine(place, (said) => this.#hear(id, said)));
  }

  #hear(instrument: string, said: Said): void {
    if (said.kind === 'link') {
      this.#bus.tellHere({ kind: 'gauge-link', instrument, connected: said.connected });
      return;
    }
    const missed = () => this.#lines.get(instrument)?.missed();
    // with the database away no device's stream is open either
    if (!this.#bus.linked) return missed();
    inBackground(
      this.#log,
      'passing a press on',
      this.#pass(instrument, said).catch((error: unknown) => {
        missed();
        throw error;
      }),
    );
  }

  async #pass(instrument: string, { value, text, trouble }: Press): Promise<void> {
    const heardAt = Date.now();
    const hold = await this.#db('gauge_holds')
      .where({ instrument_id: instrument })
      .where('until', '>', this.#db.fn.now())
      .first('device');
    // one that had to wait for the database might land in another point by now
    if (Date.now() - heardAt > TOO_LATE_MS) throw new Error('a press waited too long to be passed on');
    if (hold) this.#bus.tellHere({ kind: 'gauge', instrument, device: hold.device, value, text, trouble });
  }
}
