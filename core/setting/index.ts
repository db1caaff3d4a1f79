export { screwTurn, turnInWords, type ScrewTurn, type ScrewTurnInput } from './screwTurn.ts';
export { afterShim, chooseShim, sureness, type ShimChoice, type Sureness } from './shimDifference.ts';
export { pieceDoubt, type PieceDoubt } from './pieceDoubt.ts';
export { sizesOf } from './sizes.ts';
export { aimFor, type Aim } from './target.ts';
export { adviseSetting, type SettingAdvice } from './advise.ts';
