import { camsOf, journalsOf, lobesOf, type Pattern } from '@zero-lash/core/sheets';
import {
  characteristicOf,
  placesOf,
  wearAt,
  type Characteristic,
  type WearSheet,
} from '@zero-lash/core/wear';
import { memo, useMemo } from 'react';
import { GRADE_WORDS, GradeShape } from './GradeMark.tsx';
import { paint } from './states.ts';

interface Props {
  readonly pattern: Pattern;
  readonly sheet: WearSheet;
}

const HEIGHT = 122;
const MIDDLE = 52;
const SHAFT = 12;
const JOURNAL = { width: 20, height: 40 };
const LOBE_WIDTH = 13;
/** A mark and its place's name need so much room along the shaft. */
const STEP = 46;
const EDGE = 16;

/** Each camshaft along its length, front at the left: its lobes and journals in their order, each with what it comes to. */
export const CamDrawing = memo(function CamDrawing({ pattern, sheet }: Props) {
  const cams = useMemo(
    () => camsOf(pattern).map((cam) => ({ cam, parts: partsAlong(pattern, cam) })),
    [pattern],
  );
  return (
    <div style={{ overflowX: 'auto' }} tabIndex={0} role="region" aria-label="Camshafts">
      {cams.map(({ cam, parts }) => (
        <svg
          key={cam}
          width={parts.length * STEP + 2 * EDGE}
          height={HEIGHT}
          role="group"
          aria-label={`${cam}, front at the left`}
          style={{ display: 'block' }}
          fontFamily="var(--zl-fonts-body)"
        >
          <text x={EDGE} y={14} fontSize="14" fontWeight="650" fill={paint('ink')}>
            {cam}
          </text>
          <rect
            x={EDGE - 8}
            y={MIDDLE - SHAFT / 2}
            width={parts.length * STEP + 16}
            height={SHAFT}
            fill={paint('raised')}
            stroke={paint('faded')}
          />
          {parts.map(({ place, item }, index) => (
            <Part key={place} {...{ place, item, pattern, sheet }} x={EDGE + (index + 0.5) * STEP} />
          ))}
        </svg>
      ))}
    </div>
  );
});

interface Along {
  readonly place: string;
  readonly item: 'lobe' | 'journal';
}

/** Journals at both ends and between the cylinders, lobes between them. */
function partsAlong(pattern: Pattern, cam: string): Along[] {
  const lobes = lobesOf(pattern, cam);
  const journals = journalsOf(pattern, cam);
  const between = Math.ceil(lobes.length / Math.max(1, journals.length - 1));
  return journals.flatMap((journal, index): Along[] => [
    { place: journal, item: 'journal' },
    ...lobes.slice(index * between, (index + 1) * between).map((place): Along => ({ place, item: 'lobe' })),
  ]);
}

interface PartProps extends Along, Props {
  readonly x: number;
}

function Part({ place, item, pattern, sheet, x }: PartProps) {
  const characteristic = characteristicOf(item) as Characteristic;
  const there = wearAt(
    sheet,
    pattern,
    characteristic,
    placesOf(pattern, characteristic).find(({ key }) => key === place)!,
  );
  const name = item === 'journal' ? place.replace(/^.* /, '') : place;
  const spoken = there?.verdict ? GRADE_WORDS[there.verdict] : there ? 'no limit' : 'not measured';
  return (
    <g role="img" aria-label={`${item} ${name}: ${spoken}`}>
      {item === 'journal' ? (
        <rect
          x={x - JOURNAL.width / 2}
          y={MIDDLE - JOURNAL.height / 2}
          width={JOURNAL.width}
          height={JOURNAL.height}
          fill={paint('paper')}
          stroke={paint('ink')}
        />
      ) : (
        <path
          d={`M${x - LOBE_WIDTH / 2} ${MIDDLE - 12}q0 -14 ${LOBE_WIDTH / 2} -16q${LOBE_WIDTH / 2} 2 ${LOBE_WIDTH / 2} 16v24h${-LOBE_WIDTH}z`}
          fill={paint('wash')}
          stroke={paint('ink')}
        />
      )}
      {there && (
        <g transform={`translate(${x - 8} ${MIDDLE + 27})`}>
          <GradeShape grade={there.verdict} />
        </g>
      )}
      <text
        x={x}
        y={HEIGHT - 6}
        textAnchor="middle"
        fontSize="14"
        fill={paint('faded')}
        fontFamily="var(--zl-fonts-mono)"
      >
        {name}
      </text>
    </g>
  );
}
