import { counted } from '@zero-lash/core/length';
import { hasMeter } from '@zero-lash/core/rechecks';
import { Box } from '@chakra-ui/react';
import type { FleetSays } from '@zero-lash/contract/fleet';
import { LEAST_ENGINES } from '@zero-lash/core/fleet';
import { ROLE_WORDS, type Role } from '@zero-lash/core/sheets';
import { useState } from 'react';
import { Labelled, Select } from '../app/Labelled.tsx';
import { Empty, Page, PartHeading } from '../app/Page.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useFleetQuery, useFleetSaysQuery } from './endpoints.ts';
import '../rechecks/rechecks.css';

/** What all our engines say, pattern by pattern: how fast which place moves, what was found out, how good forecasts were. */
export default function FleetPage() {
  const { data: patterns, error, refetch } = useFleetQuery(undefined, { refetchOnMountOrArgChange: true });
  const [chosen, setChosen] = useState<string>();
  const sheetId = chosen ?? patterns?.[0]?.sheetId;
  return (
    <Page
      title="What our engines say"
      under={`From closed rechecks; nothing is said from fewer than ${LEAST_ENGINES} engines`}
    >
      <ProblemNote error={error} onRetry={refetch} />
      {patterns?.length === 0 && (
        <Empty>Nothing yet: the first recheck that is judged is where it begins.</Empty>
      )}
      {sheetId && (
        <>
          <Box maxWidth="420px" marginBottom="4">
            <Labelled label="Pattern">
              <Select value={sheetId} onChange={({ target }) => setChosen(target.value)}>
                {patterns!.map(({ sheetId: id, name, engines, rechecks }) => (
                  <option key={id} value={id}>
                    {name}: {counted(engines, 'engine')}, {counted(rechecks, 'recheck')}
                  </option>
                ))}
              </Select>
            </Labelled>
          </Box>
          <Says key={sheetId} sheetId={sheetId} />
        </>
      )}
    </Page>
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
    <Box
      display="grid"
      gap="6"
      gridTemplateColumns={{ base: 'minmax(0, 1fr)', lg: 'repeat(2, minmax(0, 1fr))' }}
    >
      <Interval says={says} />
      <Calibration says={says} />
      <Drift says={says} />
      <Checks says={says} />
      <Positions says={says} />
    </Box>
  );
}

const INTERVAL_WORDS = {
  shorter: 'The interval must be shorter',
  longer: 'The interval could be longer',
  right: 'The interval is right as it is',
  'too-few': 'Too few rechecks to say anything of the interval',
} as const;

function Interval({ says: { interval } }: { readonly says: FleetSays }) {
  return (
    <section aria-label="Interval">
      <PartHeading>{INTERVAL_WORDS[interval.says]}</PartHeading>
      <p>
        {interval.out} of {counted(interval.rechecks, 'recheck')} on {counted(interval.engines, 'engine')}{' '}
        found a point out. A lead decides, and the maker’s manual governs.
      </p>
    </section>
  );
}

function Calibration({ says: { calibration } }: { readonly says: FleetSays }) {
  return (
    <section aria-label="How good forecasts were">
      <PartHeading>How good forecasts were</PartHeading>
      {calibration ? (
        <p>
          {calibration.inside} of {calibration.count} forecasts came true (
          {Math.round((calibration.inside / calibration.count) * 100)} %; {calibration.said * 100} %
          expected), on {calibration.engines} engines.
        </p>
      ) : (
        <p>Not said from fewer than {LEAST_ENGINES} engines.</p>
      )}
    </section>
  );
}

/** A drift in µm a hundred of the unit: what a person can hold in the head. */
const perHundred = (perUnit: number) => `${perUnit > 0 ? '+' : ''}${(perUnit * 100_000).toFixed(1)}`;

function Drift({ says: { roles, usageUnit } }: { readonly says: FleetSays }) {
  return (
    <section aria-label="Drift">
      <PartHeading>How fast gaps move{hasMeter(usageUnit) ? `, µm a 100 ${usageUnit}` : ''}</PartHeading>
      <table className="figures-table">
        <thead>
          <tr>
            <th scope="col">Role</th>
            <th scope="col">Drift</th>
            <th scope="col">differs by</th>
            <th scope="col">from</th>
          </tr>
        </thead>
        <tbody>
          {roles.map(({ role, perUnit, betweenSd, engines, points }) => (
            <tr key={role}>
              <th scope="row">{ROLE_WORDS[role as Role]}</th>
              <td>{perHundred(perUnit)}</td>
              <td>± {(betweenSd * 100_000).toFixed(1)}</td>
              <td>
                {counted(points, 'point')}, {counted(engines, 'engine')}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {roles.length === 0 && (
        <p>
          {hasMeter(usageUnit)
            ? `Not said from fewer than ${LEAST_ENGINES} engines.`
            : 'Not said without a meter.'}
        </p>
      )}
    </section>
  );
}

function Checks({ says: { checks, usageUnit } }: { readonly says: FleetSays }) {
  return (
    <section aria-label="Found out at each check">
      <PartHeading>Found out at each check</PartHeading>
      <table className="figures-table">
        <thead>
          <tr>
            <th scope="col">Check</th>
            <th scope="col">after, {hasMeter(usageUnit) ? usageUnit : 'no meter'}</th>
            <th scope="col">found out</th>
            <th scope="col">engines</th>
          </tr>
        </thead>
        <tbody>
          {checks.map(({ sequence, since, out, rechecks, engines }) => (
            <tr key={sequence}>
              <th scope="row">{sequence}</th>
              <td>{hasMeter(usageUnit) ? Math.round(since) : '–'}</td>
              <td>
                {out} of {rechecks}
              </td>
              <td>{engines}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Positions({ says: { positions, usageUnit } }: { readonly says: FleetSays }) {
  const most = Math.max(...positions.map(({ goesFirst }) => goesFirst), 0);
  return (
    <Box as="section" aria-label="By place" gridColumn="1 / -1" overflowX="auto">
      <PartHeading>By place on the engine</PartHeading>
      <table className="figures-table">
        <thead>
          <tr>
            <th scope="col">Point</th>
            <th scope="col">Role</th>
            <th scope="col">{hasMeter(usageUnit) ? `µm a 100 ${usageUnit}` : 'drift'}</th>
            <th scope="col">found out</th>
            <th scope="col">moves fastest on</th>
            <th scope="col">engines</th>
          </tr>
        </thead>
        <tbody>
          {positions.map(({ point, role, perUnit, checks, out, goesFirst, engines }) => (
            <tr key={point}>
              <th scope="row">{point}</th>
              <td>{ROLE_WORDS[role as Role]}</td>
              <td>{hasMeter(usageUnit) ? perHundred(perUnit) : '–'}</td>
              <td>
                {out} of {checks}
              </td>
              <td>{goesFirst > 0 && goesFirst === most ? <b>{goesFirst}</b> : goesFirst}</td>
              <td>{engines}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Box>
  );
}
