import type { Pattern } from '@zero-lash/core/sheets';
import { POSITION_SCHOOLS, schoolsFor, type PositionSchool } from '@zero-lash/core/turning';
import { memo } from 'react';
import { Labelled, Select } from '../app/Labelled.tsx';

interface Props {
  readonly pattern: Pattern;
  readonly school: PositionSchool;
  readonly onChoose: (school: PositionSchool) => void;
  readonly enabled?: boolean;
  /** only the schools by which a crank is turned */
  readonly ofCrank?: boolean;
}

/** The schools of where to stop the crank, and what tells them apart in a line. */
export const SchoolChoice = memo(function SchoolChoice(props: Props) {
  const { pattern, school, onChoose, enabled = true, ofCrank = false } = props;
  const line = POSITION_SCHOOLS.find(({ key }) => key === school)?.line;
  return (
    <Labelled label="Where to turn" hint={line}>
      <Select
        value={school}
        disabled={!enabled}
        onChange={(event) => onChoose(event.target.value as PositionSchool)}
      >
        {schoolsFor(pattern)
          .filter(({ key }) => !ofCrank || key !== 'cam-by-hand')
          .map(({ key, name }) => (
            <option key={key} value={key}>
              {name}
            </option>
          ))}
      </Select>
    </Labelled>
  );
});
