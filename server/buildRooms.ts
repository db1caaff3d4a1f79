import { registerRooms } from './builds/registry.ts';
import { headwork, ledger, ran, wear } from './entries/room.ts';
import { knowHow } from './knowHow/room.ts';
import { rounds } from './measuring/room.ts';
import { patternParts } from './parts/room.ts';
import { photographs } from './photographs/room.ts';
import { rechecks } from './rechecks/room.ts';
import { settings } from './setting/room.ts';
import { notes, ticks } from './stages/room.ts';

registerRooms({
  rounds,
  settings,
  ticks,
  notes,
  rechecks,
  wear,
  headwork,
  ledger,
  ran,
  photographs,
  'know-how': knowHow,
  'pattern-parts': patternParts,
});
