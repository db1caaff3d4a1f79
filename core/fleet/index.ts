export { normalBelow } from './normal.ts';
export { fleetPrior, type FleetPrior, type FleetPriorInput } from './prior.ts';
export { unlike, type Unlike, type UnlikeInput } from './unlike.ts';
