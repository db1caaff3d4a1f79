import { ensurePackages } from './packages.mjs';
import { startGauge, stopWithParent } from './server.mjs';

ensurePackages();
process.exitCode = await stopWithParent(startGauge(process.env.GAUGE_PORT ?? 4519, 'inherit'));
