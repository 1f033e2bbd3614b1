import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { done, fail, type Outcome } from '../../contract/failure';
import { History } from './history.svelte';
import { inRun } from './run';
import { Saver } from './saver.svelte';
import { toasts } from './toasts.svelte';

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
    history.commit('b');
    history.live('y');
    history.undo();
    expect([history.doc, history.canUndo, history.inGesture]).toEqual(['b', true, false]);
    history.undo();
    history.live('x');
    history.cancel();
    expect([history.doc, history.inGesture, history.canRedo]).toEqual(['a', false, true]);
  });

  it('makes one step of a run of small changes, and another of the next run', () => {
    vi.useFakeTimers();
    const history = new History(0);
    const step = (run: string, to: number): void => inRun(run, () => history.commit(to));
    for (const to of [1, 2, 3]) {
      step('field', to);
      vi.advanceTimersByTime(400);
    }
    step('other', 4);
    vi.advanceTimersByTime(1500);
    step('other', 5);
    history.commit(6);
    step('other', 7);
    const seen = [7, 6, 5, 4, 3, 0].map((at) => {
      const { doc } = history;
      history.undo();
      return [at, doc];
    });
    expect(seen.every(([wanted, doc]) => wanted === doc)).toBe(true);
    expect(history.canUndo).toBe(false);
    // What is done after an undo is a step of its own.
    step('field', 8);
    history.undo();
    step('field', 9);
    history.undo();
    expect(history.doc).toBe(0);
    vi.useRealTimers();
  });

  it('lets a guard keep what must not change, in a gesture too', () => {
    const history = new History(10, (before, wanted) => (wanted > 12 ? before : wanted));
    history.live(11);
    history.live(13);
    expect(history.doc).toBe(10);
    history.commit();
    history.commit(14);
    expect([history.doc, history.canUndo]).toEqual([10, false]);
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

describe('messages', () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => {
    for (const { id } of toasts.list) toasts.dismiss(id);
    vi.useRealTimers();
  });
  const said = (): string[] => toasts.list.map(({ message }) => message);

  it('leave after a while, problems too, and are not said twice at a time', () => {
    toasts.problem('The disk is full.');
    toasts.problem('The disk is full.');
    toasts.show('Saved.');
    expect(said()).toEqual(['The disk is full.', 'Saved.']);
    vi.advanceTimersByTime(6000);
    expect(said()).toEqual(['The disk is full.']);
    vi.advanceTimersByTime(10_000);
    expect(said()).toEqual([]);
  });

  it('can be read again after they have left, the last first, each once', () => {
    toasts.show('One.');
    toasts.problem('Two.');
    toasts.show('One.');
    vi.advanceTimersByTime(60_000);
    expect(said()).toEqual([]);
    expect(toasts.said.slice(0, 2).map(({ message, kind }) => [message, kind])).toEqual([
      ['One.', 'done'],
      ['Two.', 'problem'],
    ]);
    expect(toasts.said.filter(({ message }) => message === 'One.')).toHaveLength(1);
    for (let count = 0; count < 80; count += 1) toasts.show(`Message ${count}.`);
    expect(toasts.said).toHaveLength(50);
  });

  it('leave once what they ask for has happened, and stay while they are read', () => {
    toasts.problem('Select a shape first.', 'selection');
    toasts.problem('Another.');
    toasts.settled('selection');
    expect(said()).toEqual(['Another.']);
    const [other] = toasts.list;
    toasts.hold(other?.id ?? 0);
    vi.advanceTimersByTime(60_000);
    expect(said()).toEqual(['Another.']);
    toasts.letGo(other?.id ?? 0);
    vi.advanceTimersByTime(60_000);
    expect(said()).toEqual([]);
  });
});
