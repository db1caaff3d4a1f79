export { folded } from './folded.ts';
export { normalBelow } from './normal.ts';
export { fleetPrior, type FleetPrior, type FleetPriorInput } from './prior.ts';
export {
  calibrationOf,
  intervalSays,
  LEAST_ENGINES,
  wasInside,
  type Calibration,
  type Finding,
  type IntervalSays,
} from './says.ts';
export { unlike, type Unlike, type UnlikeInput } from './unlike.ts';
