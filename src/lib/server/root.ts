import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

/**
 * The folder that holds package.json, drizzle/ and build-workers/, found upwards from this file: bundled or not, the
 * code lies somewhere below it, while the working directory may be anything.
 */
export function appRoot(): string {
  let folder = dirname(fileURLToPath(import.meta.url));
  while (!existsSync(join(folder, 'drizzle')) || !existsSync(join(folder, 'package.json'))) {
    const parent = dirname(folder);
    if (parent === folder)
      throw new Error('Isle’s own folder was not found: no package.json beside drizzle/.');
    folder = parent;
  }
  return folder;
}
