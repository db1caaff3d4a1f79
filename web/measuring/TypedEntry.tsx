import {
  parseEntry,
  parseTries,
  parseTry,
  thicknessOf,
  type MeasuredPoint,
  type Reading,
  type Try,
} from '@zero-lash/core/measuring';
import type { Step } from '@zero-lash/core/sheets';
import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { useLengths, useUnit } from '../app/lengths.ts';
import { useShortcut } from '../app/useShortcut.ts';
import { shortcutsToggled, unitChosen } from '../app/preferences.ts';
import { useAppDispatch, useAppSelector } from '../app/store.ts';
import { draftKey, draftTyped } from '../app/drafts.ts';
import { Keypad } from './Keypad.tsx';
import type { RoundHere } from './pending.ts';
import { heldThickness } from './tryWords.ts';
import type { BenchTools } from '../instruments/useBench.ts';
import type { Offer } from './useMeasure.ts';
import { asRead } from './usePreview.ts';
import type { TriesWork } from './useTries.ts';

interface Props {
  readonly round: RoundHere;
  readonly point: MeasuredPoint;
  readonly bench: BenchTools;
  /** what to beware of before a reading is taken here */
  readonly caution: string | null;
  readonly work: TriesWork;
  /** one figure is an indicator's value, not a blade with a drag */
  readonly asIndicator: boolean;
  readonly withKeypad: boolean;
  readonly measuredBefore: boolean;
  readonly onOffer: (offer: Offer) => void;
  readonly onAsk: (offer: Offer, lengths: readonly number[], meant: readonly Reading[]) => void;
  readonly onTries: (more: readonly Try[]) => void;
  readonly onTakeBack: () => void;
  readonly onFinish: () => void;
  readonly onWalk: (step: Step) => void;
  /** the crank stands at the stop it was being turned to */
  readonly onArrive: () => void;
  /** mm, where a gap is likely to lie here: what lies far outside is asked about */
  readonly expects: { readonly min: number; readonly max: number };
}

const FIGURE = /^[\d.,<>]$/;

const STEPS: Readonly<Record<string, Step>> = {
  ArrowLeft: 'left',
  ArrowRight: 'right',
  ArrowUp: 'up',
  ArrowDown: 'down',
};

