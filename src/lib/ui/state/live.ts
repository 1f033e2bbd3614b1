import { onMount } from 'svelte';

/**
 * What changed on the server: a kind such as `palette.changed`, the id of what changed ("" for anything), and of a layout
 * the version that it has now.
 */
export type LiveEvent = { kind: string; subject: string; version?: number };

type Listener = (event: LiveEvent) => void;

const listeners = new Set<Listener>();
let source: EventSource | null = null;
let watching = false;

function open(): void {
  if (source || listeners.size === 0 || document.visibilityState === 'hidden') return;
  source = new EventSource('/api/v1/events');
  source.onmessage = ({ data }) => {
    const event = JSON.parse(String(data)) as LiveEvent;
    for (const told of listeners) told(event);
  };
}

function close(): void {
  source?.close();
  source = null;
}

/** What may have changed while a tab was hidden. */
const WOKEN = [
  'palette.woken',
  'pattern.woken',
  'collection.woken',
  'layout.changed',
  'mockup.changed',
  'sheet.changed',
  'project.proof',
];

/**
 * A browser gives one place few connections at once, and each tab holds one: hidden tabs let theirs go. When one is
 * seen again it is told that anything may have changed.
 */
function onVisibility(): void {
  if (document.visibilityState === 'hidden') return close();
  if (source || listeners.size === 0) return;
  open();
  for (const kind of WOKEN) for (const told of listeners) told({ kind, subject: '' });
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
export function onLive(kinds: readonly string[], run: (events: LiveEvent[]) => void): void {
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
      }, 60);
    });
    return () => {
      clearTimeout(timer);
      stop();
    };
  });
}
