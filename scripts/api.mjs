import { writeFileSync } from 'node:fs';
import { runnerImport } from 'vite';
import { ensurePackages, root } from './lib/ensure.mjs';

/** Writes the types of the API's answers as JSON Schemas for its OpenAPI document; run it where an answer's type has changed. */
ensurePackages();
const { ANSWERS, answersOf, callTypes } = await import('./lib/call-types.mjs');
const { module } = await runnerImport(`${root}/src/lib/contract/routes.ts`, { configFile: false, root });
writeFileSync(ANSWERS, answersOf(callTypes(Object.keys(module.ROUTES))));
