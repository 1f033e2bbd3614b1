/** The surfaces that a pattern can be laid on. Mid is the neutral grey of the application's own surround. */
export const SURFACES = [
  { id: 'light', label: 'Light', colour: '#fbfbfa' },
  { id: 'mid', label: 'Mid grey', colour: '#c3c5c3' },
  { id: 'dark', label: 'Dark', colour: '#2b302f' },
  { id: 'checkered', label: 'Checkered', colour: '' },
] as const;

export type Surface = (typeof SURFACES)[number]['id'];

export const isSurface = (value: unknown): value is Surface =>
  SURFACES.some((surface) => surface.id === value);

/** The CSS background of a surface. */
export function surfaceBackground(surface: Surface): string {
  const found = SURFACES.find((entry) => entry.id === surface);
  return found && found.colour !== ''
    ? found.colour
    : 'repeating-conic-gradient(#fff 0 25%, #d9dbd9 0 50%) 0 0 / 16px 16px';
}
