import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { PLAIN_VIEW, type LibraryView } from './query';
import { TypedSearch } from './typed-search.svelte';

/** A library whose server answers each question when it is told to. */
function library() {
  const asked: { search: string | null; answer: () => Promise<void> }[] = [];
  const went: string[] = [];
  let view: LibraryView = PLAIN_VIEW;
  vi.stubGlobal('fetch', (address: string) => {
    const search = new URL(address, 'http://isle.test').searchParams.get('search');
    return new Promise<Response>((resolve) => {
      asked.push({
        search,
        answer: async () => {
          resolve(Response.json({ patterns: [], total: 1 }));
          await vi.advanceTimersByTimeAsync(0);
        },
      });
    });
  });
  const search = new TypedSearch({
    view: () => view,
    found: (next) => (view = next),
    go: (next) => {
      search.stop();
      view = next;
      went.push(next.search);
    },
  });
  return { search, asked, went, shown: () => view.search };
}

describe('words that are typed', () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => {
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });

  it('are asked for once the hand pauses, and the address follows when it rests', async () => {
    const { search, asked, went, shown } = library();
    for (const text of ['w', 'wa', 'wav']) search.type(text);
    await vi.advanceTimersByTimeAsync(100);
    expect(asked.map((one) => one.search)).toEqual(['wav']);
    await asked[0]?.answer();
    expect([shown(), went, search.ahead]).toEqual(['wav', [], true]);
    await vi.advanceTimersByTimeAsync(2000);
    expect([went, search.ahead]).toEqual([['wav'], false]);
  });

  it('drop the answer to an older word', async () => {
    const { search, asked, shown } = library();
    search.type('wa');
    await vi.advanceTimersByTimeAsync(100);
    search.type('wav');
    await vi.advanceTimersByTimeAsync(100);
    await asked[1]?.answer();
    await asked[0]?.answer();
    expect(shown()).toBe('wav');
  });

  it('stand in the address at once when the field is left, asked for or not', async () => {
    const { search, asked, went } = library();
    search.type('wa');
    search.leave();
    expect(went).toEqual(['wa']);
    await vi.advanceTimersByTimeAsync(2000);
    expect([asked.length, went]).toEqual([0, ['wa']]);
    search.type('wave');
    await vi.advanceTimersByTimeAsync(100);
    await asked[0]?.answer();
    search.leave();
    await vi.advanceTimersByTimeAsync(2000);
    expect(went).toEqual(['wa', 'wave']);
    search.leave();
    expect(went).toHaveLength(2);
  });
});
