import { counted } from '@zero-lash/core/length';
import { Box, Flex } from '@chakra-ui/react';
import type { EngineTrend } from '@zero-lash/contract/rechecks';
import { causesOf, courseAhead, type RolePrior } from '@zero-lash/core/rechecks';
import { layOutHeads, ROLE_WORDS, stepOnHead, type Role } from '@zero-lash/core/sheets';
import { useMemo, useState, type KeyboardEvent } from 'react';
import { useLengths } from '../app/lengths.ts';
import { Note } from '../app/Note.tsx';
import { PartHeading } from '../app/Page.tsx';
import { useWidth } from '../drawings/useWidth.ts';
import { LashTrend } from '../drawings/LashTrend.tsx';
import { useEngineTrendQuery } from './endpoints.ts';
import './rechecks.css';

type Point = EngineTrend['points'][number];

const STEPS = 40;
/** px */
const LARGEST = 640;
/** How far beyond the next look is drawn. */
const BEYOND = 1.25;
const KEYS: Readonly<Record<string, 'left' | 'right' | 'up' | 'down'>> = {
  ...{ ArrowLeft: 'left', ArrowRight: 'right', ArrowUp: 'up', ArrowDown: 'down' },
};

/** How every gap of an engine moved since it was set: all by their places on the head, and one of them large. */
export function EngineTrends({ engineId }: { readonly engineId: string }) {
  const { data: trend } = useEngineTrendQuery(engineId, { refetchOnMountOrArgChange: true });
  if (!trend || trend.points.every(({ observations }) => observations.length === 0)) return null;
  return <Trends key={trend.buildId} trend={trend} />;
}

function Trends({ trend }: { readonly trend: EngineTrend }) {
  const odd = trend.points.filter(({ unlike }) => unlike !== null);
  const [chosen, setChosen] = useState(odd[0]?.point ?? trend.points[0]!.point);
  const head = useMemo(() => layOutHeads(trend.pattern), [trend.pattern]);
  const drawn = useMemo(() => new Map(trend.points.map((point) => [point.point, point])), [trend.points]);
  const columns = [...new Set(head.places.map(({ x }) => x))].sort((a, b) => a - b);
  const rows = [...new Set(head.places.map(({ y }) => y))].sort((a, b) => a - b);
  const walk = (event: KeyboardEvent<HTMLElement>) => {
    const way = KEYS[event.key];
    if (!way) return;
    event.preventDefault();
    const next = stepOnHead(head, chosen, way);
    setChosen(next);
    event.currentTarget.querySelector<HTMLElement>(`[data-point="${next}"]`)?.focus();
  };
  const point = drawn.get(chosen)!;
  const { interval } = useLengths();
  return (
    <Box as="section" aria-label="Lash trend">
      <PartHeading>Lash trend since build {trend.number}</PartHeading>
      {odd.map((each) => (
        <Odd key={each.point} point={each} />
      ))}
      <Selected trend={trend} point={point} />
      <div
        className="trends"
        role="radiogroup"
        aria-label="Points by their places on the head"
        style={{ gridTemplateColumns: `repeat(${columns.length}, minmax(0, 168px))` }}
        onKeyDown={walk}
      >
        {head.places.map(({ point: { key }, x, y }) => (
          <button
            key={key}
            type="button"
            role="radio"
            aria-checked={key === chosen}
            aria-label={inWords(drawn.get(key)!, interval)}
            tabIndex={key === chosen ? 0 : -1}
            data-point={key}
            className="trend"
            style={{ gridColumn: columns.indexOf(x) + 1, gridRow: rows.indexOf(y) + 1 }}
            onClick={() => setChosen(key)}
          >
            <b>
              {key}
              {drawn.get(key)!.unlike ? ` ${drawn.get(key)!.unlike}` : ''}
            </b>
            <Drawn trend={trend} point={drawn.get(key)!} size="small" />
          </button>
        ))}
      </div>
      <Box fontSize="sm" color="faded" marginTop="1">
        {priorsInWords(trend.priors)}
      </Box>
    </Box>
  );
}

