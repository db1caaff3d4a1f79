import type { Means } from '../sheets/index.ts';

/** Pieces that fit in one another's place: of one kind, and of one diameter where that is known. */
export interface PieceSystem {
  /** what it is kept by */
  readonly key: string;
  readonly title: string;
}

const SEATS = {
  'on-bucket': 'on buckets',
  'under-bucket': 'under buckets',
  'under-finger': 'under fingers',
} as const;

/**
 * Says to which system of pieces a means of setting belongs; null where nothing graded is fitted.
 *
 * @example pieceSystem(shims.means)?.title // 'Shims on buckets, 9 mm'
 */
export function pieceSystem(means: Means): PieceSystem | null {
  switch (means.kind) {
    case 'shim':
      return {
        key: `shim ${means.seat} ${means.diameter ?? 'any'}`,
        title: `Shims ${SEATS[means.seat]}${means.diameter === null ? '' : `, ${means.diameter} mm`}`,
      };
    case 'bucket':
      return { key: 'bucket', title: 'Graded buckets' };
    case 'lash-cap':
      return { key: 'lash-cap', title: 'Lash caps' };
    default:
      return null;
  }
}
