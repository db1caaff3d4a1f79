/** What a bench's blades can measure, the thinnest alone and the thickest held together; mm. */
export function reachOf(blades: readonly number[], maxStack: number) {
  if (blades.length === 0) return { from: 0.04, to: 0.6 };
  const thickest = blades.toSorted((a, b) => b - a).slice(0, maxStack);
  return { from: Math.min(...blades), to: thickest.reduce((sum, one) => sum + one, 0) };
}