/** A point that moves unlike its neighbours, and what to look for there. */
function Odd({ point: { point, unlike } }: { readonly point: Point }) {
  const [first, ...rest] = causesOf(unlike!);
  return (
    <Note tone="tight" marginBottom="2">
      <b>
        {point} moves {unlike} than its neighbours.
      </b>{' '}
      Look for {first}; or {rest.join('; ')}.
    </Note>
  );
}

function Selected({ trend, point }: { readonly trend: EngineTrend; readonly point: Point }) {
  const { interval, band } = useLengths();
  const [frame, width] = useWidth<HTMLDivElement>(LARGEST);
  return (
    <Flex gap="5" flexWrap="wrap" alignItems="flex-start" marginBottom="3">
      <Box ref={frame} flex="1" minWidth="280px" maxWidth={`${LARGEST}px`}>
        <Drawn trend={trend} point={point} size="large" width={width} />
      </Box>
      <Box minWidth="200px">
        <table className="trend-looks">
          <caption>
            {point.point}, limits {band(point.limits.min, point.limits.max)}
          </caption>
          <thead>
            <tr>
              <th scope="col">{trend.usageUnit} run in all</th>
              <th scope="col">found</th>
            </tr>
          </thead>
          <tbody>
            {point.observations.map(({ usage, lo, hi }, index) => (
              <tr key={index}>
                <td>{tenth(trend.setAt + usage)}</td>
                <td>{interval({ lo, hi })}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Box>
    </Flex>
  );
}

interface DrawnProps {
  readonly trend: EngineTrend;
  readonly point: Point;
  readonly size: 'small' | 'large';
  readonly width?: number;
}

function Drawn({ trend, point, size, width }: DrawnProps) {
  const { figure, interval } = useLengths();
  const { setAt, now, next, usageUnit, priors } = trend;
  const end = Math.max(now, next?.dueUsage ?? 0, next?.planUsage ?? 0);
  const to = (end - setAt) * BEYOND;
  const ahead = useMemo(
    () => courseAhead(point, usageUnit, priors as readonly RolePrior[], { from: 0, to, steps: STEPS }),
    [point, usageUnit, priors, to],
  );
  return (
    <LashTrend
      limits={point.limits}
      looks={point.observations.map((look) => ({ ...look, usage: setAt + look.usage }))}
      ahead={ahead.map((step) => ({ ...step, usage: setAt + step.usage }))}
      now={now}
      due={next?.dueUsage ?? null}
      planned={next?.planUsage ?? null}
      from={setAt}
      to={setAt + to}
      size={size}
      {...(width ? { width } : {})}
      label={inWords(point, interval)}
      figure={figure}
      unit={usageUnit}
    />
  );
}

const tenth = (figure: number) => Math.round(figure * 10) / 10;

function inWords(
  { point, role, observations, unlike }: Point,
  interval: ReturnType<typeof useLengths>['interval'],
): string {
  const last = observations.at(-1);
  const found = last ? `last found ${interval(last)}` : 'never measured';
  return `${point}, ${ROLE_WORDS[role as Role]}: measured ${counted(observations.length, 'time')}, ${found}${unlike ? `, moves ${unlike} than its neighbours` : ''}`;
}

/** What a forecast rests on: said, because a stated figure is no knowledge. */
function priorsInWords(priors: EngineTrend['priors']): string {
  const said = priors.map(({ role, from, count }) =>
    from === 'own'
      ? `${ROLE_WORDS[role as Role]}: from ${counted(count, 'point')} of this shop’s other engines of the pattern`
      : `${ROLE_WORDS[role as Role]}: a default, which moves no date; this shop has measured only ${counted(count, 'such point')}`,
  );
  return `Expected drift, ${said.join('; ')}. Four findings in five lie in the shaded spread.`;
}
