import { inCycle, type OpenSpan } from './openSpan.ts';

/**
 * Says how far open a point's valve is at an angle, as a share of its full lift, from a smooth cam: at both ends of the
 * span neither velocity nor acceleration jumps, as on a real ramp. For drawing; not for measuring a cam.
 *
 * @returns 0 on the base circle to 1 at full lift
 * @example liftShare({ start: 346, length: 246 }, 469) // 1, the middle of the span
 */
export function liftShare(span: OpenSpan, angle: number): number {
  const into = inCycle(angle - span.start);
  if (into >= span.length) return 0;
  const fromMiddle = (2 * into) / span.length - 1;
  return (1 - fromMiddle ** 2) ** 3;
}
