import { api } from '$lib/server/app/http';
import { publish } from '$lib/server/repo/publishing';

export const POST = api('publish', ({ db, params, body }) => publish(db, params.id, body.base, body.hold));
