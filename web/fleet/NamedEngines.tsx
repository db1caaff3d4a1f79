import type { FleetSays } from '@zero-lash/contract/fleet';
import { driftInWords } from '@zero-lash/core/rechecks';
import { Link } from 'react-router';
import { useUnit } from '../app/lengths.ts';
import { PartHeading } from '../app/Page.tsx';

/** The engines of a pattern by name, the most trouble first. */
export function NamedEngines({ says: { byEngine, usageUnit, engines } }: { readonly says: FleetSays }) {
  const unit = useUnit();
  return (
    <section aria-label="Engines, the most trouble first">
      <PartHeading>
        Which engines{byEngine.length < engines && `: the ${byEngine.length} with most trouble of ${engines}`}
      </PartHeading>
      <table className="figures-table">
        <thead>
          <tr>
            <th scope="col">Engine</th>
            <th scope="col">Rechecks that found a point out</th>
            <th scope="col">Fastest place</th>
          </tr>
        </thead>
        <tbody>
          {byEngine.map(({ engineId, engine, place, rechecks, out, fastest }) => (
            <tr key={engineId}>
              <th scope="row">
                <Link to={`/engines/${engineId}`}>{engine}</Link>
                {place !== '' && !engine.includes(place) && <small className="fleet-place">{place}</small>}
              </th>
              <td>
                <span className="fleet-share" aria-hidden>
                  <i style={{ width: `${(out / rechecks) * 100}%` }} />
                </span>
                {out} of {rechecks}
              </td>
              <td>
                {fastest &&
                  [fastest.point, driftInWords(fastest.perUnit, usageUnit, unit)?.words]
                    .filter(Boolean)
                    .join(', ')}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
