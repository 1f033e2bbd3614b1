import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { libraryFacets } from '$lib/server/repo/find';

export const GET = api('libraryFacets', ({ db }) => done(libraryFacets(db)));
