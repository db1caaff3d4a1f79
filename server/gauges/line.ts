import { connect as connectTcp, type Socket } from 'node:net';
import type { Place } from '@zero-lash/contract/places';
import { readGaugeLine } from './protocol.ts';

const FIRST_RETRY_MS = 1500;
const LONGEST_RETRY_MS = 60_000;
/** A connection that held this long was a good one: after it, retries begin with the short pause again. */
const GOOD_AFTER_MS = 10_000;
const GREETS_WITHIN_MS = 5000;
const ALIVE_EVERY_MS = 10_000;
const MOST_LINE = 200;
/** Lines in one second: more than this no hand presses, and the line is hung up on. */
const MOST_A_SECOND = 40;

/** One press of a gauge's button: its value in mm, or null where the line could not be read. */
export interface Press {
  readonly kind: 'press';
  readonly value: number | null;
  readonly text: string;
  readonly trouble: 'none' | 'unreadable' | 'lost-before';
}

/** What one gauge says. */
export type Said = { readonly kind: 'link'; readonly connected: boolean } | Press;

/** The line to one gauge, taken up again whenever it is lost: later and later while it does not hold. */
export class GaugeLine {
  readonly place: Place;
  connected = false;
  simulated = false;
  readonly #say: (said: Said) => void;
  readonly #greetsWithinMs: number;
  #socket: Socket | null = null;
  #retry: NodeJS.Timeout | null = null;
  #retryMs = FIRST_RETRY_MS;
  #ended = false;
  #lastPress: number | null = null;
  #missed = false;
  #second = 0;
  #linesThisSecond = 0;

  constructor(place: Place, say: (said: Said) => void, greetsWithinMs = GREETS_WITHIN_MS) {
    this.place = place;
    this.#say = say;
    this.#greetsWithinMs = greetsWithinMs;
    this.#connect();
  }

  send(line: string): void {
    this.#socket?.write(`${line}\n`);
  }

  /** The last press could not be passed on: the next one says that one was lost before it. */
  missed(): void {
    this.#missed = true;
  }

  end(): void {
    this.#ended = true;
    if (this.#retry) clearTimeout(this.#retry);
    this.#socket?.destroy();
  }

  #connect(): void {
    const { host, port } = this.place;
    const socket = connectTcp({ host, port });
    this.#socket = socket;
    let rest = '';
    let since = Infinity;
    socket.setEncoding('utf8');
    // whatever is there greets in time, or is no gauge; one whose cable is pulled out says nothing more, and is asked for
    const late = setTimeout(() => this.connected || socket.destroy(), this.#greetsWithinMs).unref();
    socket.setKeepAlive(true, ALIVE_EVERY_MS);
    socket.once('connect', () => {
      since = Date.now();
    });
    socket.on('data', (chunk: string) => {
      const lines = (rest + chunk).split('\n');
      rest = lines.pop()!;
      for (const line of lines) {
        if (this.#babbles()) {
          socket.destroy();
          return;
        }
        this.#hear(line.slice(0, MOST_LINE));
      }
      // no line of a gauge is so long: it is hung up on, and nothing of it is kept
      if (rest.length > MOST_LINE) socket.destroy();
    });
    socket.on('error', () => socket.destroy());
    socket.once('close', () => {
      clearTimeout(late);
      if (this.connected) this.#say({ kind: 'link', connected: false });
      this.connected = false;
      this.#lastPress = null;
      const held = Date.now() - since >= GOOD_AFTER_MS;
      this.#retryMs = held ? FIRST_RETRY_MS : Math.min(this.#retryMs * 2, LONGEST_RETRY_MS);
      if (!this.#ended) this.#retry = setTimeout(() => this.#connect(), this.#retryMs).unref();
    });
  }

  /** Whether more lines came within a second than any hand can press. */
  #babbles(): boolean {
    const second = Math.floor(Date.now() / 1000);
    this.#linesThisSecond = second === this.#second ? this.#linesThisSecond + 1 : 1;
    this.#second = second;
    return this.#linesThisSecond > MOST_A_SECOND;
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
    const lost = this.#missed || (this.#lastPress !== null && said.press > this.#lastPress + 1);
    this.#missed = false;
    this.#lastPress = said.press;
    this.#say({ kind: 'press', value: said.mm, text: said.text, trouble: lost ? 'lost-before' : 'none' });
  }
}
