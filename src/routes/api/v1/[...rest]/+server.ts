import { fail } from '$lib/contract/failure';
import { failed } from '$lib/server/app/http';

/** Every other address under /api/v1 answers in the same form as a failure. */
export const fallback = ({ url }: { url: URL }): Response =>
  failed(fail('not_found', `There is no route ${url.pathname}; see /api/v1/openapi.json.`).failure);
