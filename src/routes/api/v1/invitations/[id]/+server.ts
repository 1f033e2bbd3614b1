import { api } from '$lib/server/app/http';
import { withdraw } from '$lib/server/repo/invitations';

export const DELETE = api('withdrawInvitation', ({ db, params }) => withdraw(db, params.id));
