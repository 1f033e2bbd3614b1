/** A second opinion for tests of {@link homography}; the package has no types of its own. */
declare module 'perspective-transform' {
  /** Corners as x, y, x, y …, before and after. */
  export default function perspective(
    from: number[],
    to: number[],
  ): { transform(x: number, y: number): [number, number] };
}
