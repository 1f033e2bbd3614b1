import { timingSafeEqual } from 'node:crypto';
import type { RequestHandler } from './$types';

/** What is measured, for whoever knows the token that the machine was given (ISLE_METRICS_TOKEN); to all others nothing is here. */
export const GET: RequestHandler = async ({ locals, request }) => {
  const token = process.env.ISLE_METRICS_TOKEN ?? '';
  const said = request.headers.get('authorization') ?? '';
  const [known, given] = [Buffer.from(`Bearer ${token}`), Buffer.from(said)];
  if (token === '' || known.length !== given.length || !timingSafeEqual(known, given))
    return new Response('There is nothing here.\n', { status: 404 });
  return new Response(await locals.app.measures.text(), {
    headers: { 'content-type': 'text/plain; version=0.0.4; charset=utf-8' },
  });
};
