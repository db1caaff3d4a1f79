import { Box } from '@chakra-ui/react';
import type { FleetSays } from '@zero-lash/contract/fleet';
import { LEAST_ENGINES } from '@zero-lash/core/fleet';
import { driftInWords, hasMeter } from '@zero-lash/core/rechecks';
import { counted } from '@zero-lash/core/length';
import { ROLE_WORDS, type Role } from '@zero-lash/core/sheets';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { useUnit } from '../app/lengths.ts';
import { PartHeading } from '../app/Page.tsx';
import { HeadDrawing, type HeadPoint } from '../drawings/HeadDrawing.tsx';

type Position = FleetSays['positions'][number];
type UsageUnit = FleetSays['usageUnit'];

/** The place to look at first: the one found out most often, and of those the one that moves fastest. */
const worstOf = (positions: readonly Position[]) =>
  positions.toSorted((a, b) => b.out - a.out || Math.abs(b.perUnit) - Math.abs(a.perUnit))[0];

/** How fast each place moves, over the head it stands on: tap one to see on which engines. */
export function DriftOverHead({ says }: { readonly says: FleetSays }) {
  const { pattern, positions, usageUnit, roles } = says;
  const unit = useUnit();
  const [chosen, setChosen] = useState<string | null>(worstOf(positions)?.point ?? null);
  const points = useMemo(
    () => Object.fromEntries(positions.map((each) => [each.point, shownAt(each, usageUnit, unit)])),
    [positions, usageUnit, unit],
  );
  const position = positions.find(({ point }) => point === chosen);
  return (
    <section aria-label="Drift by place">
      <PartHeading>How fast gaps move, by place</PartHeading>
      {positions.length === 0 && <p>Not said from fewer than {LEAST_ENGINES} engines.</p>}
      {positions.length > 0 && (
        <div className="fleet-head">
          <div>
            <HeadDrawing
              pattern={pattern}
              points={points}
              selected={chosen}
              onSelect={setChosen}
              label="Drift by place"
            />
            <Box as="p" color="faded" fontSize="sm">
              {hasMeter(usageUnit) && `Figures are ${unit === 'mm' ? 'µm' : 'thou'} per 100 ${usageUnit}. `}A
              wedge marks a place that was found out.
            </Box>
          </div>
          <div>
            {position && <AtPlace position={position} usageUnit={usageUnit} engines={says.engines} />}
            <ul className="fleet-roles">
              {roles.map(({ role, perUnit, points: count, engines }) => (
                <li key={role}>
                  <b>{ROLE_WORDS[role as Role]}</b>, all places:{' '}
                  {driftInWords(perUnit, usageUnit, unit)?.words}
                  <small>
                    {counted(count, 'point')} on {counted(engines, 'engine')}
                  </small>
                </li>
              ))}
            </ul>
          </div>
        </div>
      )}
    </section>
  );
}

function shownAt(position: Position, usageUnit: UsageUnit, unit: 'mm' | 'thou'): HeadPoint {
  const { perUnit, out, checks } = position;
  const drift = driftInWords(perUnit, usageUnit, unit);
  const state = out === 0 ? 'in-spec' : perUnit < 0 ? 'tight' : 'loose';
  const found = `found out at ${out} of ${counted(checks, 'check')}`;
  return {
    state,
    says: drift
      ? { figure: drift.figure, of: drift.way, spoken: `${drift.words}, ${found}` }
      : { figure: `${out}/${checks}`, of: 'out', spoken: found },
  };
}

interface AtPlaceProps {
  readonly position: Position;
  readonly usageUnit: UsageUnit;
  readonly engines: number;
}

/** One place on every engine: what is said of it, and the engines it is worst on. */
function AtPlace({ position, usageUnit, engines }: AtPlaceProps) {
  const unit = useUnit();
  const { point, role, perUnit, out, checks, goesFirst, on } = position;
  return (
    <Box role="status" aria-label={`${point} on all engines`}>
      <Box as="h3" fontSize="lg" fontWeight="650">
        {point}, {ROLE_WORDS[role as Role]}
      </Box>
      <p>
        {[
          driftInWords(perUnit, usageUnit, unit)?.words,
          `found out at ${out} of ${counted(checks, 'check')}`,
          goesFirst > 0 && `moves fastest on ${goesFirst} of ${counted(engines, 'engine')}`,
        ]
          .filter(Boolean)
          .join('; ')}
        .
      </p>
      <ul className="fleet-on">
        {on.map((each) => (
          <li key={each.engineId}>
            <Link to={`/engines/${each.engineId}`}>{each.engine}</Link>
            <small>
              {[
                driftInWords(each.perUnit, usageUnit, unit)?.words,
                each.out > 0 && `found out ${each.out === 1 ? 'once' : `${each.out} times`}`,
              ]
                .filter(Boolean)
                .join(', ')}
            </small>
          </li>
        ))}
      </ul>
    </Box>
  );
}
