import { cross, dot, norm, scale, subtract, type Vector } from './vector';

/** A line that lies flatter in a face than this, by the sine of its angle, runs along it. */
const ALONG = 0.35;

/**
 * Whether the line between two places goes through a face of four corners, taken as two triangles a-b-c and a-c-d, somewhere between
 * its ends (Möller and Trumbore 1997). One that runs along the face, or ends in it, does not.
 */
export function goesThrough(
  from: Vector,
  to: Vector,
  [a, b, c, d]: readonly [Vector, Vector, Vector, Vector],
  ends = 0.03,
): boolean {
  return [
    [a, b, c],
    [a, c, d],
  ].some(([p, q, r]) => throughTriangle(from, to, p!, q!, r!, ends));
}

function throughTriangle(from: Vector, to: Vector, p: Vector, q: Vector, r: Vector, ends: number): boolean {
  const by = subtract(to, from);
  const [u, v] = [subtract(q, p), subtract(r, p)];
  const normal = cross(u, v);
  const size = norm(normal);
  if (size === 0 || Math.abs(dot(scale(normal, 1 / size), by)) < ALONG * norm(by)) return false;
  const across = cross(by, v);
  const whole = dot(u, across);
  const off = subtract(from, p);
  const s = dot(off, across) / whole;
  const beside = cross(off, u);
  const t = dot(by, beside) / whole;
  const along = dot(v, beside) / whole;
  return s >= 0 && t >= 0 && s + t <= 1 && along > ends && along < 1 - ends;
}
