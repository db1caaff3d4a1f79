import { TRY_WORDS, type TryResult } from '@zero-lash/core/measuring';
import { memo, type MouseEvent } from 'react';
import './bladeFan.css';
import { paint } from './states.ts';

/** One blade of the fan; lengths in mm. */
export interface FanBlade {
  readonly thickness: number;
  /** it is not in the set any more */
  readonly missing: boolean;
  /** what it did here, where it was tried alone */
  readonly result: TryResult | null;
  /** it lies strictly between what is known, so that trying it says something new */
  readonly tells: boolean;
}

interface Props {
  readonly blades: readonly FanBlade[];
  /** held now, alone or together; mm */
  readonly held: readonly number[];
  /** the blade or blades that settle it; mm */
  readonly suggested: readonly number[];
  readonly onTap: (thickness: number) => void;
  /** writes a length in the shop's unit */
  readonly figure: (mm: number) => string;
}

const WIDTH = 46;
const HEIGHT = 48;
const THINNEST = 1.2;
/** px a mm of blade is drawn thick: enough to tell 0.05 from 0.5 at a glance */
const PX_PER_MM = 18;

/** The blades this bench owns, side by side as they lie in the fan: tap one, or two to hold them together. */
export const BladeFan = memo(function BladeFan({ blades, held, suggested, onTap, figure }: Props) {
  /** One listener for all blades, so that a blade is drawn again only when it itself changes. */
  function tap(event: MouseEvent) {
    const blade = (event.target as Element).closest('[data-blade]')?.getAttribute('data-blade');
    if (blade) onTap(Number(blade));
  }
  return (
    <div role="group" aria-label="Blades of this bench" className="blade-fan" onClick={tap}>
      {blades.map((blade, index) => (
        <Slat
          // two may be as thick as one another, whatever is stamped on them
          key={`${blade.thickness} ${index}`}
          blade={blade}
          held={held.includes(blade.thickness)}
          suggested={suggested.includes(blade.thickness)}
          label={figure(blade.thickness)}
        />
      ))}
    </div>
  );
});

interface SlatProps {
  readonly blade: FanBlade;
  readonly held: boolean;
  readonly suggested: boolean;
  readonly label: string;
}

/** One blade: its rivet, its leaf drawn as thick as it is, its figure, and what it did. */
const Slat = memo(
  function Slat({ blade, held, suggested, label }: SlatProps) {
    const { thickness, missing, result, tells } = blade;
    const spoken = [
      label,
      missing && 'missing from the set',
      result && TRY_WORDS[result],
      suggested && 'try next',
      held && 'held',
    ];
    const leaf = THINNEST + thickness * PX_PER_MM;
    const colour = paint(tells || held ? 'ink' : 'faded');
    return (
      <button
        type="button"
        className="blade"
        disabled={missing}
        data-blade={thickness}
        aria-pressed={held}
        aria-label={spoken.filter(Boolean).join(', ')}
      >
        <svg width="100%" height={HEIGHT} viewBox={`0 0 ${WIDTH} ${HEIGHT}`} aria-hidden>
          <rect
            x="3"
            y={17 - leaf / 2}
            width={WIDTH - 6}
            height={leaf}
            rx={Math.min(3, leaf / 2)}
            fill={missing ? 'none' : colour}
            stroke={missing ? paint('hairline') : 'none'}
            strokeDasharray="3 3"
          />
          {!missing && <circle cx="8" cy="17" r="3.4" fill={paint('paper')} stroke={colour} />}
          {suggested && <path d="M18 3h10l-5 6z" fill={paint('brass')} />}
          {result === 'goes' && (
            <path d="M33 11l4 5l6 -9" stroke={paint('brass')} strokeWidth="2.4" fill="none" />
          )}
          {result === 'wont' && <path d="M34 6l8 8M42 6l-8 8" stroke={paint('tight')} strokeWidth="2.4" />}
          {result === 'drags' && (
            <path d="M33 11q2.5 -5 5 0t5 0" stroke={paint('loose')} strokeWidth="2.4" fill="none" />
          )}
          <text
            x={WIDTH / 2}
            y="41"
            textAnchor="middle"
            fontSize="14"
            fontWeight={suggested || held ? 700 : 400}
            fill={missing ? paint('faded') : paint('ink')}
            textDecoration={missing ? 'line-through' : undefined}
            fontFamily="var(--zl-fonts-body)"
          >
            {label}
          </text>
          {held && (
            <rect
              x="1"
              y="1"
              width={WIDTH - 2}
              height={HEIGHT - 2}
              fill="none"
              stroke={paint('brass')}
              strokeWidth="2"
            />
          )}
        </svg>
      </button>
    );
  },
  (before, after) =>
    before.held === after.held &&
    before.suggested === after.suggested &&
    before.label === after.label &&
    before.blade.thickness === after.blade.thickness &&
    before.blade.missing === after.blade.missing &&
    before.blade.result === after.blade.result &&
    before.blade.tells === after.blade.tells,
);
