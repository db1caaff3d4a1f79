// @vitest-environment happy-dom
import { ChakraProvider } from '@chakra-ui/react';
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { afterEach, describe, expect, it } from 'vitest';
import { Labelled } from '../app/Labelled.tsx';
import { system } from '../app/theme.ts';

afterEach(cleanup);

function Form() {
  const [left, setLeft] = useState(false);
  return (
    <ChakraProvider value={system}>
      <Labelled label="Limit" error={left ? 'A number is missing here.' : undefined}>
        <input onBlur={() => setLeft(true)} />
      </Labelled>
      <button type="button">Add</button>
    </ChakraProvider>
  );
}

describe('what a field says of itself', () => {
  it('does not move the page between the press of a button and its release', async () => {
    render(<Form />);
    fireEvent.pointerDown(screen.getByRole('button', { name: 'Add' }));
    fireEvent.blur(screen.getByLabelText('Limit'));
    expect(screen.queryByText('A number is missing here.')).toBeNull();
    fireEvent.pointerUp(screen.getByRole('button', { name: 'Add' }));
    // the click that is made of the two comes first
    expect(screen.queryByText('A number is missing here.')).toBeNull();
    await act(() => new Promise((resolve) => setTimeout(resolve)));
    expect(screen.getByText('A number is missing here.')).toBeTruthy();
  });

  it('is said at once where a field is left by a key', () => {
    render(<Form />);
    fireEvent.blur(screen.getByLabelText('Limit'));
    expect(screen.getByText('A number is missing here.')).toBeTruthy();
  });
});
