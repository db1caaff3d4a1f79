import type { SheetBody } from '@zero-lash/contract/sheets';
import sharp from 'sharp';

/** Each figure of a stamp as strokes in a box of 2 by 4. */
const STROKES: Readonly<Record<string, string>> = {
  1: 'M1 0V4',
  2: 'M0 0H2V2H0V4H2',
  3: 'M0 0H2V4H0M0 2H2',
  4: 'M0 0V2H2M2 0V4',
  5: 'M2 0H0V2H2V4H0',
  6: 'M2 0H0V4H2V2H0',
  '-': 'M0 2H2',
};

/** The rim of a flywheel behind its window, a line on it with figures above, and the pointer; a dot beside it that is none. */
function rim(figures: string, dot: boolean): string {
  const stamp = [...figures]
    .map(
      (figure, index) =>
        `<path d="${STROKES[figure]}" transform="translate(${250 + index * 40} 90) scale(13)" fill="none" stroke="#2b2a27" stroke-width=".35"/>`,
    )
    .join('');
  return `<svg xmlns="http://www.w3.org/2000/svg" width="600" height="400">
    <rect width="600" height="400" fill="#6f6a61"/>
    <path d="M60 40H540V300H60Z" fill="#b9b2a4"/>
    <path d="M60 210Q300 180 540 210V300H60Z" fill="#9a9385"/>
    <path d="M300 160V196" stroke="#2b2a27" stroke-width="7"/>
    ${dot ? '<circle cx="395" cy="178" r="11" fill="#2b2a27"/>' : ''}
    ${stamp}
    <path d="M300 300L278 350H322Z" fill="#7a5c12"/></svg>`;
}

const drawn = async (svg: string): Promise<string> =>
  (await sharp(Buffer.from(svg)).jpeg({ quality: 70 }).toBuffer()).toString('base64');

/** What the Winder's flywheel shows at its window, mark by mark. */
export async function winderPictures(): Promise<SheetBody['pictures']> {
  const marks = [
    { at: 0, figures: '1-6', says: 'The line under 1-6 at the pointer; the dot beside it is the pump’s' },
    { at: 120, figures: '2-5', says: 'The line under 2-5 at the pointer' },
    { at: 240, figures: '3-4', says: 'The line under 3-4 at the pointer' },
  ];
  return Promise.all(
    marks.map(async ({ at, figures, says }) => ({
      ...{ at, of: 'mark' as const, says },
      file: await drawn(rim(figures, at === 0)),
    })),
  );
}
