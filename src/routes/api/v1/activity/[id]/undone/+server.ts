import { api } from '$lib/server/app/http';
import { takeBack } from '$lib/server/repo/taking-back';

export const POST = api('takeBack', ({ db, person, params }) => takeBack(db, person, Number(params.id)));
