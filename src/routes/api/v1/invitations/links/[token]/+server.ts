import { api } from '$lib/server/app/http';
import { comeIn } from '$lib/server/app/people/signing-in';
import { keyOf } from '$lib/server/repo/tokens';
import { openInvitation } from '$lib/server/repo/invitations';

export const GET = api('getInvitation', ({ db, params }) => openInvitation(db, keyOf(params.token)));
export const POST = api('acceptInvitation', comeIn);
