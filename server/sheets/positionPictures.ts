import { MOST_PICTURE_TEXT, type SheetBody } from '@zero-lash/contract/sheets';
import { isKept, pictureOf } from '../plugins/picture.ts';
import { Refusal } from '../plugins/errors.ts';

/** The longer edge, in pixels, of a picture that a sheet holds. */
export const HELD_EDGE = 800;
/** How well one is kept that has to be made smaller. */
const AS_HELD = { edge: HELD_EDGE, quality: 70 };

/**
 * Looks at the pictures of a sheet by what is in them, makes those smaller that are too large, and leaves out what is not the picture.
 *
 * @throws Refusal `not_a_picture`, at the field of the one that is none
 */
export async function withPicturesHeld<Body extends Pick<SheetBody, 'pictures'>>(body: Body): Promise<Body> {
  const pictures: SheetBody['pictures'][number][] = [];
  for (const [index, picture] of body.pictures.entries()) {
    const bytes = Buffer.from(picture.file, 'base64');
    const fields = (message: string) => [{ path: `body.pictures.${index}.file`, message }];
    const file = (await isKept(bytes, undefined, AS_HELD.edge))
      ? picture.file
      : await pictureOf(bytes, AS_HELD).then(
          (held) => held.bytes.toString('base64'),
          (error: unknown) => {
            if (!(error instanceof Refusal)) throw error;
            throw new Refusal('not_a_picture', {
              ...{ detail: error.message, fields: fields('is no picture that is taken') },
            });
          },
        );
    if (file.length > MOST_PICTURE_TEXT)
      throw new Refusal('not_a_picture', {
        detail: 'That picture is too large for a sheet: show the mark, and not the engine.',
        fields: fields('is too large'),
      });
    pictures.push({ ...picture, file });
  }
  return { ...body, pictures };
}
