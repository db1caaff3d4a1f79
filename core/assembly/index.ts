export { boltPlaces, type BoltPlace } from './boltPlaces.ts';
export { boltsInRows, sequenceComplaint } from './boltRows.ts';
export { capPasses, passesLeft, passesOf, type Fastening, type Pass } from './passes.ts';
export { torqueWarning, type TorqueWarning } from './torqueWarning.ts';
export { assemblyLeft, type AssemblyStep } from './steps.ts';
export { tightenOrder, type TightenOrder, type TightenOrderInput } from './tightenOrder.ts';
export { torque, torqueShown, TORQUE_UNITS, type TorqueUnit } from './torque.ts';
export {
  parseTorqueSteps,
  wrenchesFor,
  type TorqueStep,
  type WrenchFor,
  type WrenchRange,
} from './torqueSteps.ts';
