const STARTS: readonly (readonly [name: string, at: number, bytes: readonly number[]])[] = [
  ['png', 0, [0x89, 0x50, 0x4e, 0x47]],
  ['jpeg', 0, [0xff, 0xd8, 0xff]],
  ['webp', 8, [0x57, 0x45, 0x42, 0x50]],
];

/**
 * Says why a file is no picture that is taken here, by how it begins and never by its name; null where it may be one. The
 * server looks at all of it.
 *
 * @example whyNoPicture(new Uint8Array([0x25, 0x50, 0x44, 0x46])) // 'is no picture: PNG, JPEG and WebP are taken'
 */
export function whyNoPicture(bytes: Uint8Array): string | null {
  if (bytes.length === 0) return 'is empty';
  const known = STARTS.some(([, at, start]) => start.every((byte, index) => bytes[at + index] === byte));
  return known ? null : 'is no picture: PNG, JPEG and WebP are taken';
}

const AT_ONCE = 0x8000;

/** The bytes of a file as base64. */
export function base64Of(bytes: Uint8Array): string {
  let text = '';
  for (let from = 0; from < bytes.length; from += AT_ONCE)
    text += String.fromCharCode(...bytes.subarray(from, from + AT_ONCE));
  return btoa(text);
}

/** The longer edge a picture is kept at; the server keeps none larger. */
const MOST_EDGE = 1600;
/** A file up to this is sent as it is. */
const SMALL_BYTES = 600_000;
const QUALITY = 0.85;

/**
 * Makes a picture no larger than it is kept, upright, so that many may wait on the device with no network.
 *
 * @param edge the longer edge it is made, in pixels
 * @param always whether it is written again even where it is small enough, and so without anything that is not the picture
 * @throws where the file is damaged
 */
export async function madeSmaller(
  file: Blob,
  { edge = MOST_EDGE, always = false }: { readonly edge?: number; readonly always?: boolean } = {},
): Promise<Uint8Array> {
  const picture = await createImageBitmap(file);
  const scale = Math.min(1, edge / Math.max(picture.width, picture.height));
  if (!always && scale === 1 && file.size <= SMALL_BYTES) return new Uint8Array(await file.arrayBuffer());
  const canvas = new OffscreenCanvas(Math.round(picture.width * scale), Math.round(picture.height * scale));
  const context = canvas.getContext('2d')!;
  // what is clear is white on paper
  context.fillStyle = '#ffffff';
  context.fillRect(0, 0, canvas.width, canvas.height);
  context.drawImage(picture, 0, 0, canvas.width, canvas.height);
  const smaller = await canvas.convertToBlob({ type: 'image/jpeg', quality: QUALITY });
  return new Uint8Array(await smaller.arrayBuffer());
}
