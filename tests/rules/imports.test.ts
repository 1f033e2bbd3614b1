import { readFileSync, readdirSync, statSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';
import { describe, expect, it } from 'vitest';

/** Who may import whom: the table of docs/architecture.md. A layer may always import itself. */
const MAY: Record<string, string[]> = {
  'lib/core/num': [],
  'lib/core/geom': ['lib/core/num'],
  'lib/core/lattice': ['lib/core/geom', 'lib/core/num'],
  'lib/core/colour': ['lib/core/num'],
  'lib/core/raster': ['lib/core/colour', 'lib/core/geom', 'lib/core/num'],
  'lib/core/recipe': ['lib/core/geom', 'lib/core/lattice', 'lib/core/colour', 'lib/core/num'],
  'lib/core/scene': [
    'lib/core/recipe',
    'lib/core/geom',
    'lib/core/lattice',
    'lib/core/colour',
    'lib/core/num',
  ],
  'lib/core/picture': [
    'lib/core/recipe',
    'lib/core/raster',
    'lib/core/geom',
    'lib/core/lattice',
    'lib/core/colour',
    'lib/core/num',
  ],
  'lib/core/draw': ['lib/core/scene', 'lib/core/recipe', 'lib/core/geom', 'lib/core/colour', 'lib/core/num'],
  'lib/core/svg': [
    'lib/core/draw',
    'lib/core/scene',
    'lib/core/recipe',
    'lib/core/geom',
    'lib/core/lattice',
    'lib/core/colour',
    'lib/core/num',
  ],
  'lib/core/pdf': [
    'lib/core/draw',
    'lib/core/scene',
    'lib/core/recipe',
    'lib/core/lattice',
    'lib/core/geom',
    'lib/core/colour',
    'lib/core/num',
  ],
  'lib/core/mockup': [
    'lib/core/recipe',
    'lib/core/geom',
    'lib/core/lattice',
    'lib/core/colour',
    'lib/core/num',
  ],
  'lib/core/proof': [
    'lib/core/draw',
    'lib/core/mockup',
    'lib/core/scene',
    'lib/core/recipe',
    'lib/core/lattice',
    'lib/core/geom',
    'lib/core/colour',
    'lib/core/num',
  ],
  'lib/core/sheet': ['lib/core/geom', 'lib/core/num'],
  'lib/core/formats': [
    'lib/core/geom',
    'lib/core/recipe',
    'lib/core/svg',
    'lib/core/raster',
    'lib/core/colour',
    'lib/core/num',
  ],
  'lib/contract': ['lib/core'],
  'lib/server/root': [],
  'lib/server/db': ['lib/contract', 'lib/server/root'],
  'lib/server/repo': ['lib/server/db', 'lib/core', 'lib/contract'],
  'lib/server/render': ['lib/core', 'lib/contract', 'lib/server/root'],
  'lib/server/processes': ['lib/contract', 'lib/server/root'],
  'lib/server/work': [
    'lib/server/repo',
    'lib/server/db',
    'lib/server/render',
    'lib/server/root',
    'lib/contract',
    'lib/core',
  ],
  'lib/server/jobs': ['lib/server/processes', 'lib/contract', 'lib/core'],
  'lib/server/demo': [
    'lib/server/repo',
    'lib/server/db',
    'lib/server/render',
    'lib/server/root',
    'lib/contract',
    'lib/core',
  ],
  'lib/server/app': ['lib/server', 'lib/contract', 'lib/core'],
  'lib/workers': ['lib/core', 'lib/contract'],
  'lib/ui': ['lib/core', 'lib/contract', 'lib/workers'],
  routes: ['lib/ui', 'lib/contract', 'lib/core'],
  'routes (server)': ['lib/ui', 'lib/contract', 'lib/core', 'lib/server'],
};

const source = resolve('src');

function files(folder: string): string[] {
  return readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    if (statSync(path).isDirectory()) return files(path);
    return /\.(ts|svelte)$/.test(name) && !/\.(test|d)\.ts$/.test(name) ? [path] : [];
  });
}

function layerOf(path: string): string {
  const place = relative(source, path);
  if (place.startsWith('routes') || place.startsWith('hooks'))
    return /(\+server|\.server)\.ts$/.test(place) ? 'routes (server)' : 'routes';
  return (
    Object.keys(MAY)
      .filter((layer) => place.startsWith(`${layer}/`) || place === `${layer}.ts`)
      .sort((a, b) => b.length - a.length)[0] ?? place
  );
}

/** The project's own files that a file imports; types count too. */
function importsOf(path: string): string[] {
  const text = readFileSync(path, 'utf8');
  return [...text.matchAll(/(?:from|import)\s*\(?\s*'([^']+)'/g)].flatMap(([, name = '']) => {
    const target = name.startsWith('$lib/')
      ? join(source, 'lib', name.slice(5))
      : name.startsWith('.')
        ? resolve(dirname(path), name)
        : null;
    if (target === null || target.includes('$types')) return [];
    return [[target, `${target}.ts`, `${target}.svelte`].find((candidate) => all.has(candidate)) ?? target];
  });
}

const all = new Set(files(source));

describe('imports', () => {
  it('follow the layers', () => {
    const wrong: string[] = [];
    for (const file of all) {
      const from = layerOf(file);
      expect(MAY, `${relative(source, file)} lies in no known layer`).toHaveProperty([from]);
      for (const target of importsOf(file)) {
        if (!all.has(target)) continue;
        const to = layerOf(target);
        const allowed =
          to === from || (MAY[from] ?? []).some((layer) => to === layer || to.startsWith(`${layer}/`));
        if (!allowed) wrong.push(`${relative(source, file)} (${from}) → ${relative(source, target)} (${to})`);
      }
    }
    expect(wrong).toEqual([]);
  });

  it('have no cycle', () => {
    const state = new Map<string, 'open' | 'done'>();
    const cycles: string[] = [];
    const visit = (file: string, trail: string[]): void => {
      if (state.get(file) === 'done') return;
      if (state.get(file) === 'open') {
        cycles.push(
          [...trail.slice(trail.indexOf(file)), file].map((path) => relative(source, path)).join(' → '),
        );
        return;
      }
      state.set(file, 'open');
      for (const target of importsOf(file)) if (all.has(target)) visit(target, [...trail, file]);
      state.set(file, 'done');
    };
    for (const file of all) visit(file, []);
    expect(cycles).toEqual([]);
  });

  it('keep the core free of Node, the DOM and frameworks', () => {
    const foreign = [...all]
      .filter((file) => file.includes('/core/'))
      .flatMap((file) =>
        [...readFileSync(file, 'utf8').matchAll(/from\s+'((?:node:|svelte|\$app|\$env)[^']*)'/g)].map(
          ([, name]) => `${relative(source, file)}: ${name}`,
        ),
      );
    expect(foreign).toEqual([]);
  });
});
