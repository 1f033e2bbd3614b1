import type { RequestHandler } from './$types';

/** That Isle can work: it is not being stopped, and its database answers. */
export const GET: RequestHandler = ({ locals }) => {
  const { app } = locals;
  const answers = !app.stopping && app.db.$client.prepare('SELECT 1').pluck().get() === 1;
  const headers = { 'cache-control': 'no-store' };
  return new Response(answers ? 'ready\n' : 'stopping\n', { status: answers ? 200 : 503, headers });
};
