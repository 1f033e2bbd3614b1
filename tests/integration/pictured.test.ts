import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { madeAsset, madeSize } from '../../src/lib/core/recipe/made';
import {
  PICTURED_LIMITS,
  freshPictured,
  freshTextured,
  PLAIN_TONE,
  slotsOfTexture,
  texturePicture,
} from '../../src/lib/core/recipe/pictured';
import { checkRecipe } from '../../src/lib/core/recipe/check';
import { RECIPE_VERSION, type PicturedRecipe } from '../../src/lib/core/recipe/recipe';
import { recipeAssets } from '../../src/lib/core/recipe/library';
import { PLAIN_LOOK } from '../../src/lib/core/colour/look';
import { toOklab } from '../../src/lib/core/colour/space';
import { makeTexture } from '../../src/lib/core/picture/texture/make';
import { colourNumbered } from '../../src/lib/core/raster/numbered';
import { usedSlots } from '../../src/lib/core/recipe/edit';
import { freshTexture } from '../../src/lib/core/recipe/texture';
import { embedPictures, picturesIn, throughLook } from '../../src/lib/core/svg/paint';
import { unitMarkup } from '../../src/lib/core/svg/pieces';
import { compileUnit } from '../../src/lib/core/scene/unit';
import { soundRecipe } from '../../src/lib/core/scene/sound';
import { recipeSchema } from '../../src/lib/contract/recipe-schemas';
import { openDatabase } from '../../src/lib/server/db/open';
import { storeAsset } from '../../src/lib/server/repo/assets';
import { clearMade, DRAFT, keepMade, madeBytes, missingOf, stepsOf } from '../../src/lib/server/repo/made';
import { createPattern, saveDraft } from '../../src/lib/server/repo/patterns';
import { publish } from '../../src/lib/server/repo/publishing';
import { makePicture, pictureBytes } from '../../src/lib/server/work/making';
import { pngOf } from '../support/pictures';

const source = { asset: 'c'.repeat(64), width: 200, height: 150, name: 'Photo' };
const recipeOf = (asset = source.asset, over: Partial<PicturedRecipe> = {}): PicturedRecipe => ({
  kind: 'pictured',
  version: RECIPE_VERSION,
  measure: 'mm',
  pictured: freshPictured({ ...source, asset }),
  lay: { kind: 'straight' },
  unit: { width: 100, height: 100 },
  ground: { kind: 'clear' },
  slots: [],
  ...over,
});
const greyHex = (value: number): string => `#${value.toString(16).padStart(2, '0').repeat(3)}`;
const ok = <T>(outcome: { ok: true; value: T } | { ok: false; failure: { message: string } }): T => {
  if (!outcome.ok) throw new Error(outcome.failure.message);
  return outcome.value;
};

