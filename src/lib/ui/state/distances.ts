import { toPx } from '$lib/core/num/length';

/** From where a repeat is looked at: in reach, across a room, across a street. */
export const DISTANCES = [0.5, 2, 5].map((metres) => ({ metres, px: toPx(metres * 1000, 'mm') }));
