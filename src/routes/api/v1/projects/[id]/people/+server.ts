import { api } from '$lib/server/app/http';
import { projectPeople, setProjectPeople } from '$lib/server/repo/access';

export const GET = api('projectPeople', ({ db, params }) => projectPeople(db, params.id));
export const PUT = api('setProjectPeople', ({ db, params, body }) => setProjectPeople(db, params.id, body));