/** Where a gap is typed: one length, a bracket, one side, or a blade with what it does (g, d, w). */
export function TypedEntry(props: Props) {
  const { round, point, bench, caution, work, asIndicator, withKeypad, measuredBefore, expects } = props;
  const { onOffer, onAsk, onTries, onTakeBack, onFinish, onWalk, onArrive } = props;
  const { unit } = useLengths();
  const dispatch = useAppDispatch();
  const key = draftKey(round.id, point.key);
  const text = useAppSelector((state) => state.drafts[key] ?? '');
  const [complained, setComplained] = useState<{ readonly key: string; readonly text: string } | null>(null);
  const complaint = complained?.key === key ? complained.text : null;
  const shortcuts = useAppSelector((state) => state.preferences.shortcuts);
  const input = useRef<HTMLInputElement>(null);

  useEffect(() => {
    if (window.matchMedia('(pointer: fine)').matches) input.current?.focus({ preventScroll: true });
  }, [point.key]);

  // whatever was clicked last, a figure that is typed goes here
  const pageUnit = useUnit();
  useShortcut('*', ({ key: pressed }) => void (FIGURE.test(pressed) && input.current?.focus()));

  const meant = (reading: Reading) => asRead(reading, asIndicator, bench.indicator);

  function type(next: string) {
    setComplained(null);
    dispatch(draftTyped({ key, text: next }));
  }

  /** A blade is typed as it is stamped, and goes by how thick it is. */
  const asThick = (one: Try): Try => ({ ...one, thickness: thicknessOf(bench.fan, one.thickness) });

  function submit() {
    if (text.trim() === '' && work.tries.length > 0) return onFinish();
    const typed = asIndicator ? null : parseTries(text, unit);
    if (typed) return put(typed.map(asThick));
    const entry = parseEntry(text, unit, expects);
    if ('error' in entry) return setComplained({ key, text: entry.error });
    // one side by a blade is a try like any other: with the next one it makes a bracket
    const side = asIndicator || entry.doubts.length > 0 ? null : oneSide(entry.reading);
    if (side) return put([asThick(side)]);
    const offer: Offer = {
      reading: meant(entry.reading),
      asTyped: text.trim(),
      instrumentId: (asIndicator ? bench.indicator?.id : bench.bladeSet?.id) ?? null,
    };
    // what is typed stays until it is kept: whoever is asked about it may want to change it
    if (entry.doubts.length > 0) onAsk(offer, entry.doubts, entry.meant.map(meant));
    else onOffer(offer);
  }

  function put(tries: readonly Try[]) {
    type('');
    onTries(tries);
  }

  function onKeyDown(event: KeyboardEvent) {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const taken = onKey(event.key);
    if (taken) event.preventDefault();
  }

  /** What a key does here beyond typing; true where it did something. */
  function onKey(pressed: string): boolean {
    const empty = text === '';
    const step = STEPS[pressed];
    if (step && empty) {
      onWalk(step);
      return true;
    }
    if (shortcuts && empty && pressed === '?') {
      dispatch(shortcutsToggled());
      return true;
    }
    if (shortcuts && empty && pressed.toLowerCase() === 'i') {
      onArrive();
      return true;
    }
    if (shortcuts && empty && pressed.toLowerCase() === 'u') {
      dispatch(unitChosen(pageUnit === 'mm' ? 'thou' : 'mm'));
      return true;
    }
    if (pressed === 'Escape') {
      type('');
      return true;
    }
    if (asIndicator) return false;
    if (pressed === 'Backspace' && empty && work.tries.length > 0) {
      onTakeBack();
      return true;
    }
    if (pressed.toLowerCase() === 'n' && empty && work.suggested) {
      work.hold(work.suggested.blades);
      return true;
    }
    const thickness = empty && work.held.length > 0 ? `${heldThickness(work.held)}mm` : text;
    const one = parseTry(thickness, pressed, unit);
    // neither begins an entry: with no blade in the hand, and none that would settle it, they say nothing
    if (!one) return empty && /^[dn]$/i.test(pressed);
    put([one]);
    return true;
  }

  return (
    <>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          submit();
        }}
      >
        <div className="entry-row">
          <input
            ref={input}
            className="entry-text"
            value={text}
            onChange={(event) => type(event.target.value)}
            onKeyDown={onKeyDown}
            inputMode={withKeypad ? 'none' : 'decimal'}
            autoComplete="off"
            aria-label={`Gap at ${point.key}, in ${unit} unless you write another unit`}
            aria-invalid={complaint ? true : undefined}
            aria-describedby="entry-note"
            maxLength={40}
          />
          <button type="submit" className="pad pad-solid">
            {measuredBefore ? 'Replace' : 'Keep'}
          </button>
        </div>
        <div id="entry-note" className={noteLook(complaint, caution)} aria-live="polite">
          {complaint ?? caution ?? hint(asIndicator)}
        </div>
      </form>
      {withKeypad && <Keypad text={text} onType={type} onEnter={submit} />}
    </>
  );
}

/** What a blade did, where one side is all that was typed. */
function oneSide(reading: Reading): Try | null {
  if (reading.kind === 'go-only') return { thickness: reading.go, result: 'goes' };
  return reading.kind === 'no-go-only' ? { thickness: reading.noGo, result: 'wont' } : null;
}

function noteLook(complaint: string | null, caution: string | null): string {
  if (complaint) return 'entry-note entry-wrong';
  return caution ? 'entry-note entry-caution' : 'entry-note';
}

const hint = (asIndicator: boolean) =>
  asIndicator
    ? 'The indicator’s value. Other units as 6 thou, 150 um, .006"'
    : 'A blade and g, d or w: goes, drags, won’t. Or one with a drag, or two: goes, will not.';