describe('a recipe from a picture', () => {
  it('is drawn as one plane of what its steps make, as large as its unit', () => {
    const recipe = recipeOf();
    const scene = compileUnit(recipe);
    expect(scene.plane?.files).toEqual([{ asset: madeAsset(recipe), slots: undefined }]);
    expect(scene.cell).toMatchObject({ width: 100, height: 100 });
    expect(recipeAssets(recipe)).toEqual([source.asset]);
    expect(recipeSchema.validate(recipe).error).toBeUndefined();
    expect(soundRecipe(recipe)).toEqual([]);
  });

  it('names what is made by what makes it: not by its size, nor by steps that are off', () => {
    const recipe = recipeOf();
    const name = madeAsset(recipe);
    const { pictured } = recipe;
    const renamed = (over: Partial<typeof pictured>) =>
      madeAsset({ ...recipe, pictured: { ...pictured, ...over } });
    expect(madeAsset({ ...recipe, unit: { width: 50, height: 50 } } as PicturedRecipe)).toBe(name);
    expect(renamed({ symmetry: { on: false, group: 'p6mm' } })).toBe(name);
    expect(renamed({ tone: { ...PLAIN_TONE, contrast: 0.1 } })).not.toBe(name);
    expect(renamed({ tone: { ...PLAIN_TONE, on: false, contrast: 0.1 } })).not.toBe(
      renamed({ tone: { ...PLAIN_TONE, contrast: 0.1 } }),
    );
    expect(renamed({ symmetry: { on: true, group: 'p2mm' } })).not.toBe(name);
    expect(madeAsset({ ...recipe, lay: { kind: 'brick', step: 0.5 } })).not.toBe(name);
  });

  it.each([
    [
      'beside the picture',
      { region: { x: 900, y: 20, width: 40, height: 40, turn: 0 } },
      /lies beside the picture, which is 200 × 150 px/,
    ],
    [
      'of three px',
      { region: { x: 90, y: 20, width: 3, height: 40, turn: 0 } },
      /The width of the region must be/,
    ],
    [
      'much too large',
      { region: { x: 90, y: 20, width: 30_000, height: 40, turn: 0 } },
      /much larger than the picture/,
    ],
    [
      'with a band that is too wide',
      {
        region: { x: 90, y: 70, width: 40, height: 40, turn: 0 },
        join: { on: true, how: 'cut' as const, band: 60, feather: 0, times: 2, seed: 1 },
      },
      /band is wider than the region/,
    ],
    [
      'of a form that its symmetry cannot take',
      {
        symmetry: { on: true, group: 'p4mm' as const },
        region: { x: 90, y: 70, width: 40, height: 30, turn: 0 },
      },
      /p4mm needs a region as high as it is wide/,
    ],
  ])('says what is wrong with a region %s', (_what, over, sentence) => {
    const recipe = recipeOf();
    const problems = checkRecipe({ ...recipe, pictured: { ...recipe.pictured, ...over } });
    expect(problems.map(({ message }) => message).join(' ')).toMatch(sentence);
  });

  it('is never made larger than is counted before', () => {
    const large = { ...source, width: 20_000, height: 20_000 };
    const pictured = {
      ...freshPictured(large),
      region: { x: 1e4, y: 1e4, width: 8000, height: 8000, turn: 0 },
    };
    expect(madeSize(pictured).width ** 2).toBeGreaterThan(PICTURED_LIMITS.pixels);
    expect(
      checkRecipe(recipeOf(source.asset, { pictured }))
        .map(({ message }) => message)
        .join(),
    ).toMatch(/million pixels are made/);
  });
});

describe('a repeat told by few colours', () => {
  const few = { on: true, how: 'flat' as const, colours: ['#102030', '#e0d0c0'], speck: 0 };
  const slots = [
    { id: 'colour-1', name: 'Dark', colour: '#102030' },
    { id: 'colour-2', name: 'Light', colour: '#e0d0c0' },
  ];
  const recipe = recipeOf(source.asset, { pictured: { ...freshPictured(source), few }, slots });

  it('asks for its picture in the colours of a use, whatever look lies over it', () => {
    const scene = compileUnit(recipe);
    const colours = { 'colour-1': '#ff0000', 'colour-2': '#00ff00' };
    const svg = unitMarkup(scene, colours);
    const own = { asset: madeAsset(recipe), look: { ...PLAIN_LOOK, colours: ['#ff0000', '#00ff00'] } };
    expect(picturesIn(svg)).toEqual([own]);
    const look = { ...PLAIN_LOOK, shift: { hue: 20, lightness: 0, chroma: 1 } };
    expect(picturesIn(throughLook(svg, look))).toEqual([
      { ...own, look: { ...look, colours: own.look.colours } },
    ]);
    expect(embedPictures(svg, ({ look: seen }) => `data:,${seen?.colours?.join('')}`)).toContain(
      'data:,#ff0000#00ff00',
    );
    expect(usedSlots(recipe)).toEqual(new Set(['colour-1', 'colour-2']));
  });

  it.each([
    ['needs a slot for each', { slots: slots.slice(1) }, /“colour-1” has no slot/],
    [
      'has two to eight',
      { pictured: { ...recipe.pictured, few: { ...few, colours: ['#102030'] } } },
      /told by 2 to 8 colours; these are 1/,
    ],
  ])('%s', (_what, over, sentence) => {
    const said = checkRecipe({ ...recipe, ...over }).map(({ message }) => message);
    expect(said.join(' ')).toMatch(sentence);
  });
});

