import { ensurePackages } from './packages.mjs';
import { startGauge } from './server.mjs';
import { keepRunning, toldToStop } from './supervise.mjs';

const told = toldToStop();
ensurePackages();
const gauge = keepRunning('The simulated gauge', () => startGauge(process.env.GAUGE_PORT ?? 4519, 'inherit'));
const code = await Promise.race([gauge.ended, told.then(() => 0)]);
await gauge.stop();
process.exit(code);
