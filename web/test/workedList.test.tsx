// @vitest-environment happy-dom
import { fireEvent, screen } from '@testing-library/react';
import { useState } from 'react';
import { expect, it } from 'vitest';
import { WorkedList } from '../app/WorkedList.tsx';
import { atTheBench, show } from './shownBench.tsx';

atTheBench();

function Questions() {
  const [left, setLeft] = useState(['1I', '2I', '3I']);
  return (
    <>
      <button
        onClick={() => setLeft(['0X', ...left, '2I'].filter((key, at, all) => all.indexOf(key) === at))}
      >
        more
      </button>
      <div data-testid="list">
        <WorkedList items={left} keyOf={(key) => key} answered="Answered.">
          {(key) => (
            <button onClick={() => setLeft(left.filter((each) => each !== key))}>{`answer ${key}`}</button>
          )}
        </WorkedList>
      </div>
    </>
  );
}

it('a list that is worked off keeps each where it is: what is answered leaves its place, what is new comes last', () => {
  show(<Questions />);
  const places = () => [...screen.getByTestId('list').children].map((place) => place.textContent);
  const third = screen.getByText('answer 3I');
  fireEvent.click(screen.getByText('answer 1I'));
  fireEvent.click(screen.getByText('answer 2I'));
  expect(places()).toEqual(['Answered.', 'Answered.', 'answer 3I']);
  fireEvent.click(screen.getByText('more'));
  // what is asked again is asked in its own place
  expect(places()).toEqual(['Answered.', 'answer 2I', 'answer 3I', 'answer 0X']);
  expect(screen.getByText('answer 3I')).toBe(third);
});
