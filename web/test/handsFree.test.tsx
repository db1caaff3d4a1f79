// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { ChakraProvider } from '@chakra-ui/react';
import { cleanup, fireEvent, render, renderHook, screen } from '@testing-library/react';
import type { ReactElement, ReactNode } from 'react';
import { Provider } from 'react-redux';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { aloudChosen, pedalTaught, tonesChosen } from '../app/preferences.ts';
import { store } from '../app/store.ts';
import { system } from '../app/theme.ts';
import { HandsFree } from '../measuring/HandsFree.tsx';
import { usePedal, whyNotTaught } from '../measuring/usePedal.ts';
import { spelled, useVoice } from '../measuring/useVoice.ts';

const around = ({ children }: { readonly children: ReactNode }) => (
  <Provider store={store}>
    <ChakraProvider value={system}>{children}</ChakraProvider>
  </Provider>
);
const show = (element: ReactElement) => render(element, { wrapper: around });
const taught = () => store.getState().preferences.pedal;

afterEach(() => {
  cleanup();
  for (const action of ['goes', 'wont', 'next', 'back'] as const)
    store.dispatch(pedalTaught({ action, key: null }));
  store.dispatch(aloudChosen(false));
  store.dispatch(tonesChosen(false));
  vi.unstubAllGlobals();
});

describe('a pedal', () => {
  const teach = (words: string) => fireEvent.click(screen.getByLabelText(`Teach the key for ${words}`));

  it('is taught by pressing it, and a key taught twice does the later thing only', () => {
    show(<HandsFree />);
    teach('goes');
    fireEvent.keyDown(window, { key: 'PageDown' });
    teach('won’t');
    fireEvent.keyDown(window, { key: 'PageUp' });
    expect(taught()).toEqual({ goes: 'PageDown', wont: 'PageUp' });
    teach('next point, or “In position”');
    fireEvent.keyDown(window, { key: 'PageDown' });
    expect(taught()).toEqual({ wont: 'PageUp', next: 'PageDown' });
    fireEvent.click(screen.getByLabelText('Forget the key for won’t'));
    expect(taught()).toEqual({ next: 'PageDown' });
  });

  it('is not taught a key that types figures or answers, and Escape teaches nothing', () => {
    show(<HandsFree />);
    teach('goes');
    for (const key of ['5', ',', 'g', 'W', 'Tab', 'Backspace']) {
      fireEvent.keyDown(window, { key });
      expect(screen.getByRole('alert').textContent, key).toBe(whyNotTaught(key));
    }
    fireEvent.keyDown(window, { key: 'Escape' });
    fireEvent.keyDown(window, { key: 'F8' });
    expect(taught()).toEqual({});
  });

  it('does its one thing once a press, and nothing of what the key does otherwise', () => {
    store.dispatch(pedalTaught({ action: 'goes', key: 'PageDown' }));
    const goes = vi.fn();
    const otherwise = vi.fn();
    const nothing = () => undefined;
    renderHook(() => usePedal({ goes, wont: nothing, next: nothing, back: nothing }), { wrapper: around });
    document.body.addEventListener('keydown', otherwise);
    const press = (more: object = {}) =>
      fireEvent.keyDown(document.body, { key: 'PageDown', cancelable: true, ...more });
    expect(press()).toBe(false);
    press({ repeat: true });
    expect(goes).toHaveBeenCalledTimes(1);
    expect(otherwise).not.toHaveBeenCalled();
    press({ ctrlKey: true });
    fireEvent.keyDown(document.body, { key: 'F8' });
    expect(goes).toHaveBeenCalledTimes(1);
    expect(otherwise).toHaveBeenCalledTimes(2);
    document.body.removeEventListener('keydown', otherwise);
  });

  it('leaves typing alone: a note typed with its key writes no reading', () => {
    store.dispatch(pedalTaught({ action: 'goes', key: ' ' }));
    const goes = vi.fn();
    const nothing = () => undefined;
    renderHook(() => usePedal({ goes, wont: nothing, next: nothing, back: nothing }), { wrapper: around });
    const into = (make: () => HTMLElement) => {
      const field = make();
      document.body.append(field);
      fireEvent.keyDown(field, { key: ' ', bubbles: true });
      field.remove();
    };
    const input =
      (type: string, value = '', className = '') =>
      () =>
        Object.assign(document.createElement('input'), { type, value, className });
    into(() => document.createElement('textarea'));
    into(input('text'));
    into(input('text', '0.1', 'entry-text'));
    expect(goes).not.toHaveBeenCalled();
    // the empty entry of a gap, and what takes no text, are no typing
    into(input('text', '', 'entry-text'));
    into(input('checkbox'));
    expect(goes).toHaveBeenCalledTimes(2);
  });
});

describe('the voice', () => {
  const spoken: string[] = [];
  const voice = (voices: readonly object[]) => {
    spoken.length = 0;
    vi.stubGlobal(
      'SpeechSynthesisUtterance',
      class {
        readonly text: string;
        constructor(text: string) {
          this.text = text;
        }
      },
    );
    vi.stubGlobal('speechSynthesis', {
      getVoices: () => voices,
      speak: ({ text }: { text: string }) => spoken.push(text),
      cancel: () => undefined,
      addEventListener: () => undefined,
      removeEventListener: () => undefined,
    });
  };
  const listen = () =>
    renderHook(({ next }: { readonly next: string }) => useVoice(next), {
      wrapper: around,
      initialProps: { next: '1 I. Go, 0.20' },
    });

  it('says nothing unless it is asked to, then each thing once, and each verdict as it comes', () => {
    voice([{}]);
    const silent = listen();
    silent.result.current('1I', 'in-spec');
    silent.rerender({ next: '1 E. Go, 0.30' });
    expect(spoken).toEqual([]);
    silent.unmount();
    store.dispatch(aloudChosen(true));
    const aloud = listen();
    aloud.rerender({ next: '1 I. Go, 0.20' });
    aloud.result.current('3Ea', 'tight');
    aloud.rerender({ next: '1 E. Go, 0.30' });
    expect(spoken).toEqual(['1 I. Go, 0.20', '3 E a: tight', '1 E. Go, 0.30']);
  });

  it('is not offered where the browser has none', () => {
    voice([]);
    show(<HandsFree />);
    expect(screen.getByLabelText(/Say the next point/)).toHaveProperty('disabled', true);
    expect(screen.getByText('this browser has no voice')).toBeTruthy();
  });

  it('spells a point letter by letter', () => {
    expect(['2E', '12Ia', '1I-c'].map(spelled)).toEqual(['2 E', '12 I a', '1 I closing']);
  });
});
