import { api } from '$lib/server/app/http';

export const GET = api('events', ({ app, event }) => app.events.stream(event.request.signal));
