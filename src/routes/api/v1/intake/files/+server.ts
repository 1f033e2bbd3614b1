import { api } from '$lib/server/app/http';
import { readFileIn } from '$lib/server/app/taking-in';

export const POST = api('readFile', ({ app, file, asking }) => readFileIn(app, file, asking));
