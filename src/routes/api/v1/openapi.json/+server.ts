import { json } from '@sveltejs/kit';
import { openApiDocument } from '$lib/contract/openapi';

export const GET = (): Response => json(openApiDocument());
