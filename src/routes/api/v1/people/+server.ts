import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { listPeople } from '$lib/server/repo/people';

export const GET = api('listPeople', ({ db, person }) => done(listPeople(db, person.role === 'owner')));
