import { startSimulatedFeed } from './simulator.ts';

const DEFAULT_PORT = 4529;
const HOUR_MS = 3_600_000;
const port = Number(process.env.METER_PORT ?? DEFAULT_PORT);
const now = Date.now();

try {
  // of the demo world's meters one goes on as it should, one runs backwards, and one is of no engine
  const feed = await startSimulatedFeed(port, [
    { serial: 'Q4-2340', at: new Date(now - 2 * HOUR_MS).toISOString(), usage: 962.5, heatCycles: 31 },
    { serial: 'Q4-2302', at: new Date(now - HOUR_MS).toISOString(), usage: 14.2 },
    { serial: 'X9-0001', at: new Date(now - HOUR_MS).toISOString(), usage: 88 },
  ]);
  process.stdout.write(`A simulated meter feed listens at 127.0.0.1:${feed.port}\n`);
  const stop = () => void feed.stop();
  process.once('SIGINT', stop);
  process.once('SIGTERM', stop);
} catch (error) {
  if ((error as { code?: string }).code !== 'EADDRINUSE') throw error;
  process.stderr.write(`Port ${port} is taken: a feed may be running already. METER_PORT uses another.\n`);
  // starting again mends nothing: see the supervisor
  process.exit(78);
}
