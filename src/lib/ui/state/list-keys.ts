import { tick } from 'svelte';

/**
 * An attachment for a search field above a list of buttons: arrows go from the field through the list and back, Enter in the
 * field takes the first of them once the answer to what was typed is `ready`, and a letter typed in the list goes into the
 * field. `[data-list]` marks the list.
 */
export const listKeys =
  (ready: () => Promise<void>) =>
  (node: HTMLElement): (() => void) => {
    const field = (): HTMLInputElement | null => node.querySelector('input[type="search"]');
    const options = (): HTMLElement[] => [
      ...node.querySelectorAll<HTMLElement>('[data-list] :is(button, a):not(:disabled)'),
    ];
    const onkeydown = (event: KeyboardEvent): void => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.isComposing) return;
      const target = event.target as HTMLElement;
      const all = options();
      const at = all.indexOf(target);
      const inField = target === field();
      if (!inField && at < 0) return;
      const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
      if (step !== 0) {
        const next = at + step;
        if (next < 0) field()?.focus();
        else (all[next] ?? target).focus();
      } else if (event.key === 'Enter') {
        // What has the focus in the list is pressed by itself; a dialog around it has no part in that.
        event.stopPropagation();
        if (!inField) return;
        void ready()
          .then(tick)
          .then(() => options()[0]?.click());
      } else {
        if (at >= 0 && event.key.length === 1 && event.key !== ' ') field()?.focus();
        return;
      }
      event.preventDefault();
      event.stopPropagation();
    };
    node.addEventListener('keydown', onkeydown);
    return () => node.removeEventListener('keydown', onkeydown);
  };
