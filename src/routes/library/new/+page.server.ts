import { listPalettes } from '$lib/server/repo/palettes';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals }) => ({ palettes: listPalettes(locals.db) });
