/**
 * How colours become inks of a press: by which profile (`null` has none), by which of its ways, whether the darkest of the screen
 * becomes the darkest of the press, and how much ink its paper takes in all, %.
 */
export type PressSettings = {
  profile: string | null;
  intent: PressIntent;
  blackPoint: boolean;
  inkLimit: number;
};

/** The rendering intents of ICC.1 that keep what looks the same, or how all looks together. */
export const PRESS_INTENTS = ['relative', 'perceptual'] as const;
export type PressIntent = (typeof PRESS_INTENTS)[number];

/** 300 % is what coated paper takes (common practice, no source). */
export const freshPress = (): PressSettings => ({
  profile: null,
  intent: 'relative',
  blackPoint: true,
  inkLimit: 300,
});

/** From which ΔE2000 on a colour comes out visibly otherwise than it was asked for; our own choice. */
export const VISIBLE_DELTA = 3;

export const PROCESS_INKS = ['Cyan', 'Magenta', 'Yellow', 'Black'] as const;
