import {
  foresee,
  type Blade,
  type HeldBlades,
  type MeasuredPoint,
  type Try,
  type TryResult,
} from '@zero-lash/core/measuring';
import type { ShopUnit } from '@zero-lash/core/length';
import { useBladeNames } from '../instruments/useBladeNames.ts';
import { TRY_WORDS } from '@zero-lash/core/measuring';
import { foreseenInWords, heldThickness } from './tryWords.ts';
import type { TriesWork } from './useTries.ts';

/** A try tapped on a pad: which pad, and when, in ms. */
export type OnTap = (one: Try, pad: string, at: number) => void;
export type OnBoth = (both: readonly Try[], pad: string, at: number) => void;

interface Props {
  readonly work: TriesWork;
  readonly point: Pick<MeasuredPoint, 'limits'>;
  readonly repeatability: number;
  /** a hollow is worn in that these blades bridge */
  readonly hollow: boolean;
  readonly fan: readonly Blade[];
  /** the blades are stamped in */
  readonly unit: ShopUnit;
  readonly onTap: OnTap;
}

const RESULTS: readonly TryResult[] = ['goes', 'drags', 'wont'];

/** The blade in the hand, what each outcome will mean, and the three things it can do. */
export function TryPads({ work, point, repeatability, hollow, fan, unit, onTap }: Props) {
  const { figure, called } = useBladeNames(fan, unit);
  const { held, tries, suggested, narrowing } = work;
  const thickness = heldThickness(held);
  const isSuggested = suggested !== null && thickness === suggested.thickness;
  const meaning =
    thickness > 0 ? foreseenInWords(foresee(tries, thickness, point.limits, repeatability, hollow)) : '';
  return (
    <div>
      <div className="try-next" aria-live="polite">
        {held.length === 0 && 'Tap the blade in your hand, or type its thickness.'}
        {held.length > 0 && (
          <>
            <b>
              {isSuggested ? (narrowing ? 'To set by it: ' : 'Try ') : ''}
              {held.map(called).join(' + ')}
              {held.length > 1 && ` = ${figure(thickness)}`} {unit}
            </b>
            <div className="point-note">{meaning}</div>
          </>
        )}
      </div>
      <div className="pads">
        {RESULTS.map((result) => (
          <button
            key={result}
            type="button"
            className="pad"
            disabled={held.length === 0}
            onClick={(event) => onTap({ thickness, result }, result, event.timeStamp)}
          >
            {TRY_WORDS[result]}
          </button>
        ))}
      </div>
    </div>
  );
}

/** Where no blade went: what bounds the gap from below is play, if there is any. */
export function RockPad({
  heldShut,
  onTap,
}: {
  /** of a valve that is drawn shut: play is felt only with it held shut */
  readonly heldShut: boolean;
  readonly onTap: OnTap;
}) {
  return (
    <div>
      <div className="pads">
        <button
          type="button"
          className="pad"
          onClick={(event) => onTap({ thickness: 0, result: 'goes' }, 'rocks', event.timeStamp)}
        >
          Rocks at the gap, no blade enters
        </button>
      </div>
      <div className="point-note">
        Felt across the gap, up and down{heldShut ? ', the valve held firmly shut' : ''}: not a rocker that
        slides on its shaft, nor a pushrod that spins.
      </div>
    </div>
  );
}

interface PairProps {
  readonly pair: NonNullable<TriesWork['pair']>;
  readonly tries: readonly Try[];
  readonly fan: readonly Blade[];
  /** the blades are stamped in */
  readonly unit: ShopUnit;
  readonly onTap: OnTap;
}

/** Each answer keeps its side, whichever of the two is hoped for. */
export const SIDES = ['goes', 'wont'] as const;

/** The go and no-go school: two blades for the whole role, two taps a point, or one where both were felt. */
export function GoNoGoPads({ pair, onBoth, ...rest }: PairProps & { readonly onBoth: OnBoth }) {
  const { stamp } = useBladeNames(rest.fan, rest.unit);
  const called = (blades: HeldBlades) => blades.blades.map(stamp).join(' + ');
  return (
    <div className="measure">
      <Pair name="Go" blades={pair.go} right="goes" {...rest} />
      <Pair name="No-go" blades={pair.noGo} right="wont" {...rest} />
      {/* where both were felt already: two facts, by one tap; it keeps its place when one of them is said */}
      <button
        type="button"
        className="pad"
        style={rest.tries.length > 0 ? { visibility: 'hidden' } : undefined}
        onClick={(event) =>
          onBoth(
            [
              { thickness: pair.go.thickness, result: 'goes' },
              { thickness: pair.noGo.thickness, result: 'wont' },
            ],
            'both',
            event.timeStamp,
          )
        }
      >
        Both: {called(pair.go)} goes, {called(pair.noGo)} won’t
      </button>
    </div>
  );
}

function Pair(props: {
  readonly name: string;
  readonly blades: HeldBlades;
  readonly right: TryResult;
  readonly tries: readonly Try[];
  readonly fan: readonly Blade[];
  readonly unit: ShopUnit;
  readonly onTap: OnTap;
}) {
  const { name, blades, right, tries, fan, unit, onTap } = props;
  const { figure, stamp } = useBladeNames(fan, unit);
  const { thickness } = blades;
  const done = tries.find((one) => one.thickness === thickness)?.result;
  const alone = blades.blades.length === 1;
  const stack = alone ? '' : `${blades.blades.map(stamp).join(' + ')} = `;
  const large = alone ? stamp(thickness) : figure(thickness);
  return (
    <div role="group" aria-label={`${name} blade`} className="pads">
      <div className="pads-name">
        <small>{name}</small>
        <b>
          {stack}
          {large} {unit}
        </b>
        {blades.blades.map((blade) =>
          stamp(blade) === figure(blade) ? null : (
            <small key={blade}>
              {alone ? '' : stamp(blade)} measures {figure(blade)}
            </small>
          ),
        )}
      </div>
      {SIDES.map((result) => (
        <button
          key={result}
          type="button"
          className={result === right ? 'pad pad-good' : 'pad'}
          aria-pressed={done === result}
          onClick={(event) => onTap({ thickness, result }, `${name} ${result}`, event.timeStamp)}
        >
          {done === result ? '✓ ' : ''}
          {TRY_WORDS[result]}
        </button>
      ))}
    </div>
  );
}
