import { ensurePackages } from './packages.mjs';
import { startMeters } from './server.mjs';
import { keepRunning, toldToStop } from './supervise.mjs';

const told = toldToStop();
ensurePackages();
const meters = keepRunning('The simulated meter feed', () =>
  startMeters(process.env.METER_PORT ?? 4529, 'inherit'),
);
const code = await Promise.race([meters.ended, told.then(() => 0)]);
await meters.stop();
process.exit(code);
