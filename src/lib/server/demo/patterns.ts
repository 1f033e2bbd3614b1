import type { Recipe } from '../../core/recipe/recipe';
import { FERRY_AND_FAIR } from './patterns-ferry-fair';
import { LIDO } from './patterns-lido';
import { recipeOf, type DemoPattern } from './draw';
import { STOCK } from './stock';
import { STOCK_DRAWN } from './stock-drawn';

type Ready = { name: string; description: string; recipe: Recipe; stock: boolean };

const ready = ({ name, description, plan }: DemoPattern, stock: boolean): Ready => ({
  name,
  description,
  recipe: recipeOf(plan),
  stock,
});

/** The patterns of the demo world and the stock, as recipes. */
export function demoPatterns(): Ready[] {
  return [
    ...[...LIDO, ...FERRY_AND_FAIR].map((one) => ready(one, false)),
    ...[...STOCK, ...STOCK_DRAWN].map((one) => ready(one, true)),
  ];
}
