// @vitest-environment happy-dom
import { fireEvent, screen } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { Crossed } from '../measuring/Crossed.tsx';
import { roundRows } from '../measuring/room.ts';
import { atTheBench, put, reading, round, show } from './shownBench.tsx';

atTheBench();

describe('two readings of one point that were written without seeing each other', () => {
  const mine = { ...reading('1E', 0.2, 0.22, 'in-spec'), id: 'mine', by: 'Tobin Hask' };
  const theirs = { ...reading('1E', 0.16, 0.18, 'tight'), id: 'theirs', by: 'Osk Velland' };

  it('are both told where one comes in late, and stay so as others come', () => {
    const late = { ...theirs, superseded: true, crosses: 'mine' };
    const [after] = roundRows.reading!([round({ readings: [mine] })], late);
    expect(after!.readings).toMatchObject([{ id: 'mine', earlier: 1, crossed: { id: 'theirs' } }]);
    const other = { ...late, id: 'more', crosses: null };
    expect(roundRows.reading!([after!], other)[0]!.readings).toMatchObject([
      { id: 'mine', crossed: { id: 'theirs' } },
    ]);
  });

  it('stand side by side until a person takes one, which is written as what it is', () => {
    show(<Crossed buildId="b" reading={{ ...mine, crossed: theirs }} enabled />);
    expect(screen.getByText(/Tobin Hask read 0.20–0.22 mm, Osk Velland read 0.16–0.18 mm/)).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'Take Osk Velland’s' }));
    expect(put()).toMatchObject([
      {
        kind: 'reading',
        body: {
          point: '1E',
          asTyped: theirs.asTyped,
          over: 'mine',
          reason: 'taken of two: as Osk Velland read it',
        },
      },
    ]);
  });

  it('are nothing to decide for who may not', () => {
    show(<Crossed buildId="b" reading={{ ...mine, crossed: theirs }} enabled={false} />);
    expect(screen.queryByRole('button')).toBeNull();
  });
});
