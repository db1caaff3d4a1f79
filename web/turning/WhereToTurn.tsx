import { Box, Button, Flex } from '@chakra-ui/react';
import type { SheetRevision } from '@zero-lash/contract/sheets';
import { Printer } from 'lucide-react';
import { memo, useMemo } from 'react';
import { PartHeading } from '../app/Page.tsx';
import type { PointState } from '../drawings/states.ts';
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

/** Where to turn in a round: the wheel, the plan by the school chosen, and the card for the wall. */
export const WhereToTurn = memo(function WhereToTurn(props: Props) {
  const { sheet, engine, work, states, selected, onSelect, enabled } = props;
  const { pattern } = sheet;
  const { school, at } = work.turning;
  const wheelStops = useMemo(
    () => work.progress.stops.map(({ stop, place }) => ({ angle: stop.angle, place })),
    [work.progress],
  );
  return (
    <Box as="section">
      <PartHeading>The crank wheel</PartHeading>
      <TurningBoard
        pattern={pattern}
        angle={work.angle}
        onTurn={work.look}
        stops={wheelStops}
        states={states}
        selected={selected}
        onSelect={onSelect}
        label={`Crank wheel of ${engine}`}
      >
        <SchoolChoice school={school} onChoose={work.choose} enabled={enabled} />
        <Flex gap="2" flexWrap="wrap" alignItems="center">
          {enabled && work.angle !== at && (
            <Button onClick={() => work.standAt(work.angle)}>The crank stands here</Button>
          )}
          {enabled && at !== null && (
            <Button variant="plain" onClick={() => work.standAt(null)}>
              I have lost my place
            </Button>
          )}
          <a
            href={`/api/sheet-revisions/${sheet.id}/stop-card?school=${school}`}
            target="_blank"
            rel="noreferrer"
            className="zl-tool"
          >
            <Printer size={18} aria-hidden /> Stop card (PDF)
          </a>
        </Flex>
      </TurningBoard>
      <Box marginTop="4">
        <StopList
          pattern={pattern}
          stops={work.progress.stops}
          unreachable={work.unreachable}
          onLook={work.look}
        />
      </Box>
    </Box>
  );
});
