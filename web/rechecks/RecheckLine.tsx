import { Box, Button } from '@chakra-ui/react';
import type { RecheckRow } from '@zero-lash/contract/rechecks';
import { causesOf, recheckDayInWords } from '@zero-lash/core/rechecks';
import { useState } from 'react';
import { Link } from 'react-router';
import { useRole } from '../app/useRole.ts';
import { DueMark } from './DueMark.tsx';
import { dueInWords, expectedInWords } from './due.ts';
import { MoveRecheck } from './MoveRecheck.tsx';
import { PlanDay } from './PlanDay.tsx';

/** One planned recheck in the list: whose, when, how sure that is, and what can be done about it. */
export function RecheckLine({ recheck, today }: { readonly recheck: RecheckRow; readonly today: string }) {
  const { mayWork, mayLead } = useRole();
  const [open, setOpen] = useState<'day' | 'move' | null>(null);
  const toggle = (what: 'day' | 'move') => setOpen((now) => (now === what ? null : what));
  return (
    <article className="recheck-row" aria-label={recheck.engine}>
      <DueMark state={recheck.state} />
      <div>
        <Link to={`/builds/${recheck.buildId}`}>
          <b>{recheck.engine}</b>
        </Link>
        <small>
          {[recheck.owner, recheck.place, recheck.sheetName, `recheck ${recheck.sequence}`]
            .filter(Boolean)
            .join(' · ')}
        </small>
        {recheck.unlike.map(({ point, way }) => (
          <small key={point}>
            <b>{point}</b> moves {way} than its neighbours: look for {causesOf(way)[0]}
          </small>
        ))}
      </div>
      <div>
        {recheckDayInWords(recheck, today, recheck.usageUnit)}
        {recheck.byForecast && ' · sooner by its forecast'}
        <small>{dueInWords(recheck, recheck)}</small>
        {recheck.points && <small>a short check: {recheck.points.join(' ')}</small>}
        <small>{expectedInWords(recheck)}</small>
      </div>
      <div className="recheck-actions">
        {mayWork && (
          <Button
            variant="plain"
            aria-expanded={open === 'day'}
            aria-label={`Plan a day for ${recheck.engine}`}
            onClick={() => toggle('day')}
          >
            Plan a day
          </Button>
        )}
        {mayLead && (
          <Button
            variant="plain"
            aria-expanded={open === 'move'}
            aria-label={`Reschedule ${recheck.engine}`}
            onClick={() => toggle('move')}
          >
            Reschedule…
          </Button>
        )}
        <a className="zl-tool" href={`/api/rechecks/${recheck.id}/calendar`} download="recheck.ics">
          Calendar file
        </a>
      </div>
      {open && (
        <Box className="recheck-open">
          {open === 'day' ? (
            <PlanDay recheck={recheck} today={today} onDone={() => setOpen(null)} />
          ) : (
            <MoveRecheck recheck={recheck} onDone={() => setOpen(null)} />
          )}
        </Box>
      )}
    </article>
  );
}
