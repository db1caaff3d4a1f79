import type { WaitsFor } from '@zero-lash/contract/morning';
import { useId, type ReactNode } from 'react';
import { Link } from 'react-router';
import { PartHeading } from '../app/Page.tsx';
import { ShopTime } from '../app/ShopTime.tsx';
import { useMarkLookedMutation, useMorningQuery } from './endpoints.ts';

const WAITS: Readonly<Record<WaitsFor, string>> = {
  lead: 'a lead to sign',
  parts: 'parts',
  cold: 'a cold engine',
  'second-look': 'a second look',
  device: 'an answer on the device it was written on',
};

/** What waits for what, and what changed since this person last looked. It comes after the rest of the page is there. */
export default function MorningPart() {
  const { data } = useMorningQuery(undefined, { refetchOnMountOrArgChange: true });
  const [looked, { isLoading }] = useMarkLookedMutation();
  if (!data) return null;
  const waiting = data.waits.length > 0 || data.questions > 0 || data.unsent > 0;
  if (!waiting && data.changed.length === 0) return null;
  return (
    <section className="today-morning" aria-label="This morning">
      {waiting && (
        <div>
          <PartHeading>What waits for what</PartHeading>
          <ul>
            {data.questions > 0 && (
              <li>
                <Link to="/usage" className="zl-row today-build">
                  <b>Meters</b>
                  <span>
                    {data.questions === 1 ? 'one line' : `${data.questions} lines`} of the feed cannot be as{' '}
                    {data.questions === 1 ? 'it stands' : 'they stand'}: say what{' '}
                    {data.questions === 1 ? 'it is' : 'they are'}
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
                  waits for {WAITS[what]}: {text}
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
          <ul>
            {data.changed.map(({ at, by, engine, text, path }) => (
              <li key={`${at} ${path} ${text}`}>
                <Row engine={engine} path={path}>
                  {text}; {by}, <ShopTime at={at} />
                </Row>
              </li>
            ))}
          </ul>
          <button type="button" className="today-seen" disabled={isLoading} onClick={() => void looked()}>
            I have seen it
          </button>
        </div>
      )}
    </section>
  );
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
        Look
      </Link>
    </div>
  );
}
