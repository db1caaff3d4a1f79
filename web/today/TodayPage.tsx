import type { Today } from '@zero-lash/contract/today';
import { stageOf, RUNNING, buildInWords } from '@zero-lash/core/builds';
import { recheckDayInWords } from '@zero-lash/core/rechecks';
import { Link } from 'react-router';
import { agoInWords, dayInWords } from '../app/dates.ts';
import { grouped } from '../app/figures.ts';
import { Empty, Page, PartHeading } from '../app/Page.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { VerdictMark } from '../drawings/VerdictMark.tsx';
import { useAppSelector } from '../app/store.ts';
import { useRole } from '../app/useRole.ts';
import { useSession } from '../app/useSession.ts';
import { onDemand } from '../app/onDemand.tsx';
import { DueMark } from '../rechecks/DueMark.tsx';
import { useTodayQuery } from './endpoints.ts';
import './today.css';

const MorningPart = onDemand(async () => (await import('./MorningPart.tsx')).default);
const FirstSteps = onDemand(async () => (await import('./FirstSteps.tsx')).default);

/** How long an answer counts as fresh when the page is come back to. */
const FRESH_SECONDS = 5;

/** What is on the bench, stage by stage, and which rechecks are due. */
export default function TodayPage() {
  const guidePutAway = useAppSelector((state) => state.preferences.guidePutAway);
  const { data, error, refetch } = useTodayQuery(undefined, { refetchOnMountOrArgChange: FRESH_SECONDS });
  return (
    <Page
      title="Today"
      under={data && dayInWords(data.day)}
      actions={
        !guidePutAway && (
          <Link className="zl-tool" to="/guide">
            Your first day: a short guide
          </Link>
        )
      }
    >
      <ProblemNote error={error} onRetry={refetch} />
      {data && (
        <div className="today">
          <NotHeld today={data} />
          <ToCheck today={data} />
          <Bench today={data} />
          <DueList today={data} />
          <MorningPart />
        </div>
      )}
    </Page>
  );
}

/** Engines whose recheck did not hold stand before everything else, until they are set again. */
function NotHeld({ today }: { readonly today: Today }) {
  const { counts, list } = today.rechecks;
  const failed = list.filter(({ state }) => state === 'not-held');
  if (failed.length === 0) return null;
  return (
    <section className="today-not-held" aria-label="Did not hold">
      <PartHeading>Did not hold: set again</PartHeading>
      <ul>
        {failed.map((recheck) => (
          <li key={recheck.id}>
            <Link to={`/builds/${recheck.buildId}`} className="zl-row today-due">
              <VerdictMark state="conflict" size={22} />
              <span>
                <b>{recheck.engine}</b>
                <small>
                  {recheck.owner} ·{' '}
                  {recheck.late
                    ? 'do not run it: what came in after it was signed off says otherwise'
                    : `recheck ${recheck.sequence - 1} left a point out or undecided`}
                </small>
              </span>
              <span className="today-left">Set it again</span>
            </Link>
          </li>
        ))}
      </ul>
      {counts['not-held'] > failed.length && (
        <p className="today-more">
          and {counts['not-held'] - failed.length} more under <Link to="/engines">Engines</Link>
        </p>
      )}
    </section>
  );
}

/** Drafts of spec sheets that wait for this lead: nobody builds on one before a second person has checked it. */
function ToCheck({ today }: { readonly today: Today }) {
  const { mayLead } = useRole();
  const me = useSession()?.person.name;
  const waiting = mayLead ? today.drafts.filter(({ writers }) => me && !writers.includes(me)) : [];
  if (waiting.length === 0) return null;
  return (
    <section className="today-to-check" aria-label="Waits for you">
      <PartHeading>Waits for you to check</PartHeading>
      <ul>
        {waiting.map(({ sheetId, name, number, writers, published }) => (
          <li key={`${sheetId} ${number}`}>
            <Link to={`/sheets/${sheetId}?revision=${number}`} className="zl-row today-build">
              <b>{name}</b>
              <span>
                revision {number}, written {published && 'and published '}by {writers.join(' and ')}:{' '}
                {published
                  ? 'nobody else has read it; hold it against its source'
                  : 'check it against its source and publish it'}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Bench({ today }: { readonly today: Today }) {
  const stages = today.stages.filter(({ stage }) => stage !== RUNNING);
  const none = stages.every(({ count }) => count === 0);
  return (
    <section>
      <PartHeading>On the bench</PartHeading>
      {none && <FirstSteps />}
      <ol>
        {stages.map(({ stage, count, builds }) => (
          <li key={stage} className="today-stage" data-filled={count > 0}>
            <span className="today-station" aria-hidden />
            <span className="today-stage-name">{stageOf(stage).title}</span>
            <div>
              {builds.map((build) => (
                <Link key={build.id} to={`/builds/${build.id}`} className="zl-row today-build">
                  <b>{build.engine}</b>
                  <span>
                    {build.measured && `${build.measured.done} of ${build.measured.of} measured · `}
                    {buildInWords(build)} · {agoInWords(build.since)}
                  </span>
                </Link>
              ))}
              {count > builds.length && (
                <span className="today-more">
                  and {count - builds.length} more under <Link to="/engines">Engines</Link>
                </span>
              )}
            </div>
          </li>
        ))}
      </ol>
    </section>
  );
}

function DueList({ today }: { readonly today: Today }) {
  const { counts } = today.rechecks;
  const list = today.rechecks.list.filter(({ state }) => state !== 'not-held');
  const whole = counts.overdue + counts.due + counts.coming;
  return (
    <section className="today-rechecks">
      <PartHeading>Rechecks</PartHeading>
      <div className="today-counts" role="status">
        {(['overdue', 'due', 'coming'] as const).map((state) => (
          <span key={state}>
            <b>{counts[state]}</b> <DueMark state={state} />
          </span>
        ))}
      </div>
      {list.length === 0 && <Empty>None is planned. The first is planned when a build is signed off.</Empty>}
      <ul>
        {list.map((recheck) => (
          <li key={recheck.id}>
            <Link to={`/builds/${recheck.buildId}`} className="zl-row today-due">
              <DueMark state={recheck.state} />
              <span>
                <b>{recheck.engine}</b>
                <small>
                  {recheck.owner} · recheck {recheck.sequence}
                </small>
              </span>
              <span className="today-left">
                {recheckDayInWords(recheck, today.day, recheck.usageUnit)}
                {recheck.dueUsage !== null && recheck.dueUsage >= recheck.running && (
                  <small>{usageLeft(recheck.dueUsage - recheck.running, recheck.usageUnit)}</small>
                )}
              </span>
            </Link>
          </li>
        ))}
      </ul>
      {whole > list.length && (
        <p className="today-more">
          and {whole - list.length} more, further off, under <Link to="/rechecks">Rechecks</Link>
        </p>
      )}
    </section>
  );
}

const usageLeft = (left: number, unit: string) => `${grouped(Math.round(left * 10) / 10)} ${unit} left`;
