import { headRows, noteRows, noteWrite, tickRows, tickWrite } from '../builds/room.ts';
import { registerRooms } from '../builds/rooms.ts';
import { headWorkRows, headWorkWrite } from '../headwork/room.ts';
import { knowHowRows, knowHowWrite } from '../knowHow/room.ts';
import { conditionsWrite, readingWrite, roundRows } from '../measuring/room.ts';
import { ledgerRows, ledgerWrite, patternPartsRows, patternPartsWrite } from '../parts/room.ts';
import { photographDropped, photographRows, photographWrite } from '../photographs/room.ts';
import { ranRows, ranWrite } from '../ran/room.ts';
import { recheckRows, roundWrite } from '../rechecks/room.ts';
import { settingRows, settingTakenBack, settingWrite } from '../setting/room.ts';
import { turningWrite } from '../turning/room.ts';
import { wearRows, wearWrite } from '../wear/room.ts';

/** Every room of a build, each with its own definition; a build itself knows none of them. */
registerRooms({
  rows: {
    head: headRows,
    rounds: roundRows,
    settings: settingRows,
    ticks: tickRows,
    notes: noteRows,
    rechecks: recheckRows,
    wear: wearRows,
    headwork: headWorkRows,
    ledger: ledgerRows,
    ran: ranRows,
    photographs: photographRows,
    'know-how': knowHowRows,
    'pattern-parts': patternPartsRows,
  },
  writes: {
    reading: readingWrite,
    conditions: conditionsWrite,
    turning: turningWrite,
    setting: settingWrite,
    'setting-taken-back': settingTakenBack,
    tick: tickWrite,
    note: noteWrite,
    wear: wearWrite,
    headwork: headWorkWrite,
    ledger: ledgerWrite,
    ran: ranWrite,
    photograph: photographWrite,
    'photograph-dropped': photographDropped,
    'know-how': knowHowWrite,
    'pattern-parts': patternPartsWrite,
    round: roundWrite,
  },
});
