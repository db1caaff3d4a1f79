// Long because the head is drawn once, here: its castings, its points with their states, and how it is walked and tapped.
import {
  cylinderName,
  layOutHeads,
  makersName,
  ROLE_WORDS,
  stepOnHead,
  type HeadMap,
  type HeadPlace,
  type Pattern,
  type Step,
} from '@zero-lash/core/sheets';
import { memo, useEffect, useMemo, useRef, type KeyboardEvent, type MouseEvent } from 'react';
import { paint, STATE_COLOURS, STATE_WORDS, type PointState } from './states.ts';
import { scrollAlong } from './scrollAlong.ts';
import { useWidth } from './useWidth.ts';
import { MarkShape } from './VerdictMark.tsx';

/** What a head map shows at one lash point; lengths as they are to be read. */
export interface HeadPoint {
  readonly state: PointState;
  /** both ends of what is known, the lesser null where nothing bounds it, and which says most; left out where nothing is measured */
  readonly gap?:
    { readonly lo: string | null; readonly hi: string; readonly governs: 'lo' | 'hi' } | undefined;
  /** the piece that is in, where the gap it leaves is not known yet */
  readonly piece?: string | undefined;
  /** what is said of it beside a gap: a figure, what it is of, and both as they are spoken in place of its state */
  readonly says?: { readonly figure: string; readonly of: string; readonly spoken: string } | undefined;
  /** work done here: drawn as a tick, spoken as the word */
  readonly done?: string | undefined;
  /** not sent to the server yet: drawn as an open ring */
  readonly waiting?: boolean | undefined;
  /** whether it may be measured where the crank stands; left out where that is not known */
  readonly closed?: boolean | undefined;
}

/** A piece that goes into a point: from another one, or from beside the engine. */
export interface HeadMove {
  readonly key: string;
  readonly from: string | null;
  /** which of the moves it is, from 1 */
  readonly number: number;
}

interface Props {
  readonly pattern: Pattern;
  readonly points: Readonly<Record<string, HeadPoint>>;
  readonly selected: string | null;
  readonly onSelect?: (key: string) => void;
  readonly label: string;
  /** pieces that change places, drawn over the head in their order */
  readonly moves?: readonly HeadMove[];
}

/** px a point's place is wide at least: the target in it stays 44 px */
const LEAST_CELL = 46;
/** Where no point is tapped, a tile may be smaller. */
const LEAST_SHOWN = 40;
const MOST_CELL = 92;
/** The most signs that are written as large as there is room for. */
const LONGEST_LARGE = 5;

/** The height a map keeps to where its points still stay large enough to tap: on a wide page, and on a narrow one. */
const WISHED_HEIGHT = { wide: 500, narrow: 340 };
const WIDE = 560;
const MARGIN = 18;
/** px a letter of a key takes, the room between a key and its mark, and the mark */
const LETTER = 8.6;
const BESIDE = 2;
const MARK = 16;
/** px from which a point has room for both ends under the figure that governs */
const ROOMY = 80;
/** px from which a point has room to say that a piece is fitted */
const FITTED = 56;
/** px a figure of a range takes */
const FIGURE = 7.4;
const SETTLE_MS = 120;
const STEPS: Readonly<Record<string, Step>> = {
  ArrowLeft: 'left',
  ArrowRight: 'right',
  ArrowUp: 'up',
  ArrowDown: 'down',
};

