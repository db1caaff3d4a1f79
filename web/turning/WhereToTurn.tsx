import { Box, Button, Flex } from '@chakra-ui/react';
import type { BuildView } from '../builds/buildView.ts';
import { Printer } from 'lucide-react';
import { useMemo } from 'react';
import { PartHeading } from '../app/Page.tsx';
import type { HeadPoint } from '../drawings/HeadMap.tsx';
import { SchoolChoice } from './SchoolChoice.tsx';
import { StopList } from './StopList.tsx';
import { TurningBoard } from './TurningBoard.tsx';
import type { TurningWork } from './useTurning.ts';

interface Props {
  readonly build: BuildView;
  readonly work: TurningWork;
  readonly states: Readonly<Record<string, HeadPoint>>;
  readonly selected: string;
  readonly onSelect: (key: string) => void;
  readonly enabled: boolean;
}

/** Where to turn in a round: the wheel, the plan by the school chosen, and the card for the wall. */
export function WhereToTurn({ build, work, states, selected, onSelect, enabled }: Props) {
  const { pattern } = build.sheet;
  const { school, at } = work.turning;
  const pointStates = useMemo(
    () => Object.fromEntries(Object.entries(states).map(([key, { state }]) => [key, state])),
    [states],
  );
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
        states={pointStates}
        selected={selected}
        onSelect={onSelect}
        label={`Crank wheel of ${build.engine.name}`}
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
            href={`/api/sheet-revisions/${build.sheet.id}/stop-card?school=${school}`}
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
}
