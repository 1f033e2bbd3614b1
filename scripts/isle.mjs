import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { build, ensurePackages, root } from './lib/ensure.mjs';

/** Isle from outside: looks after a data folder (`check`, `save`), hands over and takes in (`export`, `import`); alone it says how. */
ensurePackages();
const entry = join(root, 'build-workers', 'check.js');
if (!existsSync(entry)) build('ignore');
const ran = spawnSync(process.execPath, [entry, ...process.argv.slice(2)], { cwd: root, stdio: 'inherit' });
process.exit(ran.status ?? 1);
