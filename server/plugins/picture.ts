import sharp from 'sharp';
import { Refusal } from './errors.ts';

/** A picture as it is kept. */
export interface Picture {
  readonly bytes: Buffer;
  readonly width: number;
  readonly height: number;
}

const TAKEN = new Set(['png', 'jpeg', 'webp']);
/** The longer edge it is kept at: what a crack shows on, and no more. */
const MOST_EDGE = 1600;
/** Pixels of the largest picture that is unpacked at all. */
const MOST_PIXELS = 64_000_000;
const QUALITY = 82;
const AS_KEPT = { edge: MOST_EDGE, quality: QUALITY };

/**
 * Says whether a picture is one as it is kept here: a JPEG that can be unpacked whole, as large as is said of it and no larger than
 * it is kept, with nothing in it that is not the picture.
 *
 * @param said how large it is said to be; nothing where nobody says
 * @param edge the longer edge it is kept at, in pixels
 */
export async function isKept(
  file: Buffer,
  said?: { readonly width: unknown; readonly height: unknown },
  edge = MOST_EDGE,
): Promise<boolean> {
  try {
    await pictureOf(file);
    const { format, width, height, exif } = await sharp(file).metadata();
    const asSaid = said === undefined || (width === said.width && height === said.height);
    const fits = asSaid && Math.max(width, height) <= edge;
    return format === 'jpeg' && fits && exif === undefined;
  } catch {
    return false;
  }
}

/**
 * Understands a picture by what is in the file, turns it upright, makes it no larger than it is looked at, and leaves out
 * everything that is not the picture: where it was taken, with what, and when.
 *
 * @param as the longer edge it is kept at, in pixels, and how well
 * @throws Refusal `not_a_picture` with the reason
 */
export async function pictureOf(
  file: Buffer,
  { edge, quality }: { readonly edge: number; readonly quality: number } = AS_KEPT,
): Promise<Picture> {
  const image = sharp(file, { limitInputPixels: MOST_PIXELS, failOn: 'error' });
  const format = await image.metadata().then(
    (said) => said.format as string,
    () => null,
  );
  if (format === null || !TAKEN.has(format))
    throw new Refusal('not_a_picture', {
      detail:
        format === null
          ? 'That file is no picture, or is damaged: PNG, JPEG and WebP are taken.'
          : `That is a ${format.toUpperCase()} file: PNG, JPEG and WebP are taken.`,
      fields: [{ path: 'file', message: 'is no picture that is taken' }],
    });
  try {
    const { data, info } = await image
      .rotate()
      .resize({ width: edge, height: edge, fit: 'inside', withoutEnlargement: true })
      .flatten({ background: '#ffffff' })
      .jpeg({ quality })
      .toBuffer({ resolveWithObject: true });
    return { bytes: data, width: info.width, height: info.height };
  } catch {
    throw new Refusal('not_a_picture', {
      detail: 'That picture is damaged, or larger than is unpacked here.',
    });
  }
}
