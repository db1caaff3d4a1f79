import { Box } from '@chakra-ui/react';
import type { FleetSays } from '@zero-lash/contract/fleet';
import { LEAST_ENGINES } from '@zero-lash/core/fleet';
import { hasMeter } from '@zero-lash/core/rechecks';
import { BarController, BarElement, CategoryScale, Chart, LinearScale, type ChartOptions } from 'chart.js';
import { useMemo } from 'react';
import { Bar } from 'react-chartjs-2';
import { chartTicks, colourOf } from '../drawings/chartInk.ts';
import { useAppSelector } from '../app/store.ts';

Chart.register(BarController, BarElement, CategoryScale, LinearScale);

type Props = Pick<FleetSays, 'checks' | 'usageUnit'>;

/** How many of the engines were found out at their first check, their second and so on: drawn, and said in words beneath. */
export default function CheckChart({ checks, usageUnit }: Props) {
  const scheme = useAppSelector((state) => state.preferences.scheme);
  const data = useMemo(
    () => ({
      labels: checks.map(({ sequence }) => `check ${sequence}`),
      datasets: [
        { data: checks.map(({ out }) => out), backgroundColor: colourOf('tight'), barPercentage: 0.6 },
        {
          data: checks.map(({ rechecks, out }) => rechecks - out),
          backgroundColor: colourOf('hairline'),
          barPercentage: 0.6,
        },
      ],
    }),
    [checks, scheme],
  );
  const options = useMemo<ChartOptions<'bar'>>(
    () => ({
      animation: false,
      maintainAspectRatio: false,
      events: [],
      scales: {
        x: { stacked: true, ticks: chartTicks(), grid: { display: false } },
        y: {
          ...{ stacked: true, min: 0 },
          ticks: { ...chartTicks(), precision: 0 },
          grid: { color: colourOf('hairline') },
        },
      },
    }),
    [scheme],
  );
  if (checks.length === 0) return <p>Not said from fewer than {LEAST_ENGINES} engines.</p>;
  return (
    <>
      <Box height="220px">
        <Bar data={data} options={options} aria-hidden />
      </Box>
      <p className="fleet-legend" aria-hidden>
        <i style={{ background: 'var(--zl-colors-tight)' }} />
        found a point out <i style={{ background: 'var(--zl-colors-hairline)', marginLeft: 12 }} />
        every gap held
      </p>
      <ul className="fleet-on">
        {checks.map(({ sequence, since, out, rechecks, engines }) => (
          <li key={sequence}>
            Check {sequence}: {out} of {rechecks} found a point out
            <small>
              {hasMeter(usageUnit) && `after ${Math.round(since)} ${usageUnit} on average, `}
              {engines} engines
            </small>
          </li>
        ))}
      </ul>
    </>
  );
}
