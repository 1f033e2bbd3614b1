import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build, ensureChromium, ensurePackages, ensurePdfReaders, must, root } from './lib/ensure.mjs';

/** Sets up everything and runs all checks and tests; the last line counts them. */
ensurePackages();
process.env.CHROMIUM_PATH = ensureChromium();
ensurePdfReaders();
const node = process.execPath;
const bin = (path) => join(root, 'node_modules', ...path.split('/'));
const reports = mkdtempSync(join(tmpdir(), 'isle-tests-'));
let passed = 0;
let failed = 0;
/** What failed, told once more at the end: the output is long. */
const faults = [];

must(node, [bin('@sveltejs/kit/svelte-kit.js'), 'sync']);
// Linting takes as long as all the rest, on one core.
await Promise.all([
  lane(['lint', [bin('eslint/bin/eslint.js'), '.']]),
  lane(
    ['format', [bin('prettier/bin/prettier.cjs'), '--check', '--log-level', 'warn', '.']],
    [
      'types of the application',
      [
        bin('svelte-check/bin/svelte-check'),
        '--tsconfig',
        './tsconfig.json',
        '--fail-on-warnings',
        '--output',
        'human',
      ],
    ],
    ['types of the core alone', [bin('typescript/bin/tsc'), '-p', 'src/lib/core/tsconfig.json']],
    ['types of tests and settings', [bin('typescript/bin/tsc'), '-p', 'tsconfig.node.json']],
  ),
]);
suite('unit');
console.log('\n== build');
build();
passed += 1;
step('benchmarks, each once in a short form', ['scripts/bench.mjs', '--short']);
suite('browser');
rmSync(reports, { recursive: true, force: true });
for (const fault of faults) console.log(`failed: ${fault}`);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);

function run(args) {
  return spawnSync(node, args, { cwd: root, stdio: 'inherit' }).status === 0;
}

function step(name, args) {
  console.log(`\n== ${name}`);
  count(name, run(args));
}

function count(name, ok) {
  if (ok) passed += 1;
  else {
    failed += 1;
    faults.push(name);
  }
}

/** Steps one after the other, beside other lanes: each says what it has to say when it has ended. */
async function lane(...steps) {
  for (const [name, args] of steps) {
    const { code, said } = await heard(args);
    console.log(`\n== ${name}\n${said}`);
    count(name, code === 0);
  }
}

function heard(args) {
  return new Promise((resolve) => {
    const child = spawn(node, args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] });
    let said = '';
    child.stdout.on('data', (text) => (said += text));
    child.stderr.on('data', (text) => (said += text));
    child.on('close', (code) => resolve({ code, said }));
  });
}

function suite(name) {
  console.log(`\n== ${name} tests`);
  const report = join(reports, `${name}.json`);
  const ok = run([
    bin('vitest/vitest.mjs'),
    'run',
    '--project',
    name,
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${report}`,
  ]);
  let counted = 0;
  try {
    const result = JSON.parse(readFileSync(report, 'utf8'));
    passed += result.numPassedTests;
    failed += result.numFailedTests;
    counted = result.numFailedTests;
    for (const { assertionResults } of result.testResults)
      for (const { status, fullName, failureMessages } of assertionResults)
        if (status === 'failed') faults.push(`${name}: ${fullName}\n  ${failureMessages[0]?.slice(0, 500)}`);
  } catch {
    console.error(`The ${name} tests left no report.`);
  }
  if (!ok && counted === 0) count(`the ${name} tests, beside the tests themselves`, false);
}
