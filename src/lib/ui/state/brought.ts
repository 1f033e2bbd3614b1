/** Files that were chosen in one view and are taken up by the next one. */
let files: readonly File[] = [];

export function bringFiles(chosen: readonly File[]): void {
  files = chosen;
}

/** The files that were brought along; they are handed over once. */
export function takeBrought(): readonly File[] {
  const taken = files;
  files = [];
  return taken;
}
