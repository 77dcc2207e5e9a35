import { cross, dot, mapAxes, type Vector } from '../geometry/vector';

/**
 * A vector turned about an axis through the origin: exp([w]×) v (Rodrigues).
 *
 * @param w the axis, as long as the angle in radians
 */
export function turned(v: Vector, w: Vector): Vector {
  const { sine, versine } = factors(w);
  const wv = cross(w, v);
  const wwv = cross(w, wv);
  return mapAxes((k) => v[k] + sine * wv[k] + versine * wwv[k]);
}

/**
 * How one coordinate of a turned vector grows with the three of its turn: a row of −[exp([w]×) v]× J(w), with the left
 * Jacobian J of the rotation group (Barfoot, State Estimation for Robotics, 7.83).
 */
export function turnGradient(v: Vector, w: Vector, axis: number): Vector {
  const { versine, rest } = factors(w);
  const r = turned(v, w);
  return mapAxes((k) => {
    const e = mapAxes((i) => Number(i === k));
    const we = cross(w, e);
    const wwe = cross(w, we);
    return cross(
      mapAxes((i) => e[i] + versine * we[i] + rest * wwe[i]),
      r,
    )[axis]!;
  });
}

/** What a small turn of the whole adds to a turn: J(w)⁻¹ by, so that exp([w + …]×) = exp([by]×) exp([w]×) to first order. */
export function addedTurn(w: Vector, by: Vector): Vector {
  const { sine, versine } = factors(w);
  const square = dot(w, w);
  const rest = square < 1e-8 ? 1 / 12 : (1 - sine / (2 * versine)) / square;
  const wb = cross(w, by);
  const wwb = cross(w, wb);
  return mapAxes((k) => by[k] - wb[k] / 2 + rest * wwb[k]);
}

/** sin θ/θ, (1 − cos θ)/θ² and (θ − sin θ)/θ³, by their series where θ is small. */
function factors(w: Vector) {
  const square = dot(w, w);
  if (square < 1e-8) return { sine: 1 - square / 6, versine: 1 / 2 - square / 24, rest: 1 / 6 - square / 120 };
  const angle = Math.sqrt(square);
  return {
    sine: Math.sin(angle) / angle,
    versine: (1 - Math.cos(angle)) / square,
    rest: (angle - Math.sin(angle)) / (angle * square),
  };
}
