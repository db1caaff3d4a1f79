// @vitest-environment happy-dom
import { act, render, screen } from '@testing-library/react';
import { Component, type ReactNode } from 'react';
import { describe, expect, it } from 'vitest';
import { onDemand, useFetched } from '../app/onDemand.tsx';

interface Says {
  readonly says: string;
}
const Said = ({ says }: Says) => <p>{says}</p>;

/** A part that comes, or fails to, when it is told to. */
function part() {
  const asked: { come: () => void; fail: () => void }[] = [];
  const load = () =>
    new Promise<typeof Said>((resolve, reject) => {
      asked.push({ come: () => resolve(Said), fail: () => reject(new Error('gone')) });
    });
  return { asked, Part: onDemand<Says>(load, <p>to come</p>) };
}

class Boundary extends Component<{ readonly children: ReactNode }, { readonly broke: string | null }> {
  override state = { broke: null };
  static getDerivedStateFromError = (error: Error) => ({ broke: error.message });
  override render() {
    return this.state.broke ?? this.props.children;
  }
}

describe('a part that is fetched when it is first shown', () => {
  it('is drawn in the very turn in which it comes, and at once from then on; it is fetched once', async () => {
    const { asked, Part } = part();
    const first = render(
      <>
        <Part says="one" />
        <Part says="two" />
      </>,
    );
    expect(first.container.textContent).toBe('to cometo come');
    await act(async () => asked[0]!.come());
    expect(first.container.textContent).toBe('onetwo');
    expect(asked).toHaveLength(1);
    expect(render(<Part says="three" />).container.textContent).toBe('three');
    expect(asked).toHaveLength(1);
  });

  it('is drawn where it came between its drawing and the moment it would be fetched', async () => {
    // comes at once, for the first of two that were drawn without it
    const atOnce = { then: (come: (part: typeof Said) => void) => Promise.resolve(come(Said)) };
    const Part = onDemand<Says>(() => atOnce as never);
    const { container } = render(
      <>
        <Part says="one" />
        <Part says="two" />
      </>,
    );
    await act(async () => undefined);
    expect(container.textContent).toBe('onetwo');
  });

  it('breaks the page that cannot have it, and is fetched again the next time', async () => {
    const { asked, Part } = part();
    const { container } = render(
      <Boundary>
        <Part says="one" />
      </Boundary>,
    );
    await act(async () => asked[0]!.fail());
    expect(container.textContent).toBe('gone');
    const again = render(<Part says="one" />);
    await act(async () => asked[1]!.come());
    expect(again.container.textContent).toBe('one');
  });

  it('is known to be here or not by what stands beside it; what comes with every page is here', async () => {
    const { asked, Part } = part();
    const Beside = ({ of }: { readonly of: object | undefined }) => (useFetched(of) ? 'here' : 'not yet');
    render(
      <p data-testid="beside">
        <Beside of={Part} /> <Beside of={Said} /> <Beside of={undefined} />
      </p>,
    );
    expect(screen.getByTestId('beside').textContent).toBe('not yet here here');
    await act(async () => asked[0]!.come());
    expect(screen.getByTestId('beside').textContent).toBe('here here here');
  });
});
