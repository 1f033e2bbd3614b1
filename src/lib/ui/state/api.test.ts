import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { ask, call, sendFile, urlOf } from './api';

type Asked = { url: string; request: RequestInit };
const asked: Asked[] = [];
let answer: () => Promise<Response>;

beforeEach(() => {
  asked.length = 0;
  answer = () => Promise.resolve(Response.json({ version: 4 }));
  vi.stubGlobal('fetch', (url: string, request: RequestInit) => {
    asked.push({ url, request });
    return answer();
  });
});
afterEach(() => vi.unstubAllGlobals());

describe('a call', () => {
  it('fills its address, and sends its query and body', async () => {
    const made = await call('PUT /layouts/{id}/states/{version}', {
      ...{ id: 'a b/ä', version: 3, body: { name: 'Final' } },
    });
    expect(made).toEqual({ ok: true, value: { version: 4 } });
    expect(asked[0]).toMatchObject({
      url: '/api/v1/layouts/a%20b%2F%C3%A4/states/3',
      request: { method: 'PUT', body: '{"name":"Final"}', headers: { 'content-type': 'application/json' } },
    });
  });

  it('encodes what is in a query once, and leaves out what is not given', async () => {
    await call('GET /fonts/{id}/line', { id: 'f', query: { text: '日 & 本', size: 12.5 } });
    const { searchParams } = new URL(asked[0]!.url, 'http://isle');
    expect([...searchParams]).toEqual([
      ['text', '日 & 本'],
      ['size', '12.5'],
    ]);
    expect(urlOf('GET /motifs/{hash}', { hash: 'h', query: { look: undefined, side: '512' } })).toBe(
      '/api/v1/motifs/h?side=512',
    );
    expect(urlOf('GET /projects', {})).toBe('/api/v1/projects');
  });

  it('sends a file as its bytes, under its name', async () => {
    const file = new File(['x'], 'Sée.png');
    await sendFile('POST /fonts', { file, query: { licence: 'OFL 1.1' } });
    expect(asked[0]).toMatchObject({
      url: '/api/v1/fonts?licence=OFL+1.1',
      request: { method: 'POST', body: file, headers: { 'x-file-name': 'S%C3%A9e.png' } },
    });
  });

  it('answers with the sentence of a failure, also where the server does not answer, or with no JSON', async () => {
    const stale = { code: 'stale', message: 'Somebody saved it meanwhile.' };
    answer = () => Promise.resolve(Response.json(stale, { status: 409 }));
    expect(await call('GET /projects')).toEqual({ ok: false, failure: { path: '', ...stale } });
    answer = () => Promise.resolve(new Response('<h1>no</h1>', { status: 502 }));
    expect(await call('GET /projects')).toMatchObject({
      ok: false,
      failure: { code: 'internal', message: expect.stringContaining('502') as string },
    });
    answer = () => Promise.reject(new TypeError('no line'));
    expect(await call('GET /projects')).toMatchObject({
      failure: { message: 'The server does not answer. Your work is kept here.' },
    });
  });

  it('gives a file as it comes', async () => {
    answer = () => Promise.resolve(new Response('bytes'));
    expect(await (await ask('POST /handouts', { body: { as: 'css' } })).text()).toBe('bytes');
  });
});
