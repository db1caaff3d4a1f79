export { boltPlaces, type BoltPlace } from './boltPlaces.ts';
export { tightenOrder, type TightenOrder, type TightenOrderInput } from './tightenOrder.ts';
export { torque, TORQUE_UNITS, type TorqueUnit } from './torque.ts';
