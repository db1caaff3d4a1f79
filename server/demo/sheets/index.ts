import type { SheetBody } from '@zero-lash/contract/sheets';
import { drawnShutTwin } from './drafted.ts';
import { minnowSingle, ridgeSix, winderSix } from './asPrinted.ts';
import { groomerSix, orchardFour, railFour, sawSingle, trolleyThree } from './inLine.ts';
import { winderPictures } from './pictures.ts';
import { flatFour, pumpTwin, pumpTwinSecond, racerFour, ropewayTwelve } from './twoBanks.ts';

/** The published spec sheets of the demo world, by a short name. */
export const DEMO_SHEETS = {
  orchardFour,
  railFour,
  pumpTwin,
  sawSingle,
  trolleyThree,
  groomerSix,
  racerFour,
  flatFour,
  ropewayTwelve,
  winderSix,
  ridgeSix,
  minnowSingle,
} as const;

/** The pictures of a sheet that has some, drawn as the demo is loaded. */
export const DEMO_PICTURES: Partial<Readonly<Record<string, () => Promise<SheetBody['pictures']>>>> = {
  winderSix: winderPictures,
};

/** A sheet that nobody has checked yet. */
export const DEMO_DRAFT = drawnShutTwin;

/** Second revisions, published after the engines that stand on the first. */
export const DEMO_SECOND_REVISIONS = { pumpTwin: pumpTwinSecond } as const;
