import sharp from 'sharp';

/** How a picture for a test is to be. */
interface Wanted {
  readonly width?: number;
  readonly height?: number;
  readonly format?: 'png' | 'jpeg' | 'webp' | 'gif' | 'tiff';
  /** how the camera was held, as EXIF says it */
  readonly orientation?: number;
}

/** A picture of one colour, as base64 of its file. */
export async function aPicture(wanted: Wanted = {}): Promise<string> {
  return (await pictureFile(wanted)).toString('base64');
}

/** The same, as its file. */
export function pictureFile({
  width = 60,
  height = 40,
  format = 'png',
  orientation,
}: Wanted = {}): Promise<Buffer> {
  const image = sharp({ create: { width, height, channels: 3, background: '#7c5c12' } });
  return (orientation ? image.withMetadata({ orientation }) : image).toFormat(format).toBuffer();
}
