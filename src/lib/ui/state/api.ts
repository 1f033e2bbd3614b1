import { line } from './line.svelte';
import { fail, type Failure, type Outcome } from '../../contract/failure';

/** Calls `/api/v1` and gives the answer, or the failure with its sentence. A server that does not answer is a failure too. */
export function call<T>(method: string, path: string, body?: unknown): Promise<Outcome<T>> {
  return send<T>(path, {
    method,
    ...(body === undefined
      ? {}
      : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
  });
}

/** Sends a file's bytes as they are. */
export function sendFile<T>(path: string, file: File): Promise<Outcome<T>> {
  const headers = {
    'content-type': 'application/octet-stream',
    'x-file-name': encodeURIComponent(file.name),
  };
  return send<T>(path, { method: 'POST', headers, body: file });
}

/** Names this view to the server, which gives everyone who asks a turn in turn. */
export const VIEW = Math.random().toString(36).slice(2, 12);

async function send<T>(path: string, request: RequestInit): Promise<Outcome<T>> {
  let response: Response;
  try {
    const headers = { 'x-isle-view': VIEW, ...(request.headers as Record<string, string> | undefined) };
    response = await fetch(`/api/v1${path}`, { ...request, headers });
    line.back();
  } catch {
    line.lost();
    return fail('internal', 'The server does not answer. Your work is kept here.');
  }
  const answer: unknown = await response.json().catch(() => null);
  if (response.ok) return { ok: true, value: answer as T };
  const failure = answer as Partial<Failure> | null;
  if (failure && typeof failure.message === 'string' && failure.code)
    return { ok: false, failure: { path: '', ...failure } as Failure };
  return fail('internal', `The server answered with an error (${response.status}). Your work is kept here.`);
}
