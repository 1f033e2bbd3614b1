/** What a look at colours may leave out: one of the three kinds of cone, or all hues. */
export type Sight = 'full' | 'protan' | 'deutan' | 'tritan' | 'grey';

/** A 3 × 3 matrix by rows, on linear sRGB. */
export type ColourMatrix = readonly number[];

/**
 * The three dichromacies on linear sRGB: Machado, Oliveira and Fernandes (2009), "A physiologically-based model for
 * simulation of color vision deficiency", table of matrices at severity 1.0; written here from memory and checked
 * against the copy in culori. `grey` is the luminance row of IEC 61966-2-1 on every channel: a greyscale print.
 */
export const SIGHT_MATRICES: Record<Exclude<Sight, 'full'>, ColourMatrix> = {
  protan: [0.152286, 1.052583, -0.204868, 0.114503, 0.786281, 0.099216, -0.003882, -0.048116, 1.051998],
  deutan: [0.367322, 0.860646, -0.227968, 0.280085, 0.672501, 0.047413, -0.01182, 0.04294, 0.968881],
  tritan: [1.255528, -0.076749, -0.178779, -0.078411, 0.930809, 0.147602, 0.004733, 0.691367, 0.3039],
  grey: [0.2126, 0.7152, 0.0722, 0.2126, 0.7152, 0.0722, 0.2126, 0.7152, 0.0722],
};

export const SIGHTS: readonly Sight[] = ['full', 'protan', 'deutan', 'tritan', 'grey'];

/** A colour matrix as the `values` of an SVG feColorMatrix, alpha kept. */
export function filterValues(matrix: ColourMatrix): string {
  const rows = [0, 3, 6].map((at) => `${matrix[at]} ${matrix[at + 1]} ${matrix[at + 2]} 0 0`);
  return [...rows, '0 0 0 1 0'].join(' ');
}
