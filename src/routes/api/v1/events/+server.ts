import { api } from '$lib/server/app/http';

export const GET = api('events', ({ app, db, person, query, event }) => {
  // A browser that lost the line names the last event that it heard.
  const last = Number(event.request.headers.get('last-event-id') ?? NaN);
  const after = Number.isSafeInteger(last) ? last : (query.after ?? null);
  return app.events.stream(event.request.signal, { person, db, after });
});
