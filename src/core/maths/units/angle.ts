/** Prints an angle in degrees with its unit: `−24°`, `0.50°`. */
export function angleText(degrees: number, digits = 0): string {
  const size = Math.abs(degrees).toFixed(digits);
  return degrees < 0 && Number(size) > 0 ? `−${size}°` : `${size}°`;
}
