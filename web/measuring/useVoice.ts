import type { Verdict } from '@zero-lash/core/measuring';
import { useEffect, useRef } from 'react';
import { useAppSelector } from '../app/store.ts';
import { useStable } from '../app/useStable.ts';
import { STATE_WORDS } from '../drawings/states.ts';

/** Whether this browser has a voice to speak with. */
export const hasVoice = () => 'speechSynthesis' in window && window.speechSynthesis.getVoices().length > 0;

/** What each verdict sounds like: Hz, one after the other. A decided one ends, an open one asks. */
const TONES: Readonly<Record<Verdict, readonly number[]>> = {
  'in-spec': [880],
  tight: [220, 165],
  loose: [330, 440],
  undecided: [550],
  'undecided-low': [550],
  'undecided-high': [550],
  conflict: [165, 165],
};
const TONE_SECONDS = 0.12;

/**
 * Says aloud what is to be done next, each time it changes, and each verdict as it comes, where this device was asked to;
 * sounds a tone for each verdict, where it was asked to.
 *
 * @param next such as `2 E. Go, 0.20`
 * @returns tells of a verdict
 */
export function useVoice(next: string): (point: string, verdict: Verdict) => void {
  const { aloud, tones } = useAppSelector((state) => state.preferences);
  const said = useRef('');
  useEffect(() => {
    if (aloud && next !== said.current) say(next);
    said.current = next;
  }, [aloud, next]);
  useEffect(() => () => (hasVoice() ? window.speechSynthesis.cancel() : undefined), []);
  return useStable((point: string, verdict: Verdict) => {
    if (tones) sound(TONES[verdict]);
    if (!aloud) return;
    // what was still being said is overtaken
    if (hasVoice()) window.speechSynthesis.cancel();
    say(`${spelled(point)}: ${STATE_WORDS[verdict]}`);
  });
}

function say(text: string): void {
  if (hasVoice() && text !== '') window.speechSynthesis.speak(new SpeechSynthesisUtterance(text));
}

/** A point's key as it is spoken: letter by letter. */
export function spelled(key: string): string {
  const [point = '', side] = key.split('-');
  return [...(point.match(/\d+|[A-Za-z]/g) ?? []), ...(side ? ['closing'] : [])].join(' ');
}

let context: AudioContext | undefined;

function sound(tones: readonly number[]): void {
  if (!('AudioContext' in window)) return;
  context ??= new AudioContext();
  for (const [index, pitch] of tones.entries()) {
    const from = context.currentTime + index * TONE_SECONDS;
    const [tone, volume] = [context.createOscillator(), context.createGain()];
    tone.frequency.value = pitch;
    volume.gain.setValueAtTime(0.2, from);
    volume.gain.exponentialRampToValueAtTime(0.001, from + TONE_SECONDS);
    tone.connect(volume).connect(context.destination);
    tone.start(from);
    tone.stop(from + TONE_SECONDS);
  }
}
