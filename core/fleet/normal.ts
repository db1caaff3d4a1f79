const SERIES_UP_TO = 2.5;
const ENOUGH = 1e-17;

/**
 * Says how likely a figure of the standard normal is to lie below one: accurate to the last digits, in the tails too.
 *
 * @example normalBelow(0) // 0.5
 */
export function normalBelow(z: number): number {
  if (z > 0) return 1 - normalBelow(-z);
  return -z < SERIES_UP_TO ? 0.5 - bySeries(-z) : byFraction(-z);
}

const density = (z: number) => Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI);

/** From 0 to z, by a series of which every term is positive. */
function bySeries(z: number): number {
  let term = z;
  let sum = z;
  for (let odd = 3; term > ENOUGH * sum; odd += 2) {
    term *= (z * z) / odd;
    sum += term;
  }
  return density(z) * sum;
}

/** Above z, by a continued fraction from its far end. */
function byFraction(z: number): number {
  let rest = z;
  for (let depth = 200; depth > 0; depth -= 1) rest = z + depth / rest;
  return density(z) / rest;
}
