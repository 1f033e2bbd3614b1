import type { Failure } from '$lib/contract/failure';
import type { Address, Given } from '$lib/contract/routes';
import { ask } from './api';

/** Saves an answer of the server as a file under the name that it states. */
export async function saveBlob(answer: Response): Promise<void> {
  const stated = answer.headers.get('content-disposition') ?? '';
  const encoded = /filename\*=UTF-8''([^;]+)/.exec(stated)?.[1];
  const name = encoded ? decodeURIComponent(encoded) : (/filename="([^"]+)"/.exec(stated)?.[1] ?? 'isle');
  saveFile(await answer.blob(), name);
}

/** Fetches a file of the API and saves it; a sentence where it is refused, which so becomes no file. */
export async function fetchFile<A extends Address>(address: A, given: Given<A>): Promise<string | null> {
  try {
    const answer = await ask(address, given);
    if (!answer.ok) return ((await answer.json()) as Failure).message;
    await saveBlob(answer);
    return null;
  } catch {
    return 'The server does not answer. Try again in a moment.';
  }
}

/** Saves bytes as a file under a name. */
export function saveFile(bytes: Blob, name: string): void {
  const url = URL.createObjectURL(bytes);
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 60_000);
}
