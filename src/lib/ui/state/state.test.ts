import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { done, fail, type Outcome } from '../../contract/failure';
import { History } from './history.svelte';
import { Saver } from './saver.svelte';

describe('history', () => {
  it('goes back and forward one step at a time, 300 steps deep', () => {
    const history = new History(0);
    for (let step = 1; step <= 300; step += 1) history.commit(step);
    for (let step = 0; step < 300; step += 1) history.undo();
    expect(history.doc).toBe(0);
    expect(history.canUndo).toBe(false);
    history.redo();
    expect(history.doc).toBe(1);
    history.commit(99);
    expect(history.canRedo).toBe(false);
  });

  it('makes one step of a gesture, or none when it is cancelled', () => {
    const history = new History<string>('a');
    history.live('b');
    history.live('c');
    expect([history.doc, history.settled, history.inGesture]).toEqual(['c', 'a', true]);
    history.commit();
    history.undo();
    expect(history.doc).toBe('a');
    history.live('x');
    history.cancel();
    expect([history.doc, history.inGesture, history.canRedo]).toEqual(['a', false, true]);
  });

  it('makes no step of a change that changed nothing', () => {
    const history = new History<string>('a');
    history.commit('a');
    expect(history.canUndo).toBe(false);
  });
});

describe('saving by itself', () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => void vi.useRealTimers());

  /** A server in memory: what it holds, what it was asked, and what it should answer next. */
  function server() {
    const state = {
      doc: 'a',
      version: 1,
      asked: [] as [string, string, number][],
      answer: null as Outcome<{ version: number }> | null,
    };
    const save = async (
      next: string,
      last: string,
      version: number,
    ): Promise<Outcome<{ version: number }>> => {
      state.asked.push([next, last, version]);
      if (state.answer) return state.answer;
      if (version !== state.version) return fail('stale', 'stale', 'base', { current: state.doc });
      state.doc = next;
      state.version += 1;
      return done({ version: state.version });
    };
    return { state, saver: new Saver<string>('a', 1, save) };
  }

  it('waits a moment, then saves the newest state once, from the version it has', async () => {
    const { state, saver } = server();
    saver.want('b');
    saver.want('c');
    expect(saver.state.kind).toBe('pending');
    await vi.runAllTimersAsync();
    expect(state.asked).toEqual([['c', 'a', 1]]);
    expect([saver.state.kind, saver.version]).toEqual(['saved', 2]);
    saver.want('d');
    expect(await saver.flush()).toBe(true);
    expect(state.asked[1]).toEqual(['d', 'c', 2]);
  });

  it('saves what came while it was saving', async () => {
    const { state, saver } = server();
    saver.want('b');
    const flushed = saver.flush();
    saver.want('c');
    await flushed;
    await vi.runAllTimersAsync();
    expect([state.doc, saver.clean]).toEqual(['c', true]);
  });

  it('tries again by itself when the server was away, and keeps the work', async () => {
    const { state, saver } = server();
    state.answer = fail('internal', 'The server does not answer.');
    saver.want('b');
    await vi.advanceTimersByTimeAsync(300);
    expect(saver.state).toEqual({ kind: 'failed', message: 'The server does not answer.' });
    state.answer = null;
    await vi.advanceTimersByTimeAsync(5000);
    expect([state.doc, saver.state.kind]).toEqual(['b', 'saved']);
  });

  it('stops at a stale save until one version is chosen', async () => {
    const { state, saver } = server();
    Object.assign(state, { doc: 'theirs', version: 5 });
    saver.want('mine');
    await vi.runAllTimersAsync();
    expect(saver.state).toMatchObject({ kind: 'stale', failure: { current: 'theirs' } });
    saver.want('mine too');
    await vi.runAllTimersAsync();
    expect(state.doc).toBe('theirs');
    saver.rebase('theirs', 5);
    await vi.runAllTimersAsync();
    expect([state.doc, saver.version, saver.state.kind]).toEqual(['mine too', 6, 'saved']);
  });

  it('has nothing to save after an undo to what is saved', async () => {
    const { state, saver } = server();
    saver.want('b');
    saver.want('a');
    await vi.runAllTimersAsync();
    expect([state.asked.length, saver.state.kind]).toEqual([0, 'saved']);
  });
});
