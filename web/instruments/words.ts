import type { InstrumentKind } from '@zero-lash/contract/instruments';

/** What each kind of instrument is called. */
export const KIND_WORDS: Readonly<Record<InstrumentKind, string>> = {
  'blade-set': 'blade set',
  indicator: 'indicator',
  micrometer: 'micrometer',
  caliper: 'caliper',
  'digital-gauge': 'digital gauge',
  'torque-wrench': 'torque wrench',
};
