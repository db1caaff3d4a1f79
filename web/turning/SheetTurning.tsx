import { Box, Flex } from '@chakra-ui/react';
import type { SheetRevision } from '@zero-lash/contract/sheets';
import { firstSchool, planStops, type PositionSchool } from '@zero-lash/core/turning';
import { useMemo, useState } from 'react';
import { PartHeading } from '../app/Page.tsx';
import { GearAndLift } from './GearAndLift.tsx';
import { SchoolChoice } from './SchoolChoice.tsx';
import { TableDifferences } from './TableDifferences.tsx';
import { StopList } from './StopList.tsx';
import { TurningBoard } from './TurningBoard.tsx';
import { StopCard } from './WhereToTurn.tsx';

/** Where to turn an engine of a sheet's pattern, by each school, before anybody stands at one. */
export function SheetTurning({ sheet }: { readonly sheet: SheetRevision }) {
  const { pattern } = sheet;
  const [school, setSchool] = useState<PositionSchool>(firstSchool(pattern));
  const [angle, setAngle] = useState(0);
  const [selected, setSelected] = useState<string | null>(null);
  const plan = useMemo(() => planStops(pattern, school), [pattern, school]);
  const stops = useMemo(
    () =>
      plan.stops.map((stop) => ({
        ...{ ...stop, stop },
        place: 'to-come' as const,
      })),
    [plan],
  );
  return (
    <Box as="section">
      <PartHeading>Where to turn</PartHeading>
      <Flex gap="4" flexWrap="wrap" alignItems="flex-end" marginBottom="3">
        <SchoolChoice ofCrank pattern={pattern} school={school} onChoose={setSchool} />
        <StopCard sheetId={sheet.id} school={school} />
      </Flex>
      <TurningBoard
        pattern={pattern}
        angle={angle}
        onTurn={setAngle}
        stops={stops}
        selected={selected}
        onSelect={setSelected}
        of={`the ${sheet.maker} ${sheet.name}`}
      />
      <Box display="grid" gap="4" marginTop="4">
        <TableDifferences pattern={pattern} />
        <StopList pattern={pattern} stops={stops} unreachable={plan.unreachable} onLook={setAngle} />
        <GearAndLift pattern={pattern} angle={angle} selected={selected} onSelect={setSelected} />
      </Box>
    </Box>
  );
}
