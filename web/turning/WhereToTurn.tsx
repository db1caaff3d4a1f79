import { Box, Button, Flex } from '@chakra-ui/react';
import type { SheetRevision } from '@zero-lash/contract/sheets';
import { Printer } from 'lucide-react';
import { memo, useMemo, useState } from 'react';
import { PartHeading } from '../app/Page.tsx';
import type { PointState } from '../drawings/states.ts';
import { GearAndLift } from './GearAndLift.tsx';
import { SchoolChoice } from './SchoolChoice.tsx';
import { StopList } from './StopList.tsx';
import { TurningBoard } from './TurningBoard.tsx';
import type { TurningWork } from './useTurning.ts';

interface Props {
  /** whose revision the stop card is printed from */
  readonly sheet: SheetRevision;
  readonly engine: string;
  readonly work: TurningWork;
  readonly states: Readonly<Record<string, PointState>>;
  readonly selected: string;
  readonly onSelect: (key: string) => void;
  readonly enabled: boolean;
}

/** Where to turn in a round: the wheel and the ruler; and, when asked for, the plan, its school, and the valve gear. */
export const WhereToTurn = memo(function WhereToTurn(props: Props) {
  const { sheet, engine, work, states, selected, onSelect, enabled } = props;
  const { pattern } = sheet;
  const { school } = work;
  const { at } = work.turning;
  const [whole, setWhole] = useState(false);
  const stops = useMemo(
    () => work.progress.stops.map(({ stop, place }) => ({ ...stop, place })),
    [work.progress],
  );
  return (
    <section>
      {school === 'cam-by-hand' ? (
        // no crank is turned: only the way back to one is offered
        <SchoolChoice pattern={pattern} school={school} onChoose={work.choose} enabled={enabled} />
      ) : (
        <>
          <Heading />
          <TurningBoard
            pattern={pattern}
            angle={work.angle}
            onTurn={work.look}
            stops={stops}
            states={states}
            selected={selected}
            onSelect={onSelect}
            of={engine}
          />
        </>
      )}
      {school !== 'cam-by-hand' && (
        <Controls
          here={enabled && work.angle !== at ? work.angle : null}
          placed={enabled && at !== null}
          whole={whole}
          onStand={work.standAt}
          onWhole={setWhole}
        />
      )}
      {whole && school !== 'cam-by-hand' && (
        <Box display="grid" gap="4" marginTop="3">
          <Flex gap="4" flexWrap="wrap" alignItems="flex-end">
            <SchoolChoice pattern={pattern} school={school} onChoose={work.choose} enabled={enabled} />
            <StopCard sheetId={sheet.id} school={school} />
          </Flex>
          <StopList
            pattern={pattern}
            stops={work.progress.stops}
            unreachable={work.unreachable}
            onLook={work.look}
          />
          <GearAndLift pattern={pattern} angle={work.angle} selected={selected} onSelect={onSelect} />
        </Box>
      )}
    </section>
  );
});

const Heading = memo(function Heading() {
  return <PartHeading>The crank wheel</PartHeading>;
});

interface ControlsProps {
  /** where the wheel was turned to, which the crank was not said to stand at; null where it was */
  readonly here: number | null;
  /** it is known where the crank stands */
  readonly placed: boolean;
  readonly whole: boolean;
  readonly onStand: (angle: number | null) => void;
  readonly onWhole: (whole: boolean) => void;
}

const Controls = memo(function Controls({ here, placed, whole, onStand, onWhole }: ControlsProps) {
  return (
    <Flex gap="2" flexWrap="wrap" alignItems="center" marginTop="2">
      {here !== null && <Button onClick={() => onStand(here)}>The crank stands here</Button>}
      {placed && (
        <Button variant="plain" onClick={() => onStand(null)}>
          I have lost my place
        </Button>
      )}
      <Button variant="plain" aria-expanded={whole} onClick={() => onWhole(!whole)}>
        {whole ? 'Less' : 'The whole plan, valve gear and lift'}
      </Button>
    </Flex>
  );
});

/** The card of the stops for the wall. */
export function StopCard({ sheetId, school }: { readonly sheetId: string; readonly school: string }) {
  return (
    <a
      href={`/api/sheet-revisions/${sheetId}/stop-card?school=${school}`}
      target="_blank"
      rel="noreferrer"
      className="zl-tool"
    >
      <Printer size={18} aria-hidden /> Stop card (PDF)
    </a>
  );
}
