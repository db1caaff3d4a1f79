import { createServer, type Socket } from 'node:net';

/** How a simulated gauge is at the moment; lengths in mm. */
interface Nature {
  gap: number;
  noise: number;
  drift: number;
  unit: 'mm' | 'in';
  dropOuts: number;
}

const MM_PER_INCH = 25.4;
const MOST_LINE = 200;

/** A simulated gauge as it runs. */
export interface SimulatedGaugeServer {
  readonly port: number;
  /** how often its button was pressed */
  readonly presses: () => number;
  readonly stop: () => Promise<void>;
}

/**
 * A simulated digital gauge: speaks the bench gauge line protocol over TCP on loopback and takes `SIM` lines that say
 * what it is held in and what is wrong with it.
 *
 * @param chance gives a number from 0 to under 1; a seeded one makes its noise repeatable
 * @returns the server, listening; its port where 0 was asked for
 */
export async function startSimulatedGauge(
  port: number,
  name = 'Bench gauge',
  chance: () => number = Math.random,
): Promise<SimulatedGaugeServer> {
  const nature: Nature = { gap: 0.15, noise: 0.001, drift: 0, unit: 'mm', dropOuts: 0 };
  const listeners = new Set<Socket>();
  let presses = 0;

  function press(): void {
    presses += 1;
    const line = `V ${presses} ${written()}\n`;
    const fate = chance();
    // of what goes wrong, half is never sent and half is cut off on its way
    if (fate < nature.dropOuts / 2) return;
    const sent = fate < nature.dropOuts ? `${line.slice(0, Math.ceil(line.length / 2))}\n` : line;
    for (const socket of listeners) socket.write(sent);
  }

  function written(): string {
    const mm = Math.max(0, nature.gap + nature.drift + nature.noise * normal(chance));
    return nature.unit === 'mm' ? `${mm.toFixed(3)} mm` : `${(mm / MM_PER_INCH).toFixed(5)} in`;
  }

  function obey(line: string): void {
    const [word, what, value = ''] = line.trim().split(/\s+/);
    if (word !== 'SIM') return;
    if (what === 'press') return press();
    if (what === 'unit' && (value === 'mm' || value === 'in')) nature.unit = value;
    if (what === 'gap' || what === 'noise' || what === 'drift' || what === 'dropOuts') {
      const figure = Number(value);
      if (Number.isFinite(figure)) nature[what] = figure;
    }
  }

  const server = createServer((socket) => {
    listeners.add(socket);
    let rest = '';
    socket.setEncoding('utf8');
    socket.write(`ZLG 1 ${name} simulated\n`);
    socket.on('data', (chunk: string) => {
      const lines = (rest + chunk).split('\n');
      rest = lines.pop()!.slice(-MOST_LINE);
      lines.forEach(obey);
    });
    socket.on('error', () => socket.destroy());
    socket.once('close', () => listeners.delete(socket));
  });
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', resolve);
  });
  const address = server.address();
  return {
    presses: () => presses,
    port: typeof address === 'object' && address ? address.port : port,
    stop: () =>
      new Promise((resolve) => {
        for (const socket of listeners) socket.destroy();
        server.close(() => resolve());
      }),
  };
}

/** One draw of a normal distribution, by the sum of twelve even ones. */
function normal(chance: () => number): number {
  return Array.from({ length: 12 }, chance).reduce((sum, draw) => sum + draw, -6);
}
