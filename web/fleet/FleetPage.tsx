import { counted } from '@zero-lash/core/length';
import { Box } from '@chakra-ui/react';
import type { FleetList, FleetSays } from '@zero-lash/contract/fleet';
import { LEAST_ENGINES } from '@zero-lash/core/fleet';
import { useState } from 'react';
import { Empty, Page, PartHeading } from '../app/Page.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { onDemand } from '../app/onDemand.tsx';
import { useFleetQuery, useFleetSaysQuery } from './endpoints.ts';
import { DriftOverHead } from './DriftOverHead.tsx';
import { NamedEngines } from './NamedEngines.tsx';
import '../rechecks/rechecks.css';
import './fleet.css';

const CHART_TO_COME = <Box height="220px" />;
const CheckChart = onDemand(async () => (await import('./CheckChart.tsx')).default, CHART_TO_COME);
const FindingsChart = onDemand(async () => (await import('./FindingsChart.tsx')).default, CHART_TO_COME);

/** What all our engines say, pattern by pattern: how fast which place moves, what was found out, how good forecasts were. */
export default function FleetPage() {
  const { data: patterns, error, refetch } = useFleetQuery(undefined, { refetchOnMountOrArgChange: true });
  const [chosen, setChosen] = useState<string>();
  const sheetId = chosen ?? patterns?.[0]?.sheetId;
  return (
    <Page
      title="What our engines say"
      under={`From closed rechecks, the most trouble first; nothing is said from fewer than ${LEAST_ENGINES} engines`}
    >
      <ProblemNote error={error} onRetry={refetch} />
      {patterns?.length === 0 && (
        <Empty>Nothing yet: the first recheck that is judged is where it begins.</Empty>
      )}
      {patterns && sheetId && (
        <div className="fleet">
          <Patterns patterns={patterns} chosen={sheetId} onChoose={setChosen} />
          <Says key={sheetId} sheetId={sheetId} />
        </div>
      )}
    </Page>
  );
}

interface PatternsProps {
  readonly patterns: FleetList;
  readonly chosen: string;
  readonly onChoose: (sheetId: string) => void;
}

/** Every pattern with its share of rechecks that found a point out: what is longest is looked at first. */
function Patterns({ patterns, chosen, onChoose }: PatternsProps) {
  return (
    <section aria-label="Patterns">
      <ul className="fleet-patterns">
        {patterns.map(({ sheetId, name, engines, rechecks, out }) => (
          <li key={sheetId}>
            <button type="button" aria-pressed={sheetId === chosen} onClick={() => onChoose(sheetId)}>
              <b>{name}</b>
              <span className="fleet-share" aria-hidden>
                <i style={{ width: `${(out / rechecks) * 100}%` }} />
              </span>
              <small>
                {out} of {counted(rechecks, 'recheck')} found a point out · {counted(engines, 'engine')}
              </small>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Says({ sheetId }: { readonly sheetId: string }) {
  const { data: says, error, refetch } = useFleetSaysQuery(sheetId, { refetchOnMountOrArgChange: true });
  if (error) return <ProblemNote error={error} onRetry={refetch} />;
  if (!says) return null;
  if (says.engines < LEAST_ENGINES)
    return (
      <Empty>
        {says.engines === 1 ? 'One engine' : `${says.engines} engines`} of this pattern{' '}
        {says.engines === 1 ? 'was' : 'were'} rechecked: too few to say anything of all.
      </Empty>
    );
  return (
    <div className="fleet-says">
      <Interval says={says} />
      <DriftOverHead says={says} />
      <NamedEngines says={says} />
      <div className="fleet-charts">
        <section aria-label="Found out at each check">
          <PartHeading>Found out at each check</PartHeading>
          <CheckChart checks={says.checks} usageUnit={says.usageUnit} />
        </section>
        <Forecasts says={says} />
      </div>
    </div>
  );
}

const INTERVAL_WORDS = {
  shorter: 'the interval must be shorter',
  longer: 'the interval could be longer',
  right: 'the interval is right as it is',
  'too-few': 'too few rechecks to say anything of the interval',
} as const;

function Interval({ says: { name, interval } }: { readonly says: FleetSays }) {
  return (
    <section aria-label="Interval">
      <PartHeading>
        {name}: {INTERVAL_WORDS[interval.says]}
      </PartHeading>
      <p>
        {interval.out} of {counted(interval.rechecks, 'recheck')} on {counted(interval.engines, 'engine')}{' '}
        found a point out. A lead decides, and the maker’s manual governs.
      </p>
    </section>
  );
}

function Forecasts({ says: { calibration, findings } }: { readonly says: FleetSays }) {
  return (
    <section aria-label="Forecasts against findings">
      <PartHeading>Forecasts against findings</PartHeading>
      {calibration ? (
        <>
          <FindingsChart findings={findings} />
          <p>
            {calibration.inside} of {calibration.count} forecasts came true (
            {Math.round((calibration.inside / calibration.count) * 100)} %; {calibration.said * 100} %
            expected), on {calibration.engines} engines.
          </p>
        </>
      ) : (
        <p>Not said from fewer than {LEAST_ENGINES} engines.</p>
      )}
    </section>
  );
}
