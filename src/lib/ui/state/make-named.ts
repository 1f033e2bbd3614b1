import type { Outcome } from '$lib/contract/failure';
import { freeName } from '$lib/core/recipe/edit';

/** More names are not tried. */
const MOST_TRIES = 30;

/** Makes something under a name, or the next one that is free: archived ones hold names that a view does not know of. */
export async function makeNamed<T>(
  name: string,
  taken: readonly string[],
  make: (name: string) => Promise<Outcome<T>>,
): Promise<Outcome<T>> {
  const held = [...taken];
  for (let tries = 1; ; tries += 1) {
    const free = freeName(name, held);
    const made = await make(free);
    if (made.ok || made.failure.code !== 'name_taken' || tries === MOST_TRIES) return made;
    held.push(free);
  }
}
