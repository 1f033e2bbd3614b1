import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';

export const GET = api('listBackups', ({ app }) => done(app.backups.data()));
export const POST = api('makeBackup', ({ app, db }) => app.backups.make(db));
export const PUT = api('changeBackups', ({ app, body }) => app.backups.change(body));
