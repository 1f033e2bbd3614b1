import { describe, expect, it } from 'vitest';
import { checkRecipe } from '$lib/core/recipe/check';
import { freshTexture } from '$lib/core/recipe/texture';
import { freshRecipe, freshTexturedRecipe, withRegion, withSteps } from './pictured-recipes';
import { proposalsFor } from './proposals';

const source = { asset: 'a'.repeat(64), width: 400, height: 300, name: 'photo' };
const fresh = freshRecipe(source, 0.5);
const names = (recipe: Parameters<typeof proposalsFor>[0]): string[] =>
  proposalsFor(recipe).map(({ name }) => name);
const named = (recipe: Parameters<typeof proposalsFor>[0], name: string) =>
  proposalsFor(recipe).find((one) => one.name === name)!.recipe;

describe('what is offered to make a unit harder to find', () => {
  it('is all that can be done with a part of a photograph', () => {
    expect(names(fresh)).toEqual(['even light', 'larger', 'grown', 'half-drop']);
    for (const { recipe } of proposalsFor(fresh)) expect(checkRecipe(recipe)).toEqual([]);
  });

  it('keeps the resolution, and a larger region lies on the picture, also where it was at its edge', () => {
    const region = { x: 350, y: 40, width: 90, height: 70, turn: 20 };
    const recipe = withSteps(fresh, (from) => withRegion(from, region));
    const made = named(recipe, 'larger');
    const { x, y, width, height } = made.pictured.region;
    expect(width / 90).toBeCloseTo(1.5, 1);
    expect(made.unit.width / width).toBeCloseTo(recipe.unit.width / 90, 6);
    const reach = (width * Math.cos(Math.PI / 9) + height * Math.sin(Math.PI / 9)) / 2;
    expect([x + reach <= 400.5, x - reach >= -0.5, y - height / 2 >= 0]).toEqual([true, true, true]);
  });

  it('is nothing that is done already, or that a symmetry cannot take', () => {
    const grown = named(fresh, 'grown');
    expect(grown.pictured.join).toMatchObject({ on: true, how: 'grown', times: 2 });
    expect(named(grown, 'grown').pictured.join.times).toBe(3);
    expect(names(named(fresh, 'even light'))).not.toContain('even light');
    expect(names(named(fresh, 'half-drop'))).not.toContain('half-drop');
    const whole = { x: 200, y: 150, width: 400, height: 300, turn: 0 };
    expect(names(withSteps(fresh, (from) => withRegion(from, whole)))).not.toContain('larger');
    const folded = withSteps(fresh, (from) => ({ ...from, symmetry: { on: true, group: 'p2mm' } }));
    expect(names(folded)).toEqual(['even light', 'larger']);
  });

  it('of a texture is more of it from the same numbers', () => {
    const texture = { ...freshTexture('brushed'), width: 250, height: 200 };
    const recipe = freshTexturedRecipe(texture);
    const made = named(recipe, 'larger');
    expect(made.pictured.source).toMatchObject({
      width: 500,
      height: 400,
      texture: { ...texture, width: 500, height: 400 },
    });
    expect(made.unit.width).toBeCloseTo(2 * recipe.unit.width, 6);
    expect(names(recipe)).not.toContain('even light');
  });
});
