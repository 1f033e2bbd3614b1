import { api } from '$lib/server/app/http';
import { makeRenewal } from '$lib/server/app/people/links';

export const POST = api('renewPassword', makeRenewal);
