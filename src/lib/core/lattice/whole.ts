/** How often a repeat of `repeat` px goes into `span` px; 1800 ÷ 216 = 8⅓. */
export function repeatsAcross(span: number, repeat: number): number {
  return span / repeat;
}
