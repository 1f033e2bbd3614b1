import { api } from '$lib/server/app/http';
import { changePassword } from '$lib/server/app/people/signing-in';

export const PUT = api('changePassword', changePassword);
