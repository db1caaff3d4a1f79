import { ensurePackages } from './packages.mjs';

ensurePackages();
const { register } = await import('tsx/esm/api');
register();
await import('../core/shell.ts');
