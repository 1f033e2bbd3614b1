import { api } from '$lib/server/app/http';
import { open } from '$lib/server/app/people/signing-in';

export const POST = api('openStudio', open);
