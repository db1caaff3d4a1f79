import { POSITION_SCHOOLS, type PositionSchool } from '@zero-lash/core/turning';
import { memo } from 'react';
import { Labelled, Select } from '../app/Labelled.tsx';

interface Props {
  readonly school: PositionSchool;
  readonly onChoose: (school: PositionSchool) => void;
  readonly enabled?: boolean;
}

/** The schools of where to stop the crank, and what tells them apart in a line. */
export const SchoolChoice = memo(function SchoolChoice({ school, onChoose, enabled = true }: Props) {
  const line = POSITION_SCHOOLS.find(({ key }) => key === school)?.line;
  return (
    <Labelled label="Where to turn" hint={line}>
      <Select
        value={school}
        disabled={!enabled}
        onChange={(event) => onChoose(event.target.value as PositionSchool)}
      >
        {POSITION_SCHOOLS.map(({ key, name }) => (
          <option key={key} value={key}>
            {name}
          </option>
        ))}
      </Select>
    </Labelled>
  );
});
