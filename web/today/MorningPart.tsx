import type { Morning, WaitsFor } from '@zero-lash/contract/morning';
import { useId, type ReactNode } from 'react';
import { Link } from 'react-router';
import { PartHeading } from '../app/Page.tsx';
import { useShopTimes } from '../app/useShopTimes.ts';
import { ShopTime } from '../app/ShopTime.tsx';
import { useRole } from '../app/useRole.ts';
import { useMarkLookedMutation, useMorningQuery } from './endpoints.ts';

const WAITS: Readonly<Record<WaitsFor, string>> = {
  lead: 'a lead to sign',
  parts: 'parts',
  cold: 'a cold engine',
  'second-look': 'a second look',
  device: 'an answer on the device it was written on',
};

/** What waits, and what changed since this person last looked. It comes after the rest of the page is there. */
export default function MorningPart() {
  const { data } = useMorningQuery(undefined, { refetchOnMountOrArgChange: true });
  const times = useShopTimes();
  const [looked, { isLoading }] = useMarkLookedMutation();
  const { mayLead } = useRole();
  if (!data) return null;
  const waiting = data.waits.length > 0 || data.questions > 0 || data.unsent > 0;
  if (!waiting && data.changed.length === 0) return null;
  return (
    <section className="today-morning" aria-label="This morning">
      {waiting && (
        <div>
          <PartHeading>Waiting for</PartHeading>
          <ul>
            {data.questions > 0 && (
              <li>
                <Link to="/usage" className="zl-row today-build">
                  <b>Meters</b>
                  <span>
                    {data.questions === 1
                      ? 'one line of the meter feed needs an answer'
                      : `${data.questions} lines of the meter feed need an answer`}
                  </span>
                </Link>
              </li>
            )}
            {data.unsent > 0 && (
              <li>
                <Link to="/rechecks#letters" className="zl-row today-build">
                  <b>Mail</b>
                  <span>
                    {data.unsent === 1 ? 'one letter' : `${data.unsent} letters`} could not be sent yet: see
                    why
                  </span>
                </Link>
              </li>
            )}
            {data.waits.map(({ for: what, path, engine, text }) => (
              <li key={`${what} ${path} ${text}`}>
                <Row engine={engine} path={path}>
                  waits for {what === 'lead' && mayLead ? 'your signature' : WAITS[what]}: {text}
                </Row>
              </li>
            ))}
          </ul>
        </div>
      )}
      {data.changed.length > 0 && (
        <div>
          <PartHeading>
            {data.since ? (
              <>
                Changed since you looked, <ShopTime at={data.since} />
              </>
            ) : (
              'Changed this week'
            )}
          </PartHeading>
          {byDayAndPerson(data.changed, times.day).map(({ day, by, changes }) => (
            <section key={`${day} ${by}`} aria-label={`${by}, ${day}`}>
              <h3>
                {by}, {day}
              </h3>
              <ul>
                {changes.map(({ at, engine, text, path }) => (
                  <li key={`${at} ${path} ${text}`}>
                    <Row engine={engine} path={path}>
                      {text}, <ShopTime at={at} />
                    </Row>
                  </li>
                ))}
              </ul>
            </section>
          ))}
          <button type="button" className="today-seen" disabled={isLoading} onClick={() => void looked()}>
            Mark as read
          </button>
        </div>
      )}
    </section>
  );
}

/** What others did, each person's of each day together: the newest day first, and who did something last. */
function byDayAndPerson(changed: Morning['changed'], dayOf: (moment: string) => string) {
  const groups: { day: string; by: string; changes: Morning['changed'][number][] }[] = [];
  const days = [...new Set(changed.map(({ at }) => dayOf(at)))];
  for (const day of days)
    for (const change of changed.filter(({ at }) => dayOf(at) === day)) {
      const known = groups.find((group) => group.day === day && group.by === change.by);
      if (known) known.changes.push(change);
      else groups.push({ day, by: change.by, changes: [change] });
    }
  return groups;
}

interface RowProps {
  readonly engine: string;
  readonly path: string;
  readonly children: ReactNode;
}

/** One line of news, with the way there behind it: the engine's own link on this page is the one on the bench. */
function Row({ engine, path, children }: RowProps) {
  const id = useId();
  return (
    <div className="today-news">
      <div id={id}>
        <b>{engine}</b>
        <span>{children}</span>
      </div>
      <Link to={path} className="zl-tool" aria-describedby={id}>
        Open
      </Link>
    </div>
  );
}
