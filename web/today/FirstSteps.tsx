import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { Empty } from '../app/Page.tsx';
import { useEnginesQuery } from '../engines/endpoints.ts';
import { useToolsQuery } from '../instruments/endpoints.ts';
import { useSheetsQuery } from '../sheets/endpoints.ts';

/** What stands on an empty bench: where to begin in a shop that has nothing yet, or which way to go on. */
export default function FirstSteps() {
  const { data: tools } = useToolsQuery();
  const { data: sheets } = useSheetsQuery();
  const { data: list } = useEnginesQuery({ limit: 1 });
  if (!tools || !sheets || !list) return null;
  if (list.total > 0)
    return (
      <Empty>
        Nothing is open. Choose an engine under <Link to="/engines">Engines</Link> and open a build on it.
      </Empty>
    );
  const published = sheets.some(({ status }) => status === 'published');
  return (
    <ol className="first-steps" aria-label="Where to begin">
      <Step done={tools.instruments.length > 0}>
        Write down the blades of the bench under <Link to="/instruments">Instruments</Link>.
      </Step>
      <Step done={published}>
        Write the engine’s spec sheet, or read one from a file, under <Link to="/sheets">Spec sheets</Link>:
        its limits, and the book they are from.
        {sheets.length > 0 && !published && ' The draft waits for a lead who checks and publishes it.'}
      </Step>
      <Step done={false}>
        Add the engine on the stand under <Link to="/engines">Engines</Link>, and open a build on it.
      </Step>
      <Step done={false}>
        Let the others in under <Link to="/shop">Shop</Link>: who measures, and a second lead who checks.
      </Step>
    </ol>
  );
}

function Step({ done, children }: { readonly done: boolean; readonly children: ReactNode }) {
  return (
    <li data-done={done}>
      {children}
      {done && <b> Done.</b>}
    </li>
  );
}
