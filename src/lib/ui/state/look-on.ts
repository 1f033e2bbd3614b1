import { toasts } from './toasts.svelte';

/** For a history: changes of whoever only looks come to nothing, with a sentence. */
export const onlyBy =
  <T>(mayChange: () => boolean, what: string) =>
  (before: T, wanted: T): T => {
    if (mayChange()) return wanted;
    sayLookOn(what);
    return before;
  };

export const sayLookOn = (what: string): void =>
  toasts.problem(
    `You look on here: your role does not change this ${what}. Ask an owner, or leave a comment.`,
  );
