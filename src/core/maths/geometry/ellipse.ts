/** Half axes and direction of the ellipse two axes of a covariance make, one standard deviation, mm and radians. */
export function ellipseOf(
  covariance: readonly number[],
  a: number,
  b: number,
): { readonly major: number; readonly minor: number; readonly angle: number } {
  const [p, q, r] = [covariance[4 * a]!, covariance[4 * b]!, covariance[3 * a + b]!];
  const mean = (p + q) / 2;
  const half = Math.hypot((p - q) / 2, r);
  return {
    major: Math.sqrt(Math.max(0, mean + half)),
    minor: Math.sqrt(Math.max(0, mean - half)),
    angle: 0.5 * Math.atan2(2 * r, p - q),
  };
}
