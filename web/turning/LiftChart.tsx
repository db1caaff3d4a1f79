import { Box } from '@chakra-ui/react';
import { type Pattern } from '@zero-lash/core/sheets';
import { CYCLE, layOutWheel, liftShare } from '@zero-lash/core/turning';
import { Chart, LinearScale, LineElement, PointElement, type ChartData, type ChartOptions } from 'chart.js';
import { useMemo, useState } from 'react';
import { Line } from 'react-chartjs-2';
import { chartTicks, colourOf } from '../drawings/chartInk.ts';
import { useAppSelector } from '../app/store.ts';

Chart.register(LineElement, PointElement, LinearScale);

const STEP = 6;
const ANGLES = Array.from({ length: CYCLE / STEP + 1 }, (_, index) => index * STEP);

interface Props {
  readonly pattern: Pattern;
  readonly angle: number;
  readonly selected?: string | null;
}

/** Valve lift over the whole cycle, as a share of full lift, with the wheel's own pointer. */
export default function LiftChart({ pattern, angle, selected = null }: Props) {
  const scheme = useAppSelector((state) => state.preferences.scheme);
  const [area, setArea] = useState({ left: 0, width: 0 });
  const data = useMemo<ChartData<'line'>>(() => {
    const [ink, brass, loose] = ['ink', 'brass', 'loose'].map(colourOf);
    return {
      datasets: layOutWheel(pattern).map((track) => {
        const chosen = selected !== null && track.keys.includes(selected);
        return {
          label: track.keys.join(' '),
          data: ANGLES.map((at) => ({ x: at, y: liftShare(track.span, at) * 100 })),
          borderColor: chosen ? loose! : track.role === 'intake' ? ink! : brass!,
          borderWidth: chosen ? 3 : 1.3,
          borderDash: track.role === 'intake' ? [] : track.role === 'brake' ? [2, 3] : [6, 3],
          pointRadius: 0,
        };
      }),
    };
  }, [pattern, selected, scheme]);
  const options = useMemo<ChartOptions<'line'>>(() => {
    const hairline = colourOf('hairline');
    const ticks = chartTicks();
    return {
      animation: false,
      maintainAspectRatio: false,
      parsing: false,
      events: [],
      scales: {
        x: {
          type: 'linear',
          min: 0,
          max: CYCLE,
          ticks: { ...ticks, stepSize: 90, callback: (value) => `${value}°` },
          grid: { color: hairline },
        },
        y: {
          min: 0,
          max: 100,
          ticks: { ...ticks, stepSize: 50, callback: (value) => `${value} %` },
          grid: { color: hairline },
        },
      },
    };
  }, [scheme]);
  const plugins = useMemo(
    () => [
      {
        id: 'area',
        afterLayout: ({ chartArea }: Chart) =>
          setArea((before) => {
            const next = { left: chartArea.left, width: chartArea.width };
            return before.left === next.left && before.width === next.width ? before : next;
          }),
      },
    ],
    [],
  );
  return (
    <Box position="relative" height="170px">
      <Line
        data={data}
        options={options}
        plugins={plugins}
        role="img"
        aria-label="Valve lift over two turns of the crank, as a share of full lift"
      />
      <Box
        position="absolute"
        top="6px"
        bottom="28px"
        width="2px"
        background="tight"
        left="0"
        pointerEvents="none"
        style={{ transform: `translateX(${area.left + (angle / CYCLE) * area.width - 1}px)` }}
      />
    </Box>
  );
}
