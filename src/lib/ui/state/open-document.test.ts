import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { done, fail } from '../../contract/failure';
import { OpenDocument, type DocumentApi } from './open-document.svelte';

type Body = { light: string; ground: string; items: readonly string[] };
type Stored = { name: string; version: number; body: Body };

/** What the server has, and what it was asked to save. */
const server: { stored: Stored; asked: Stored[] } = { stored: null as never, asked: [] };
const api: DocumentApi<Body, Stored> = {
  fetch: () => Promise.resolve(done(structuredClone(server.stored))),
  save: ({ base, name, body }) => {
    server.asked.push({ name, body, version: base });
    if (base !== server.stored.version)
      return Promise.resolve(
        fail('stale', 'Somebody saved it meanwhile.', undefined, { current: structuredClone(server.stored) }),
      );
    server.stored = { name, body, version: base + 1 };
    return Promise.resolve(done({ version: base + 1 }));
  },
};

const START: Body = { light: 'window', ground: '#dcdad4', items: ['cup'] };
const open = (ready?: (body: Body) => Promise<void>): OpenDocument<Body, Stored> =>
  new OpenDocument(structuredClone(server.stored), api, ready);
/** What somebody else saves. */
const others = (change: Partial<Body>, name = server.stored.name): void => {
  const { body, version } = server.stored;
  server.stored = { name, body: { ...body, ...change }, version: version + 1 };
};

beforeEach(() => {
  vi.useFakeTimers();
  server.stored = { name: 'Cups', version: 1, body: START };
  server.asked = [];
});
afterEach(() => vi.useRealTimers());

describe('a document that is open', () => {
  it('is saved by itself a moment after a change, once for a whole gesture', async () => {
    const doc = open();
    for (const ground of ['#111111', '#222222', '#333333']) {
      doc.change((body) => ({ ...body, ground }), true);
      doc.saver.want(doc.history.settled);
      await vi.advanceTimersByTimeAsync(400);
    }
    expect(server.asked).toEqual([]);
    doc.history.commit();
    doc.saver.want(doc.history.settled);
    await vi.advanceTimersByTimeAsync(400);
    expect(server.asked).toEqual([{ name: 'Cups', version: 1, body: { ...START, ground: '#333333' } }]);
    expect([doc.saver.clean, doc.saver.version]).toEqual([true, 2]);
    doc.history.undo();
    expect(doc.doc.body).toEqual(START);
  });

  it('takes over what others saved as no step of its own, in every state that one can go back to', async () => {
    const doc = open();
    doc.change((body) => ({ ...body, ground: '#333333' }));
    doc.saver.want(doc.doc);
    await doc.saver.flush();
    others({ light: 'even' }, 'Two cups');
    expect((await doc.refresh(3))?.name).toBe('Two cups');
    expect(doc.doc).toEqual({ name: 'Two cups', body: { ...START, ground: '#333333', light: 'even' } });
    expect(doc.history.steps.past).toHaveLength(1);
    // What they did stays where one's own step is taken back, and nothing is left to save but that.
    expect([doc.saver.clean, doc.saver.version]).toEqual([true, 3]);
    doc.history.undo();
    expect(doc.doc).toEqual({ name: 'Two cups', body: { ...START, light: 'even' } });
    doc.history.redo();
    expect(doc.doc.body.ground).toBe('#333333');
  });

  it('asks for nothing that it has already, and leaves work under way as it is', async () => {
    const ready = vi.fn(() => Promise.resolve());
    const doc = open(ready);
    expect(await doc.refresh(1)).toBeNull();
    expect(ready).not.toHaveBeenCalled();
    others({ light: 'even' });
    doc.change((body) => ({ ...body, ground: '#333333' }), true);
    await doc.refresh(2);
    expect(ready).toHaveBeenCalledTimes(1);
    expect(doc.doc.body).toEqual({ ...START, ground: '#333333' });
    doc.history.cancel();
    await doc.refresh();
    expect(doc.doc.body).toEqual({ ...START, light: 'even' });
  });

  it('brings a refused save together with what others changed in other parts', async () => {
    const doc = open();
    others({ light: 'even' });
    doc.change((body) => ({ ...body, items: [...body.items, 'mug'] }));
    doc.saver.want(doc.doc);
    await doc.saver.flush();
    await vi.advanceTimersByTimeAsync(400);
    expect(server.stored).toEqual({
      ...{ name: 'Cups', version: 3 },
      body: { ...START, light: 'even', items: ['cup', 'mug'] },
    });
    expect(doc.stale).toBeNull();
    doc.history.undo();
    expect(doc.doc.body).toEqual({ ...START, light: 'even' });
  });

  it('asks which is to stay where both changed the same part, and keeps one’s own over it', async () => {
    const doc = open();
    others({ ground: '#ffffff' });
    doc.change((body) => ({ ...body, ground: '#333333' }));
    doc.saver.want(doc.doc);
    expect(await doc.saver.flush()).toBe(false);
    expect(doc.stale).toMatchObject({ message: 'Somebody saved it meanwhile.', current: { version: 2 } });
    // Nothing is lost while one thinks about it, and nothing is saved.
    expect([doc.doc.body.ground, server.stored.body.ground]).toEqual(['#333333', '#ffffff']);
    doc.keepMine();
    await vi.advanceTimersByTimeAsync(400);
    expect(server.stored).toMatchObject({ version: 3, body: { ground: '#333333' } });
    expect(doc.stale).toBeNull();
  });

  it('or shows theirs, and undo brings one’s own back', async () => {
    const doc = open();
    others({ ground: '#ffffff' });
    doc.change((body) => ({ ...body, ground: '#333333' }));
    doc.saver.want(doc.doc);
    await doc.saver.flush();
    await doc.takeTheirs();
    expect([doc.doc.body.ground, doc.saver.clean]).toEqual(['#ffffff', true]);
    doc.history.undo();
    doc.saver.want(doc.doc);
    await doc.saver.flush();
    expect(server.stored).toMatchObject({ version: 3, body: { ground: '#333333' } });
  });

  it('is given another name by itself, which is a part as any other', async () => {
    const doc = open();
    others({}, 'Theirs');
    doc.change((body) => ({ ...body, light: 'flat' }));
    doc.saver.want(doc.doc);
    await doc.saver.flush();
    await vi.advanceTimersByTimeAsync(400);
    expect(server.stored).toMatchObject({ name: 'Theirs', body: { light: 'flat' } });
    others({}, 'Theirs again');
    doc.rename('Mine');
    doc.saver.want(doc.doc);
    expect(await doc.saver.flush()).toBe(false);
    expect(doc.stale?.current?.name).toBe('Theirs again');
  });
});
