import { onMount } from 'svelte';

/** What changed on the server: a kind such as `palette.changed`, and the id of what changed. */
export type LiveEvent = { kind: string; subject: string };

type Listener = (event: LiveEvent) => void;

const listeners = new Set<Listener>();
let source: EventSource | null = null;

/** Listens to what changes on the server, in this tab or elsewhere, until the returned function is called. One connection a tab. */
export function listen(listener: Listener): () => void {
  listeners.add(listener);
  if (!source) {
    source = new EventSource('/api/v1/events');
    source.onmessage = ({ data }) => {
      const event = JSON.parse(String(data)) as LiveEvent;
      for (const told of listeners) told(event);
    };
  }
  return () => {
    listeners.delete(listener);
    if (listeners.size > 0) return;
    source?.close();
    source = null;
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