/** The head, or both heads, from above: every lash point in its real place, walked with the arrow keys or by touch. */
export const HeadDrawing = memo(function HeadDrawing(props: Props) {
  const { pattern, points, selected, onSelect, label, moves } = props;
  const layout = useMemo(() => layOutHeads(pattern), [pattern]);
  const [ref, width] = useWidth<HTMLDivElement>(640);
  const svg = useRef<SVGSVGElement>(null);
  const wishedHeight = width >= WIDE ? WISHED_HEIGHT.wide : WISHED_HEIGHT.narrow;
  const room = Math.floor(Math.min((width - 2 * MARGIN) / layout.width, wishedHeight / layout.height));
  const cell = Math.max(onSelect ? LEAST_CELL : LEAST_SHOWN, Math.min(MOST_CELL, room));
  const focusable = selected ?? layout.places[0]?.point.key;

  useEffect(() => {
    if (!selected) return undefined;
    // a moment later: asking where things are lays the page out, and a tap must not wait for that
    const timer = setTimeout(() => {
      scrollAlong(
        svg.current?.querySelector(`[data-point="${CSS.escape(selected)}"]`),
        svg.current?.parentElement ?? null,
      );
    }, SETTLE_MS);
    return () => clearTimeout(timer);
  }, [selected, cell]);

  function walk(event: KeyboardEvent) {
    const step = STEPS[event.key];
    const from = (event.target as Element).closest('[data-point]')?.getAttribute('data-point');
    if (!step || !from || !onSelect) return;
    event.preventDefault();
    const reached = stepOnHead(layout, from, step);
    onSelect(reached);
    svg.current?.querySelector<SVGElement>(`[data-point="${CSS.escape(reached)}"]`)?.focus();
  }

  /** One listener for all points, so that a point is drawn again only when it itself changes. */
  function tap(event: MouseEvent) {
    const point = (event.target as Element).closest<SVGElement>('[data-point]');
    if (!point || !onSelect) return;
    point.focus({ preventScroll: true });
    onSelect(point.getAttribute('data-point')!);
  }

  return (
    // with no point in it to go to, what is too wide is scrolled by itself
    <div ref={ref} className="zl-map" tabIndex={onSelect ? undefined : 0}>
      <svg
        ref={svg}
        width={layout.width * cell + 2 * MARGIN}
        height={layout.height * cell + 30}
        role={onSelect ? 'radiogroup' : 'group'}
        aria-label={label}
        onKeyDown={walk}
        onClick={tap}
        style={{ display: 'block', margin: '0 auto' }}
        fontFamily="var(--zl-fonts-body)"
      >
        <g transform={`translate(${MARGIN} 4)`}>
          <Castings layout={layout} cell={cell} pattern={pattern} />
          {layout.places.map((place) => (
            <Point
              key={place.point.key}
              place={place}
              name={makersName(pattern, place.point.key)}
              cell={cell}
              shown={points[place.point.key]}
              selected={place.point.key === selected}
              focusable={place.point.key === focusable}
              selectable={onSelect !== undefined}
            />
          ))}
          {moves && <Moves layout={layout} cell={cell} moves={moves} />}
        </g>
      </svg>
    </div>
  );
});

/** How far the bow of a move lies off the straight line, as a share of its length; and the room its ends keep, as one of a cell. */
const BOW = 0.22;
const KEPT = 0.34;

/** Each move from the point that gives to the one that takes, numbered; what comes from beside the engine has its number alone. */
const Moves = memo(function Moves({
  layout,
  cell,
  moves,
}: {
  readonly layout: HeadMap;
  readonly cell: number;
  readonly moves: readonly HeadMove[];
}) {
  const at = (key: string) => {
    const place = layout.places.find(({ point }) => point.key === key)!;
    return { x: place.x * cell, y: place.y * cell };
  };
  return (
    <g aria-hidden="true">
      {moves.map(({ key, from, number }) => {
        const to = at(key);
        const badge = { x: to.x + cell * 0.36, y: to.y - cell * 0.36 };
        return (
          <g key={key}>
            {from !== null && <Arrow from={at(from)} to={to} kept={cell * KEPT} />}
            <circle cx={badge.x} cy={badge.y} r="11" fill={paint('brass')} />
            <text
              x={badge.x}
              y={badge.y + 5}
              textAnchor="middle"
              fontSize="14"
              fontWeight="650"
              fill={paint('paper')}
            >
              {number}
            </text>
          </g>
        );
      })}
    </g>
  );
});

interface Place {
  readonly x: number;
  readonly y: number;
}

function Arrow({ from, to, kept }: { readonly from: Place; readonly to: Place; readonly kept: number }) {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const length = Math.hypot(dx, dy);
  const bow = { x: (from.x + to.x) / 2 - dy * BOW, y: (from.y + to.y) / 2 + dx * BOW };
  const towards = (place: Place, other: Place) => {
    const far = Math.hypot(other.x - place.x, other.y - place.y);
    const share = Math.min(0.45, kept / Math.max(far, 1));
    return { x: place.x + (other.x - place.x) * share, y: place.y + (other.y - place.y) * share };
  };
  const [start, end] = [towards(from, bow), towards(to, bow)];
  const angle = (Math.atan2(end.y - bow.y, end.x - bow.x) * 180) / Math.PI;
  if (length === 0) return null;
  return (
    <>
      <path
        d={`M ${start.x} ${start.y} Q ${bow.x} ${bow.y} ${end.x} ${end.y}`}
        fill="none"
        stroke={paint('brass')}
        strokeWidth="2.4"
      />
      <path
        d="M 2 0 L -9 -5.5 L -9 5.5 Z"
        fill={paint('brass')}
        transform={`translate(${end.x} ${end.y}) rotate(${angle})`}
      />
    </>
  );
}

