import { Resvg } from '@resvg/resvg-js';
import { describe, expect, it } from 'vitest';
import { resolveSlots } from '../../src/lib/core/colour/slots';
import { recipeSchema } from '../../src/lib/contract/recipe-schemas';
import { checkRecipe } from '../../src/lib/core/recipe/check';
import { compileUnit } from '../../src/lib/core/scene/unit';
import { swatchSvg } from '../../src/lib/core/svg/swatch';
import { openDatabase } from '../../src/lib/server/db/open';
import { demoPatterns } from '../../src/lib/server/demo/patterns';
import { seedDemo } from '../../src/lib/server/demo/seed';
import { listPatterns } from '../../src/lib/server/repo/find';
import { listProjects } from '../../src/lib/server/repo/projects';

describe('the demo', () => {
  it.each(demoPatterns().map((pattern) => [pattern.name, pattern.recipe] as const))(
    'has a sound pattern %s',
    (_name, recipe) => {
      expect(checkRecipe(recipe)).toEqual([]);
      expect(recipeSchema.validate(recipe).error?.message).toBeUndefined();
      const scene = compileUnit(recipe);
      expect(scene.empty).toBe(false);
      const svg = swatchSvg(scene, resolveSlots(recipe.slots, {}), {
        width: 480,
        height: 360,
        scale: 1.5,
        title: 'x',
      });
      const { pixels } = new Resvg(svg).render();
      expect(
        new Set(
          Array.from({ length: pixels.length / 4 }, (_, at) => pixels.subarray(at * 4, at * 4 + 4).join()),
        ).size,
      ).toBeGreaterThan(1);
    },
  );

  it('is put into an empty database once', () => {
    const db = openDatabase(':memory:');
    seedDemo(db);
    const query = { search: '', archived: false, drafts: true, limit: 100, offset: 0 };
    const count = listPatterns(db, query).length;
    seedDemo(db);
    expect(listPatterns(db, query)).toHaveLength(count);
    expect(listProjects(db).map((project) => project.layouts)).toEqual([5, 2, 11]);
  });
});