describe('a repeat of a texture', () => {
  const texture = { ...freshTexture('linen', 64), height: 48 };
  const pictured = freshTextured(texture);
  const recipe = recipeOf('', { pictured, slots: slotsOfTexture(texture) });

  it('needs no file, and is made as its numbers say', async () => {
    expect(soundRecipe(recipe)).toEqual([]);
    expect(recipeSchema.validate(recipe).error).toBeUndefined();
    expect(recipeAssets(recipe)).toEqual([]);
    const db = openDatabase(':memory:');
    ok(createPattern(db, { name: 'Linen', recipe }));
    const { bytes } = ok(await makePicture(db, madeAsset(recipe)));
    const { data, info } = await sharp(bytes).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
    expect([info.width, info.height]).toEqual([64, 48]);
    const greys = makeTexture(texture);
    colourNumbered({ ...info, data }, ['#000000', '#ffffff']);
    // A blend from black to white by OKLab lightness is what it was, to a step of its share.
    for (let at = 0; at < data.length; at += 4)
      expect(Math.abs(toOklab(greyHex(greys.data[at]!)).l - data[at]! / 255)).toBeLessThan(0.004);
  });

  it.each([
    [
      'numbers that it cannot have',
      { ...texture, numbers: { ...texture.numbers, thread: 1 } },
      /^Thread must/,
    ],
    ['a side that is too long', { ...texture, width: 9000 }, /The width of the texture must/],
  ])('says what is wrong with %s', (_what, over, sentence) => {
    const source = texturePicture(over);
    const said = checkRecipe({ ...recipe, pictured: { ...pictured, source } });
    expect(said[0]?.message).toMatch(sentence);
  });

  it('is the one that its numbers make, not another', () => {
    const source = { ...pictured.source, asset: 'd'.repeat(64) };
    const said = checkRecipe({ ...recipe, pictured: { ...pictured, source } });
    expect(said.map(({ message }) => message).join()).toMatch(/not the one that these numbers make/);
  });
});

describe('what is made of a picture', () => {
  it('and was kept is not made again', async () => {
    const db = openDatabase(':memory:');
    const kept = Buffer.from('bytes that no steps would make');
    keepMade(db, 'e'.repeat(64), kept);
    expect(Buffer.from(ok(await pictureBytes(db, 'e'.repeat(64))).bytes)).toEqual(kept);
    expect((await pictureBytes(db, 'f'.repeat(64))).ok).toBe(false);
  });

  it('is made by name, kept, made anew where it is missing, and let go of with its pattern', async () => {
    const db = openDatabase(':memory:');
    const bytes = await pngOf(200, 150, (x, y) => [x, y, 120, 255]);
    const asset = storeAsset(db, { bytes, mediaType: 'image/png', fileName: 'photo.png' });
    const recipe = recipeOf(asset);
    const { id, version } = ok(createPattern(db, { name: 'Made', recipe }));
    const hash = madeAsset(recipe);
    expect(stepsOf(db, hash)).toEqual({ pictured: recipe.pictured, lay: recipe.lay });
    expect(missingOf(db, id, DRAFT)).toBe(hash);
    const made = ok(await makePicture(db, hash));
    const again = ok(await makePicture(db, hash));
    expect(Buffer.compare(Buffer.from(made.bytes), Buffer.from(again.bytes))).toBe(0);
    expect(await sharp(made.bytes).metadata()).toMatchObject({
      ...madeSize(recipe.pictured),
      hasAlpha: false,
    });
    keepMade(db, hash, Buffer.from(made.bytes));
    expect(missingOf(db, id, DRAFT)).toBeNull();
    ok(publish(db, id, version));
    expect(missingOf(db, id, 1)).toBeNull();

    // The draft goes on; what is published stays.
    const other = { ...recipe, pictured: { ...recipe.pictured, tone: { ...PLAIN_TONE, grey: true } } };
    const now = (
      db.$client.prepare('SELECT version FROM pattern WHERE id = ?').get(id) as { version: number }
    ).version;
    ok(saveDraft(db, id, now, other));
    expect(missingOf(db, id, DRAFT)).toBe(madeAsset(other));
    expect(clearMade(db)).toBe(0);
    db.$client.prepare('DELETE FROM pattern WHERE id = ?').run(id);
    expect(stepsOf(db, hash)).toBeNull();
    expect(clearMade(db)).toBe(1);
    expect(madeBytes(db, hash)).toBeNull();
  });
});