/** The heads' outlines, the bores below them, and which end is the front. */
const Castings = memo(function Castings({
  layout,
  cell,
  pattern,
}: {
  readonly layout: HeadMap;
  readonly cell: number;
  readonly pattern: Pattern;
}) {
  const middle = (layout.height * cell) / 2;
  return (
    <g fill="none" stroke={paint('hairline')}>
      {layout.heads.map((head) => (
        <g key={head.bank}>
          <rect
            x={head.x * cell}
            y={head.y * cell}
            width={head.width * cell}
            height={head.height * cell}
            rx="8"
            stroke={paint('faded')}
            fill={paint('raised')}
          />
          <line
            x1={head.x * cell - 8}
            x2={(head.x + head.width) * cell + 8}
            y1={(head.y + head.height / 2) * cell}
            y2={(head.y + head.height / 2) * cell}
            strokeDasharray="14 4 3 4"
          />
        </g>
      ))}
      {layout.bores.map((bore) => (
        <g key={bore.cylinder}>
          <circle cx={bore.x * cell} cy={bore.y * cell} r={bore.radius * cell} />
          <text
            x={bore.x * cell}
            y={bore.nameY * cell + 5}
            textAnchor="middle"
            fontSize="14"
            fontWeight="650"
            fill={paint('faded')}
            stroke={paint('raised')}
            strokeWidth="6"
            paintOrder="stroke"
          >
            {cylinderName(pattern, bore.cylinder)}
          </text>
        </g>
      ))}
      <path d={`M-6 ${middle - 7}l-8 7l8 7`} stroke={paint('brass')} strokeWidth="2" />
      <text x={-14} y={layout.height * cell + 20} fontSize="14" fill={paint('faded')} stroke="none">
        ◂ front
      </text>
    </g>
  );
});

interface PointProps {
  readonly place: HeadPlace;
  /** what the maker calls it, where that is something else */
  readonly name: string | undefined;
  readonly cell: number;
  readonly shown: HeadPoint | undefined;
  readonly selected: boolean;
  readonly focusable: boolean;
  readonly selectable: boolean;
}

function sameShown(a: HeadPoint | undefined, b: HeadPoint | undefined): boolean {
  return (
    a?.state === b?.state &&
    a?.done === b?.done &&
    a?.waiting === b?.waiting &&
    a?.closed === b?.closed &&
    a?.piece === b?.piece &&
    a?.says?.spoken === b?.says?.spoken &&
    a?.gap?.lo === b?.gap?.lo &&
    a?.gap?.hi === b?.gap?.hi &&
    a?.gap?.governs === b?.gap?.governs
  );
}

