import { Box } from '@chakra-ui/react';
import type { SheetRevision } from '@zero-lash/contract/sheets';
import { planStops, type PositionSchool } from '@zero-lash/core/turning';
import { Printer } from 'lucide-react';
import { useMemo, useState } from 'react';
import { PartHeading } from '../app/Page.tsx';
import { SchoolChoice } from './SchoolChoice.tsx';
import { StopList } from './StopList.tsx';
import { TurningBoard } from './TurningBoard.tsx';

/** Where to turn an engine of a sheet's pattern, by each school, before anybody stands at one. */
export function SheetTurning({ sheet }: { readonly sheet: SheetRevision }) {
  const { pattern } = sheet;
  const [school, setSchool] = useState<PositionSchool>('fewest');
  const [angle, setAngle] = useState(0);
  const [selected, setSelected] = useState<string | null>(null);
  const plan = useMemo(() => planStops(pattern, school), [pattern, school]);
  const stops = useMemo(
    () => plan.stops.map((stop) => ({ stop, angle: stop.angle, place: 'to-come' as const })),
    [plan],
  );
  return (
    <Box as="section">
      <PartHeading>Where to turn</PartHeading>
      <TurningBoard
        pattern={pattern}
        angle={angle}
        onTurn={setAngle}
        stops={stops}
        selected={selected}
        onSelect={setSelected}
        label={`Crank wheel of the ${sheet.maker} ${sheet.name}`}
      >
        <SchoolChoice school={school} onChoose={setSchool} />
        <a
          href={`/api/sheet-revisions/${sheet.id}/stop-card?school=${school}`}
          target="_blank"
          rel="noreferrer"
          className="zl-tool"
        >
          <Printer size={18} aria-hidden /> Stop card (PDF)
        </a>
      </TurningBoard>
      <Box marginTop="4">
        <StopList pattern={pattern} stops={stops} unreachable={plan.unreachable} onLook={setAngle} />
      </Box>
    </Box>
  );
}
