import { line } from './line.svelte';
import { fail, type Failure, type Outcome } from '../../contract/failure';
import type { Address, AnswerTo, Filling, Given } from '../../contract/routes';

/** What stands after the address: nothing where there is nothing to be given. */
type Rest<Value> = object extends Value ? [given?: Value] : [given: Value];

/**
 * Calls a route of the API, such as `call('PUT /layouts/{id}/archived', { id, body: { archived } })`, and gives its answer,
 * or the failure with its sentence. A server that does not answer is a failure too.
 */
export const call = <A extends Address>(
  address: A,
  ...[given]: Rest<Given<A>>
): Promise<Outcome<AnswerTo<A>>> => answered(() => ask(address, given ?? ({} as Given<A>)));

/** Sends a file's bytes as they are to a route that takes one. */
export const sendFile = <A extends Address>(
  address: A,
  given: Filling<A> & { file: File },
): Promise<Outcome<AnswerTo<A>>> =>
  answered(() =>
    sent(address, given, {
      headers: {
        'content-type': 'application/octet-stream',
        'x-file-name': encodeURIComponent(given.file.name),
      },
      body: given.file,
    }),
  );

/** Calls a route, and gives the answer as it comes: for files. With `keepalive` it is sent also while the window is being closed. */
export function ask<A extends Address>(
  address: A,
  given: Given<A>,
  how: Pick<RequestInit, 'keepalive'> = {},
): Promise<Response> {
  const { body } = given as { body?: unknown };
  const json = { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) };
  return sent(address, given, body === undefined ? how : { ...how, ...json });
}

/** Where a route is: for pictures and links. */
export const urlOf = <A extends Address>(address: A, given: Filling<A>): string => filled(address, given);

/** Names this view to the server, which gives everyone who asks a turn in turn. */
export const VIEW = Math.random().toString(36).slice(2, 12);

function filled(address: Address, given: object = {}): string {
  const { query = {}, ...parts } = given as { query?: object } & Record<string, string | number>;
  const path = address
    .slice(address.indexOf(' ') + 1)
    .replace(/\{(\w+)\}/g, (_, name: string) => encodeURIComponent(parts[name] ?? ''));
  const asked = Object.entries(query).flatMap(([key, value]) =>
    value === undefined ? [] : [[key, String(value)]],
  );
  return `/api/v1${path}${asked.length > 0 ? `?${new URLSearchParams(asked).toString()}` : ''}`;
}

const sent = (address: Address, given: object | undefined, request: RequestInit): Promise<Response> =>
  fetch(filled(address, given), {
    ...{ method: address.slice(0, address.indexOf(' ')) },
    ...{ ...request, headers: { 'x-isle-view': VIEW, ...request.headers } },
  });

async function answered<T>(request: () => Promise<Response>): Promise<Outcome<T>> {
  let response: Response;
  try {
    response = await request();
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
