import { api } from '$lib/server/app/http';

export const POST = api('passkeyChallenge', ({ app, event }) => app.passkeys.toSignIn(event));
