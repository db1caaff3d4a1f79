import { startSimulatedGauge } from './simulator.ts';

const DEFAULT_PORT = 4519;
const port = Number(process.env.GAUGE_PORT ?? DEFAULT_PORT);

try {
  const gauge = await startSimulatedGauge(port);
  process.stdout.write(`A simulated gauge listens at 127.0.0.1:${gauge.port}\n`);
  const stop = () => void gauge.stop();
  process.once('SIGINT', stop);
  process.once('SIGTERM', stop);
} catch (error) {
  if ((error as { code?: string }).code !== 'EADDRINUSE') throw error;
  process.stderr.write(`Port ${port} is taken: a gauge may be running already. GAUGE_PORT uses another.\n`);
  // starting again mends nothing: see the supervisor
  process.exit(78);
}