const Point = memo(
  function Point({ place, name: makers, cell, shown, selected, focusable, selectable }: PointProps) {
    const { point } = place;
    const state = shown?.state ?? 'not-measured';
    const size = Math.max(44, cell - 4);
    const left = place.x * cell - size / 2;
    const top = place.y * cell - size / 2;
    const gap = shown?.gap;
    const figure = gap
      ? gap.lo === null
        ? `< ${gap.hi}`
        : gap[gap.governs]
      : (shown?.says?.figure ?? shown?.piece);
    const ends = gap && gap.lo !== null ? `${gap.lo}–${gap.hi}` : '';
    // a range that is wider than its tile is read in the panel
    // of a piece it is said that it is fitted: by itself its figure would be a gap
    const under = gap ? ends : shown?.says ? shown.says.of : figure ? 'fitted' : '';
    const range = size >= (gap ? ROOMY : FITTED) && under.length * FIGURE < size - 4 ? under : '';
    const large = Math.min(24, size / 2.9);
    const lines = 14 + (figure ? large : 0) + (range ? 15 : 0);
    const baseline = (size - lines) / 2 + 12;
    // the key and its mark stand in the middle together, however long the key is
    // a name that is longer than its tile is read in the panel, and ours stands beside where there is room for both
    const name = makers !== undefined && makers.length * LETTER + MARK < size ? makers : undefined;
    const both = name === undefined ? 0 : (name.length + point.key.length) * LETTER + BESIDE;
    const showsBoth = both > 0 && both + BESIDE + MARK < size;
    const letters = showsBoth ? both : (name ?? point.key).length * LETTER;
    const scale = letters + BESIDE + MARK < size ? 0.82 : 0.62;
    const from = (size - letters - BESIDE - MARK * scale) / 2;
    const spoken = [
      `${point.key}${makers === undefined ? '' : `, the maker’s ${makers}`}, ${ROLE_WORDS[point.role]}`,
      shown?.says?.spoken ?? STATE_WORDS[state],
      shown?.says
        ? ''
        : gap
          ? gap.lo === null
            ? `under ${gap.hi}`
            : `${gap.lo} to ${gap.hi}`
          : figure && `fitted ${figure}`,
      shown?.done ?? '',
      shown?.closed ? 'may be measured here' : '',
      shown?.waiting ? 'waiting to be sent' : '',
    ];
    return (
      <g
        data-point={point.key}
        data-state={state}
        role={selectable ? 'radio' : 'img'}
        aria-checked={selectable ? selected : undefined}
        aria-label={spoken.filter(Boolean).join(', ')}
        tabIndex={selectable ? (focusable ? 0 : -1) : undefined}
        className="zl-head-point"
        style={{ cursor: selectable ? 'pointer' : undefined }}
        transform={`translate(${left} ${top})`}
      >
        <rect
          width={size}
          height={size}
          rx={point.role.startsWith('exhaust') ? 3 : size / 2.6}
          fill={selected ? paint('wash') : paint('paper')}
          stroke={selected ? paint('brass') : paint('faded')}
          strokeWidth={selected ? 3 : 1}
          strokeDasharray={shown?.closed === false ? '3 4' : undefined}
        />
        <text
          x={from + letters / 2}
          y={baseline}
          fontSize="14"
          fontWeight="600"
          fontFamily="var(--zl-fonts-mono)"
          fill={paint('ink')}
          textAnchor="middle"
        >
          {name ?? point.key}
          {showsBoth && (
            <tspan dx={BESIDE} fontWeight="400" fill={paint('faded')}>
              {point.key}
            </tspan>
          )}
        </text>
        <g transform={`translate(${from + letters + BESIDE} ${baseline - 5 - 8 * scale}) scale(${scale})`}>
          <MarkShape state={state} />
        </g>
        {figure && (
          <text
            x={size / 2}
            y={baseline + large}
            // what is longer than a plain figure keeps clear of the mark at the side
            fontSize={
              (shown?.piece && !gap) || figure.length > LONGEST_LARGE ? Math.max(14, large * 0.8) : large
            }
            fontWeight="650"
            fill={paint(gap ? STATE_COLOURS[state] : 'ink')}
            textAnchor="middle"
          >
            {figure}
          </text>
        )}
        {range && (
          <text x={size / 2} y={baseline + large + 16} fontSize="14" fill={paint('ink')} textAnchor="middle">
            {range}
          </text>
        )}
        {shown?.waiting && (
          <circle
            cx="3"
            cy={size - 3}
            r="6"
            fill={paint('raised')}
            stroke={paint('brass')}
            strokeWidth="2.5"
          />
        )}
        {shown?.closed && <rect x="0" y={size * 0.28} width="5" height={size * 0.44} fill={paint('brass')} />}
        {shown?.done && (
          <g transform={`translate(${size - 3} ${size - 3})`}>
            <circle r="8" fill={paint('brass')} stroke={paint('raised')} strokeWidth="2" />
            <path d="M-3.5 0l2.5 3l4.5 -5.5" stroke={paint('paper')} strokeWidth="1.8" fill="none" />
          </g>
        )}
      </g>
    );
  },
  (before, after) =>
    before.place === after.place &&
    before.name === after.name &&
    before.cell === after.cell &&
    before.selected === after.selected &&
    before.focusable === after.focusable &&
    before.selectable === after.selectable &&
    sameShown(before.shown, after.shown),
);
