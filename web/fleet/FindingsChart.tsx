import { Box } from '@chakra-ui/react';
import type { FleetSays } from '@zero-lash/contract/fleet';
import { formatLength, tenthsFromMm } from '@zero-lash/core/length';
import {
  Chart,
  LinearScale,
  LineElement,
  PointElement,
  ScatterController,
  type ChartOptions,
} from 'chart.js';
import { useMemo } from 'react';
import { Scatter } from 'react-chartjs-2';
import { useUnit } from '../app/lengths.ts';
import { chartTicks, colourOf } from '../drawings/chartInk.ts';
import { useAppSelector } from '../app/store.ts';

Chart.register(LinearScale, LineElement, PointElement, ScatterController);

/** mm that the ends of the axes stand on */
const STEP = 0.05;

/** What was found against what was forecast: on the line they are the same; crosses lay outside what was said. */
export default function FindingsChart({ findings }: Pick<FleetSays, 'findings'>) {
  const scheme = useAppSelector((state) => state.preferences.scheme);
  const unit = useUnit();
  const ends = useMemo(() => {
    const all = findings.flatMap(({ said, found }) => [said, found]);
    // whole steps, so that the ends of the axis are figures that are read
    return {
      min: Math.floor(Math.min(...all) / STEP) * STEP,
      max: Math.ceil(Math.max(...all) / STEP) * STEP,
    };
  }, [findings]);
  const data = useMemo(() => {
    const at = (inside: boolean) =>
      findings.filter((each) => each.inside === inside).map(({ said, found }) => ({ x: said, y: found }));
    return {
      datasets: [
        { data: at(true), pointRadius: 3, pointBackgroundColor: colourOf('ink'), pointBorderWidth: 0 },
        {
          ...{ data: at(false), pointStyle: 'crossRot' as const, pointRadius: 5, pointBorderWidth: 2 },
          pointBorderColor: colourOf('tight'),
        },
        {
          data: [ends.min, ends.max].map((end) => ({ x: end, y: end })),
          ...{ showLine: true, pointRadius: 0, borderColor: colourOf('brass'), borderWidth: 1.4 },
        },
      ],
    };
  }, [findings, ends, scheme]);
  const options = useMemo<ChartOptions<'scatter'>>(() => {
    const axis = (text: string) => ({
      ...ends,
      title: { display: true, text, ...{ color: colourOf('faded'), font: chartTicks().font } },
      ticks: {
        ...chartTicks(),
        stepSize: 2 * STEP,
        callback: (value: string | number) => formatLength(tenthsFromMm(Number(value)), unit),
      },
      grid: { color: colourOf('hairline') },
    });
    return {
      animation: false,
      maintainAspectRatio: false,
      events: [],
      scales: { x: axis(`forecast, ${unit}`), y: axis(`found, ${unit}`) },
    };
  }, [ends, unit, scheme]);
  return (
    <Box>
      <Box height="260px">
        <Scatter data={data} options={options} aria-hidden />
      </Box>
      <Box as="p" color="faded" fontSize="sm">
        On the line, what was found is what was forecast; a cross lay outside what was said.
      </Box>
    </Box>
  );
}
