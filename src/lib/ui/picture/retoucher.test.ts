import { describe, expect, it } from 'vitest';
import type { Point } from '$lib/core/geom/point';
import { texturePicture, type RetouchStroke } from '$lib/core/recipe/pictured';
import { freshTexture } from '$lib/core/recipe/texture';
import { PictureEditor } from './editor.svelte';
import { freshRecipe } from './pictured-recipes';
import type { Maker } from './maker.svelte';
import { Retoucher } from './retoucher.svelte';

/** As the worker's client answers: a newer ask of a kind takes the place of one that still waits. */
class SlowMaker {
  private waiting: ((from: Point | null) => void) | null = null;
  asked = 0;
  healFrom(): Promise<Point | null> {
    this.asked += 1;
    this.waiting?.(null);
    return new Promise((resolve) => {
      this.waiting = resolve;
      setTimeout(() => resolve({ x: 10, y: 0 }), 5);
    });
  }
}

function painter(): { retoucher: Retoucher; maker: SlowMaker; strokes: () => readonly RetouchStroke[] } {
  const source = { ...texturePicture(freshTexture('brushed')), width: 400, height: 400 };
  const editor = new PictureEditor(null, freshRecipe(source, 1));
  const maker = new SlowMaker();
  const retoucher = new Retoucher(editor, maker as unknown as Maker);
  return { retoucher, maker, strokes: () => editor.pictured.pictured.retouch?.strokes ?? [] };
}

describe('strokes that heal', () => {
  const stroke = (x: number) => ({ size: 20, softness: 0, strength: 1, points: [x, 5, x + 4, 5] });

  it('are all kept, in their order, however fast they follow each other', async () => {
    const { retoucher, maker, strokes } = painter();
    retoucher.choose('heal');
    await Promise.all([20, 60, 100].map((x) => retoucher.set(stroke(x))));
    expect(strokes().map(({ points }) => points[0])).toEqual([20, 60, 100]);
    expect(strokes().every((one) => 'from' in one && one.from.x === 10)).toBe(true);
    expect([maker.asked, retoucher.healing]).toEqual([3, null]);
  });

  it('go on after one that could not be healed', async () => {
    const { retoucher, maker, strokes } = painter();
    retoucher.choose('heal');
    const healFrom = maker.healFrom.bind(maker);
    maker.healFrom = () => Promise.reject(new Error('no room'));
    await retoucher.set(stroke(20));
    maker.healFrom = healFrom;
    await retoucher.set(stroke(60));
    expect(strokes().map(({ points }) => points[0])).toEqual([60]);
  });
});
