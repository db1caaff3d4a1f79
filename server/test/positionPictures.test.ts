import { randomUUID } from 'node:crypto';
import { MOST_PICTURE_TEXT, type SheetRevision } from '@zero-lash/contract/sheets';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { DEMO_SHEETS } from '../demo/sheets/index.ts';
import { BENCH, TestShop } from './shop.ts';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

/** A picture of noise, which cannot be made small by itself. */
async function picture(edge: number, format: 'jpeg' | 'png' = 'jpeg'): Promise<string> {
  const noise = { type: 'gaussian', mean: 128, sigma: 60 } as const;
  const image = sharp({ create: { width: edge, height: edge, channels: 3, background: '#888', noise } });
  return (
    await image
      .toFormat(format)
      .withExif({ IFD0: { Software: 'somewhere' } })
      .toBuffer()
  ).toString('base64');
}

const withPicture = (file: string, more: object = {}) => ({
  maker: 'Hadderby',
  name: `Winder ${randomUUID().slice(0, 8)}`,
  body: {
    ...DEMO_SHEETS.winderSix.body,
    pictures: [{ at: 120, of: 'mark', says: 'the line under the figures', file, ...more }],
  },
});
const send = (body: object) => shop.call<SheetRevision>(BENCH, 'POST', 'sheets', body);

describe('pictures of what is seen at a position', () => {
  it('are kept small, without anything that is not the picture, and go with the file', async () => {
    const { status, body } = await send(withPicture(await picture(150, 'png')));
    expect(status).toBe(201);
    const [kept] = body.pictures;
    expect(kept).toMatchObject({ at: 120, of: 'mark', says: 'the line under the figures' });
    const said = await sharp(Buffer.from(kept!.file, 'base64')).metadata();
    expect(said).toMatchObject({ format: 'jpeg', width: 150, height: 150 });
    expect(said.exif).toBeUndefined();
    const { body: file } = await shop.call<{ pictures: unknown }>(
      BENCH,
      'GET',
      `sheet-revisions/${body.id}/file`,
    );
    expect(file.pictures).toEqual(body.pictures);
    // what is kept already is not unpacked and written again
    const again = await send(withPicture(kept!.file));
    expect(again.body.pictures[0]?.file).toBe(kept!.file);
  });

  it.each([
    ['no picture', Buffer.from('a drawing of the mark').toString('base64'), /no picture|damaged/],
    [
      'one of another kind',
      Buffer.from('GIF89a\x01\x00\x01\x00\x00\x00\x00;').toString('base64'),
      /PNG, JPEG and WebP/,
    ],
  ])('are refused where it is %s, at the field', async (_, file, why) => {
    const { status, body } = await shop.call<{ code: string; detail: string; fields: { path: string }[] }>(
      BENCH,
      'POST',
      'sheets',
      withPicture(file),
    );
    expect(status).toBe(422);
    expect(body).toMatchObject({ code: 'not_a_picture', fields: [{ path: 'body.pictures.0.file' }] });
    expect(body.detail).toMatch(why);
  });

  it('are refused where they are too large for a sheet, where there is no such mark, and beyond eight', async () => {
    const large = await picture(200);
    expect(large.length).toBeLessThan(MOST_PICTURE_TEXT);
    expect((await send(withPicture(large, { at: 100 }))).status).toBe(400);
    const many = withPicture(large);
    many.body.pictures = Array.from({ length: 9 }, () => many.body.pictures[0]!);
    expect((await send(many)).status).toBe(400);
    expect((await send(withPicture('A'.repeat(MOST_PICTURE_TEXT + 4)))).status).toBe(400);
  });
});
