import { api } from '$lib/server/app/http';
import { signInByPasskey } from '$lib/server/app/people/signing-in';

export const POST = api('signInByPasskey', signInByPasskey);
