import { api } from '$lib/server/app/http';
import { takeFilesIn } from '$lib/server/app/taking-in';

export const POST = api('takeIn', ({ app, body }) => takeFilesIn(app, body.files));
