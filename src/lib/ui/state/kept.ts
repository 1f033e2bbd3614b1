import { createStore, delMany, entries, set, type UseStore } from 'idb-keyval';
import { VIEW } from './api';

/** Work that was not saved: on what it was done, and how far it is. */
export type KeptWork<T> = { person: string; base: T; version: number; doc: T; at: number };

let store: UseStore | null = null;
const works = (): UseStore => (store ??= createStore('isle-kept', 'work'));

/** Nothing is kept where a browser has no such place, or refuses it; saving goes on all the same. */
const canKeep = (): boolean => typeof indexedDB !== 'undefined';

const keyOf = (what: string): string => `${what} ${VIEW}`;

/**
 * While a window is open it holds a lock under its name: what it keeps is its own business. Work of a window that is gone, by a
 * crash or a reload, is found by the next one.
 */
export function holdView(): void {
  if (typeof navigator === 'undefined' || !('locks' in navigator)) return;
  void navigator.locks.request(`isle ${VIEW}`, () => new Promise(() => undefined)).catch(() => undefined);
}

async function openViews(): Promise<Set<string>> {
  if (!('locks' in navigator)) return new Set([VIEW]);
  const { held = [] } = await navigator.locks.query();
  return new Set(held.flatMap(({ name }) => (name?.startsWith('isle ') ? [name.slice(5)] : [])));
}

/** Keeps unsaved work in this browser. */
export async function keepWork<T>(what: string, work: KeptWork<T>): Promise<boolean> {
  if (!canKeep()) return false;
  try {
    await set(keyOf(what), work, works());
    return true;
  } catch {
    return false;
  }
}

/** Forgets what this window kept: it is saved. */
export async function dropWork(what: string): Promise<void> {
  if (canKeep()) await delMany([keyOf(what)], works()).catch(() => undefined);
}

/** Takes out what windows that are gone kept of something, the oldest first; what others kept on this machine stays theirs. */
export async function takeKept<T>(what: string, person: string): Promise<KeptWork<T>[]> {
  if (!canKeep()) return [];
  try {
    const open = await openViews();
    const found = (await entries<string, KeptWork<T>>(works())).filter(([key, work]) => {
      const [of, view] = [key.slice(0, key.lastIndexOf(' ')), key.slice(key.lastIndexOf(' ') + 1)];
      return of === what && work.person === person && (view === VIEW || !open.has(view));
    });
    await delMany(
      found.map(([key]) => key),
      works(),
    );
    return found.map(([, work]) => work).sort((one, other) => one.at - other.at);
  } catch {
    return [];
  }
}
