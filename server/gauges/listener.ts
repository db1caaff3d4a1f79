import { connect as connectTcp, type Socket } from 'node:net';
import type { SimulatedGauge } from '@zero-lash/contract/instruments';
import type { Knex } from 'knex';
import type { LiveBus } from '../live/bus.ts';
import { readGaugeLine } from './protocol.ts';

const RETRY_MS = 1500;
const MOST_LINE = 200;

/** How one gauge is reached from this process. */
export interface GaugeLink {
  readonly instrument: string;
  readonly connected: boolean;
  readonly simulated: boolean;
}

/** Listens to the gauges the shop has, and passes what they say to the device that holds each. */
export class GaugeListener {
  readonly #db: Knex;
  readonly #bus: LiveBus;
  readonly #lines = new Map<string, GaugeLine>();
  #leave: (() => void) | null = null;

  constructor(db: Knex, bus: LiveBus) {
    this.#db = db;
    this.#bus = bus;
  }

  async start(): Promise<void> {
    this.#leave = await this.#bus.subscribe(({ kind }) => {
      if (kind === 'tools') void this.#readGauges();
    });
    await this.#readGauges();
  }

  stop(): void {
    this.#leave?.();
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
    const gauges = await this.#db('instruments')
      .where({ kind: 'digital-gauge', active: true })
      .select('id', 'address');
    const wanted = new Map<string, string>(gauges.map(({ id, address }) => [id, address]));
    for (const [id, line] of this.#lines) {
      if (wanted.get(id) === line.address) continue;
      line.end();
      this.#lines.delete(id);
    }
    for (const [id, address] of wanted)
      if (!this.#lines.has(id))
        this.#lines.set(id, new GaugeLine(address, (said) => void this.#pass(id, said)));
  }

  async #pass(instrument: string, said: Said): Promise<void> {
    if (said.kind === 'link') {
      this.#bus.tellHere({ kind: 'gauge-link', instrument, connected: said.connected });
      return;
    }
    const hold = await this.#db('gauge_holds')
      .where({ instrument_id: instrument })
      .where('until', '>', this.#db.fn.now())
      .first('device');
    if (!hold) return;
    const { value, text, trouble } = said;
    this.#bus.tellHere({ kind: 'gauge', instrument, device: hold.device, value, text, trouble });
  }
}

type Said =
  | { readonly kind: 'link'; readonly connected: boolean }
  | {
      readonly kind: 'press';
      readonly value: number | null;
      readonly text: string;
      readonly trouble: 'none' | 'unreadable' | 'lost-before';
    };

/** The line to one gauge, taken up again whenever it is lost. */
class GaugeLine {
  readonly address: string;
  connected = false;
  simulated = false;
  readonly #say: (said: Said) => void;
  #socket: Socket | null = null;
  #retry: NodeJS.Timeout | null = null;
  #ended = false;
  #lastPress: number | null = null;

  constructor(address: string, say: (said: Said) => void) {
    this.address = address;
    this.#say = say;
    this.#connect();
  }

  send(line: string): void {
    this.#socket?.write(`${line}\n`);
  }

  end(): void {
    this.#ended = true;
    if (this.#retry) clearTimeout(this.#retry);
    this.#socket?.destroy();
  }

  #connect(): void {
    const [host, port] = this.address.split(':');
    const socket = connectTcp({ host: host!, port: Number(port) });
    this.#socket = socket;
    let rest = '';
    socket.setEncoding('utf8');
    socket.on('data', (chunk: string) => {
      const lines = (rest + chunk).split('\n');
      rest = lines.pop()!.slice(-MOST_LINE);
      for (const line of lines) this.#hear(line);
    });
    socket.on('error', () => socket.destroy());
    socket.once('close', () => {
      if (this.connected) this.#say({ kind: 'link', connected: false });
      this.connected = false;
      this.#lastPress = null;
      if (!this.#ended) this.#retry = setTimeout(() => this.#connect(), RETRY_MS).unref();
    });
  }

  #hear(line: string): void {
    const said = readGaugeLine(line);
    if (said.kind === 'greeting') {
      this.connected = true;
      this.simulated = said.simulated;
      this.#say({ kind: 'link', connected: true });
      return;
    }
    if (said.kind === 'unreadable') {
      if (this.#lastPress !== null) this.#lastPress += 1;
      this.#say({ kind: 'press', value: null, text: said.text, trouble: 'unreadable' });
      return;
    }
    const lost = this.#lastPress !== null && said.press > this.#lastPress + 1;
    this.#lastPress = said.press;
    this.#say({ kind: 'press', value: said.mm, text: said.text, trouble: lost ? 'lost-before' : 'none' });
  }
}
