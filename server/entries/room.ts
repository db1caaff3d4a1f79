import { rowsById, type RoomDefinition } from '../builds/registry.ts';
import { readEntries, type EntryRoom } from './read.ts';

const entries = <Name extends EntryRoom>(room: Name) =>
  rowsById((db, build, id) => readEntries(db, build, room, id));

const [ofWear, ofHeadWork, ofLedger, ofRan] = [
  entries('wear'),
  entries('headwork'),
  entries('ledger'),
  entries('ran'),
];

/** The wear sheet of a build. */
export const wear: RoomDefinition<'wear'> = { read: ofWear.read, kinds: { wear: ofWear.kind } };
/** What is planned and done at its head. */
export const headwork: RoomDefinition<'headwork'> = {
  read: ofHeadWork.read,
  kinds: { headwork: ofHeadWork.kind },
};
/** What was counted out of it. */
export const ledger: RoomDefinition<'ledger'> = { read: ofLedger.read, kinds: { ledger: ofLedger.kind } };
/** How the engine ran since. */
export const ran: RoomDefinition<'ran'> = { read: ofRan.read, kinds: { ran: ofRan.kind } };
