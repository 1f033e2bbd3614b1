/** As long as it takes to see whether the page is really left, ms. */
const STAYS_AFTER = 4000;

/**
 * Lets go of pictures that are still on their way when a page is left by its address. A browser keeps a page, and what it
 * asked for, until the next one begins; with its few connections to a server all held by pictures, that one could not even be asked
 * for until one of them had been drawn. Where the page stays after all they are asked for again.
 */
export function letGoOfPictures(): void {
  const held: { image: HTMLImageElement; src: string }[] = [];
  for (const image of document.images) {
    const src = image.getAttribute('src');
    if (image.complete || src === null || src.startsWith('data:')) continue;
    held.push({ image, src });
    image.removeAttribute('src');
  }
  if (held.length === 0) return;
  setTimeout(() => {
    for (const { image, src } of held) if (!image.hasAttribute('src')) image.src = src;
  }, STAYS_AFTER);
}
