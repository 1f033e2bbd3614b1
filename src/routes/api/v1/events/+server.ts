import { api } from '$lib/server/app/http';
import { eventStream } from '$lib/server/app/events';

export const GET = api('events', ({ app, event }) => eventStream(app.db, event.request.signal));
