import type { Section } from './shell-frame';

/** A closed box of sheet, or a square tube: outside width and height, and thickness, mm. */
export interface Box {
  readonly width: number;
  readonly height: number;
  readonly wall: number;
}

/**
 * Section of a closed box: area and second moments of the outer rectangle less the inner one, about the level axis (`Iy`,
 * height against bending up and down) and the upright one (`Iz`); torsion constant of a thin-walled closed tube, J = 4·A₀²·t/p
 * along its middle line (Bredt 1896). mm² and mm⁴.
 *
 * @param condition what rust and old repairs left of its sheet, 0 … 1: taken as so much thinner all round
 */
export function boxSection({ width: w, height: h, wall }: Box, condition = 1): Section {
  const t = wall * condition;
  const [v, k] = [w - 2 * t, h - 2 * t];
  return {
    A: w * h - v * k,
    Iy: (w * h ** 3 - v * k ** 3) / 12,
    Iz: (h * w ** 3 - k * v ** 3) / 12,
    J: (2 * t * ((w - t) * (h - t)) ** 2) / (w - t + (h - t)),
  };
}

/** Least section modulus of a box, mm³: what its bending stress is worked out by. */
export function sectionModulus(box: Box): number {
  const { Iy, Iz } = boxSection(box);
  return Math.min((2 * Iy) / box.height, (2 * Iz) / box.width);
}

/**
 * The closed box that is as good as a section, by its area and both second moments: by its middle line, of width w and height h,
 * A = 2t(w + h), I_y = t·h²(h + 3w)/6 and I_z = t·w²(w + 3h)/6, so that w/h is the root of r²(r + 3)/(1 + 3r) = I_z/I_y.
 * A section too full for a box of sheet becomes the thickest there is.
 */
export function equivalentBox({ A, Iy, Iz }: Pick<Section, 'A' | 'Iy' | 'Iz'>): Box {
  let [low, high] = [1e-3, 1e3];
  for (let i = 0; i < 80; i++) {
    const r = Math.sqrt(low * high);
    if ((r * r * (r + 3)) / (1 + 3 * r) > Iz / Iy) high = r;
    else low = r;
  }
  const r = Math.sqrt(low * high);
  const h = Math.sqrt((Iy / A) * ((12 * (1 + r)) / (1 + 3 * r)));
  const w = r * h;
  const wall = Math.min(A / (2 * (w + h)), 0.98 * Math.min(w, h));
  return { width: w + wall, height: h + wall, wall };
}
