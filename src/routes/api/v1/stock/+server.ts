import { setImmediate } from 'node:timers/promises';
import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { hangStock } from '$lib/server/demo/seed';

export const POST = api('hangStock', async ({ db }) =>
  done({ patterns: await hangStock(db, () => setImmediate()) }),
);
