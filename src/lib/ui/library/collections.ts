import type { LibraryFacets } from '$lib/contract/data';
import { call } from '../state/api';

/** The ids of collections by their names, made where they are not there yet; a sentence where one cannot be made. */
export async function collectionIds(
  names: readonly string[],
  { collections }: LibraryFacets,
): Promise<string[] | string> {
  const ids: string[] = [];
  for (const name of names) {
    const held = collections.find((one) => one.name.toLowerCase() === name.toLowerCase());
    const made = held ? null : await call('POST /collections', { body: { name } });
    if (made && !made.ok) return made.failure.message;
    ids.push(held?.id ?? (made?.ok ? made.value.id : ''));
  }
  return ids;
}
