/** What a round is taken under, as far as it bears on its readings. */
export interface Conditions {
  readonly engineTempC: number | null;
  readonly hoursSinceRun: number | null;
  /** what the bench says the engine is */
  readonly condition: 'cold' | 'hot' | null;
}

/** What a sheet's figures hold for. */
export interface Meant {
  readonly condition: 'cold' | 'hot';
  readonly temperature: { readonly from: number; readonly to: number } | null;
}

/** Hours a stopped engine takes until its valve gear is as cold as its room. */
const HOURS_TO_GO_COLD = 6;

/**
 * Says where the conditions of a round do not fit what its sheet means: shown, kept, never converted.
 *
 * @example conditionCautions({ condition: 'cold', temperature: null }, { engineTempC: null, hoursSinceRun: 2, condition: null }).length // 1
 */
export function conditionCautions(sheet: Meant, round: Conditions): string[] {
  const { engineTempC, hoursSinceRun, condition } = round;
  const found: string[] = [];
  if (condition !== null && condition !== sheet.condition)
    found.push(`The sheet’s figures are ${sheet.condition}; the engine is said to be ${condition}.`);
  if (sheet.condition === 'cold' && hoursSinceRun !== null && hoursSinceRun < HOURS_TO_GO_COLD)
    found.push(
      `The sheet says cold, and the engine stopped ${hoursSinceRun} hours ago. What is read now is not what the sheet means.`,
    );
  if (sheet.temperature && engineTempC !== null) {
    const { from, to } = sheet.temperature;
    if (engineTempC < from || engineTempC > to)
      found.push(`The sheet’s figures hold from ${from} to ${to} °C; the engine is at ${engineTempC} °C.`);
  }
  return found;
}
