import { sourceOf } from '../source.ts';
import * as people from './001-people.ts';
import * as sheets from './002-sheets.ts';
import * as engines from './003-engines.ts';
import * as builds from './004-builds.ts';
import * as turning from './005-turning.ts';
import * as instruments from './006-instruments.ts';
import * as doors from './007-doors.ts';
import * as running from './008-running.ts';
import * as drafts from './009-drafts.ts';
import * as lists from './010-lists.ts';
import * as rooms from './011-rooms.ts';
import * as setAgain from './012-set-again.ts';
import * as letStand from './013-let-stand.ts';
import * as openHead from './014-open-head.ts';
import * as atHand from './015-at-hand.ts';
import * as drawer from './016-drawer.ts';
import * as setting from './017-setting.ts';
import * as rechecks from './018-rechecks.ts';
import * as ownPlans from './019-own-plans.ts';
import * as judgedBy from './020-judged-by.ts';
import * as shopAddress from './021-shop-address.ts';
import * as notHeldLetters from './022-not-held-letters.ts';
import * as takenBack from './023-taken-back.ts';
import * as fromElsewhere from './024-from-elsewhere.ts';
import * as time from './025-time.ts';
import * as late from './026-late.ts';
import * as writeTries from './027-write-tries.ts';
import * as feedsUnkept from './028-feeds-unkept.ts';
import * as lettersSent from './029-letters-sent.ts';
import * as triesInFlight from './030-tries-in-flight.ts';
import * as timeQuestions from './031-time-questions.ts';
import * as tickedBy from './032-ticked-by.ts';

const MIGRATIONS = {
  '001-people': people,
  '002-sheets': sheets,
  '003-engines': engines,
  '004-builds': builds,
  '005-turning': turning,
  '006-instruments': instruments,
  '007-doors': doors,
  '008-running': running,
  '009-drafts': drafts,
  '010-lists': lists,
  '011-rooms': rooms,
  '012-set-again': setAgain,
  '013-let-stand': letStand,
  '014-open-head': openHead,
  '015-at-hand': atHand,
  '016-drawer': drawer,
  '017-setting': setting,
  '018-rechecks': rechecks,
  '019-own-plans': ownPlans,
  '020-judged-by': judgedBy,
  '021-shop-address': shopAddress,
  '022-not-held-letters': notHeldLetters,
  '023-taken-back': takenBack,
  '024-from-elsewhere': fromElsewhere,
  '025-time': time,
  '026-late': late,
  '027-write-tries': writeTries,
  '028-feeds-unkept': feedsUnkept,
  '029-letters-sent': lettersSent,
  '030-tries-in-flight': triesInFlight,
  '031-time-questions': timeQuestions,
  '032-ticked-by': tickedBy,
} as const;

/** The names under which these steps are recorded. */
export const EARLIER_NAMES: readonly string[] = Object.keys(MIGRATIONS);

/** The steps by which databases came to the first schema that were begun before it was written down as one, in order. */
export const earlierSource = sourceOf(MIGRATIONS);
