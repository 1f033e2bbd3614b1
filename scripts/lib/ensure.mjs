import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = fileURLToPath(new URL('../..', import.meta.url));
const node = process.execPath;

/** Runs a command in the project's folder with its output shown; ends this process where it fails. */
export function must(command, args, options = {}) {
  const result = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options });
  if (result.status !== 0) {
    console.error(`${command} ${args.join(' ')} failed${result.error ? `: ${result.error.message}` : ''}.`);
    process.exit(result.status ?? 1);
  }
}

/** Installs the packages that package-lock.json names, unless the present node_modules was made from it. */
export function ensurePackages() {
  const stamp = join(root, 'node_modules', '.isle-lock');
  const wanted = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  console.log('Installing packages (a few minutes the first time) …');
  const environment = { ...process.env };
  if (existsSync('/usr/include/node')) environment.npm_package_config_node_gyp_nodedir = '/usr';
  must('npm', ['ci', '--loglevel=error'], { env: environment });
  writeFileSync(stamp, wanted);
}

const CHROMIUM = ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'];

/** The browser for tests: CHROMIUM_PATH, an installed one, or Debian's package, installed now. */
export function ensureChromium() {
  const given = process.env.CHROMIUM_PATH;
  if (given) return given;
  let found = CHROMIUM.find((path) => existsSync(path));
  if (!found) {
    install('Chromium', ['chromium']);
    found = CHROMIUM.find((path) => existsSync(path));
  }
  if (!found) {
    console.error('No Chromium was found; install it or set CHROMIUM_PATH.');
    process.exit(1);
  }
  return found;
}

/** Programs of others that draw PDFs, for tests, by the package that has each. */
const PDF_READERS = { pdftoppm: 'poppler-utils', mutool: 'mupdf-tools', gs: 'ghostscript', qpdf: 'qpdf' };

/** What tests read PDFs with: Debian’s packages, installed now where they are missing. */
export function ensurePdfReaders() {
  const isThere = (name) =>
    (process.env.PATH ?? '').split(':').some((folder) => existsSync(join(folder, name)));
  const missing = Object.entries(PDF_READERS).flatMap(([name, own]) => (isThere(name) ? [] : [own]));
  if (missing.length > 0) install('readers of PDF', missing);
}

function install(what, packages) {
  console.log(`Installing ${what} from Debian’s packages …`);
  const sudo = process.getuid?.() === 0 ? [] : ['sudo', '-n'];
  const apt = [...sudo, 'apt-get'];
  const environment = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const options = { env: environment, stdio: ['ignore', 'ignore', 'inherit'] };
  must(apt[0], [...apt.slice(1), 'update'], options);
  must(apt[0], [...apt.slice(1), 'install', '-y', '--no-install-recommends', ...packages], options);
}

/** Builds the application and its worker threads, for use: never with what frameworks add for their own development. */
export function build(stdio = 'inherit') {
  const env = { ...process.env, NODE_ENV: 'production' };
  const vite = join(root, 'node_modules', 'vite', 'bin', 'vite.js');
  must(node, [vite, 'build', '--logLevel', 'warn'], { stdio, env });
  must(node, [vite, 'build', '--logLevel', 'warn', '--config', 'vite.workers.config.ts'], { stdio, env });
}
