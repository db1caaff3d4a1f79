import { Check, CloudOff, Send } from 'lucide-react';
import { useState } from 'react';
import { useAppSelector } from './store.ts';
import { useSession } from './useSession.ts';

/**
 * Says, on every page, what this device still holds and whether the server is reached. The line has its place and its height
 * whatever it says: nothing above it moves under a finger while something is sent. Tapped, it is read in full over the page.
 */
export function OutboxStrip() {
  const { items, reached } = useAppSelector((state) => state.outbox);
  const [full, setFull] = useState(false);
  const waiting = items.filter(({ refused }) => refused === null);
  const refused = items.filter(({ refused: why }) => why !== null);
  const me = useSession()?.person.id;
  const others = [...new Set(waiting.filter(({ personId }) => personId !== me).map(({ by }) => by))];
  const quiet = reached && items.length === 0;
  // opened for what it said: what comes later does not lie over the page by itself
  if (quiet && full) setFull(false);
  const Sign = quiet ? Check : reached ? Send : CloudOff;
  return (
    <div className="outbox" data-quiet={quiet || undefined}>
      {!quiet && (
        <button
          type="button"
          className="outbox-line"
          aria-expanded={full}
          aria-label="What this device holds, in full"
          onClick={() => setFull(!full)}
        />
      )}
      <div className={full ? 'outbox-said outbox-full' : 'outbox-said'}>
        <Sign size={16} aria-hidden />
        <div role="status">
          {refused.length > 0 && `Refused, ${refused.length}: ${whereItSays(refused)} why. `}
          {!reached && 'The server is not reached. Go on: what you do at the bench is kept on this device. '}
          {waiting.length > 0 && `Waiting to be sent, ${waiting.length}: ${namesOf(waiting)}. `}
          {others.map((name) => `What ${name} did is sent when ${name} signs in here again. `)}
        </div>
        {quiet && 'All sent.'}
      </div>
    </div>
  );
}

/** Where what was refused says so: in its build, or on the page of the meters. */
function whereItSays(refused: readonly { readonly buildId: string }[]): string {
  const ofMeters = refused.filter(({ buildId }) => buildId === '').length;
  if (ofMeters === 0) return 'the build says';
  return ofMeters === refused.length ? 'Usage says' : 'the build and Usage say';
}

const SHOWN = 8;

function namesOf(items: readonly { readonly about: string }[]): string {
  const names = [...new Set(items.map(({ about }) => about))];
  return names.length > SHOWN ? `${names.slice(0, SHOWN).join(', ')} …` : names.join(', ');
}
