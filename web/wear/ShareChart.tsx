import { Box } from '@chakra-ui/react';
import { PARTS, type PartDisposition } from '@zero-lash/core/wear';
import { BarController, BarElement, CategoryScale, Chart, LinearScale, type ChartOptions } from 'chart.js';
import { useMemo } from 'react';
import { Bar } from 'react-chartjs-2';
import { chartTicks, colourOf } from '../drawings/chartInk.ts';
import { useAppSelector } from '../app/store.ts';

Chart.register(BarController, BarElement, CategoryScale, LinearScale);

const MOST_BARS = 24;

/** How much of its allowance each part has used, the worst first; the table beside it says the same in words. */
export function ShareChart({ fates }: { readonly fates: readonly PartDisposition[] }) {
  const scheme = useAppSelector((state) => state.preferences.scheme);
  const bars = useMemo(
    () =>
      fates
        .filter(({ used }) => used !== null)
        .toSorted((a, b) => b.used! - a.used!)
        .slice(0, MOST_BARS),
    [fates],
  );
  const data = useMemo(() => {
    const colours = { keep: colourOf('ink'), watch: colourOf('brass'), replace: colourOf('tight') };
    return {
      labels: bars.map(({ part, place }) => `${PARTS[part].title} ${place}`),
      datasets: [
        {
          data: bars.map(({ used }) => Math.max(0, Math.round(used! * 100))),
          backgroundColor: bars.map(
            ({ used }) => colours[used! > 1 ? 'replace' : used! >= 0.7 ? 'watch' : 'keep'],
          ),
          barPercentage: 0.7,
        },
      ],
    };
  }, [bars, scheme]);
  const options = useMemo<ChartOptions<'bar'>>(() => {
    const hairline = colourOf('hairline');
    const ticks = chartTicks();
    return {
      animation: false,
      maintainAspectRatio: false,
      events: [],
      scales: {
        x: { ticks: { ...ticks, maxRotation: 60, autoSkip: false }, grid: { display: false } },
        y: {
          min: 0,
          suggestedMax: 100,
          ticks: { ...ticks, callback: (value) => `${value} %` },
          grid: { color: hairline },
        },
      },
    };
  }, [scheme]);
  if (bars.length === 0) return null;
  return (
    <Box>
      <Box fontSize="sm" color="faded">
        Share of the allowance used{bars.length === MOST_BARS && `, the ${MOST_BARS} most worn`}
      </Box>
      <Box height="220px">
        <Bar data={data} options={options} aria-hidden />
      </Box>
    </Box>
  );
}
