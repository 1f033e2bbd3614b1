import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { makeInvitation } from '$lib/server/app/people/links';
import { listInvitations } from '$lib/server/repo/invitations';

export const GET = api('listInvitations', ({ db }) => done(listInvitations(db)));
export const POST = api('invite', makeInvitation);
