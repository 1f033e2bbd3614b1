import { onMount } from 'svelte';
import type { LiveEvent } from '$lib/contract/live';
import { line } from './line.svelte';

export type { LiveEvent };

type Listener = (event: LiveEvent) => void;

const AGAIN_MS = 3000;

const listeners = new Set<Listener>();
let source: EventSource | null = null;
let again: ReturnType<typeof setTimeout> | undefined;
let watching = false;
/** The number of the last event that was heard: a line that comes back tells what was missed. */
let last = '';

function open(): void {
  if (source || listeners.size === 0 || document.visibilityState === 'hidden') return;
  const opened = new EventSource(`/api/v1/events${last === '' ? '' : `?after=${last}`}`);
  source = opened;
  opened.onopen = () => line.back();
  opened.onmessage = ({ data, lastEventId }) => {
    if (lastEventId !== '') last = lastEventId;
    const event = JSON.parse(String(data)) as LiveEvent;
    if (event.kind === 'everything') return wake();
    for (const told of listeners) told(event);
  };
  opened.onerror = () => {
    line.lost();
    // A browser tries again by itself, but not after an answer that was refused.
    if (opened.readyState !== EventSource.CLOSED) return;
    close();
    again = setTimeout(open, AGAIN_MS);
  };
}

function close(): void {
  clearTimeout(again);
  source?.close();
  source = null;
}

/** What may have changed where it is not known. */
const WOKEN = [
  'palette.woken',
  'pattern.woken',
  'collection.woken',
  'layout.changed',
  'mockup.changed',
  'sheet.changed',
  'project.proof',
  'comment.woken',
  'here',
];

function wake(): void {
  for (const kind of WOKEN) for (const told of listeners) told({ kind, subject: '' });
}

/**
 * A browser gives one place few connections at once, and each tab holds one: hidden tabs let theirs go. When one is
 * seen again it is told what it missed.
 */
function onVisibility(): void {
  if (document.visibilityState === 'hidden') return close();
  if (source || listeners.size === 0) return;
  const knows = last !== '';
  open();
  if (!knows) wake();
}

/** Listens to what changes on the server, in this tab or elsewhere, until the returned function is called. One connection a tab. */
export function listen(listener: Listener): () => void {
  listeners.add(listener);
  if (!watching) document.addEventListener('visibilitychange', onVisibility);
  watching = true;
  open();
  return () => {
    listeners.delete(listener);
    if (listeners.size === 0) close();
  };
}

/** For components: calls `run` a moment after events whose kind begins with one of `kinds`, several at once as one. */
export function onLive(kinds: readonly string[], run: (events: LiveEvent[]) => void, wait = 60): void {
  onMount(() => {
    let waiting: LiveEvent[] = [];
    let timer: ReturnType<typeof setTimeout> | undefined;
    const stop = listen((event) => {
      if (!kinds.some((kind) => event.kind.startsWith(kind))) return;
      waiting.push(event);
      clearTimeout(timer);
      timer = setTimeout(() => {
        const told = waiting;
        waiting = [];
        run(told);
      }, wait);
    });
    return () => {
      clearTimeout(timer);
      stop();
    };
  });
}
