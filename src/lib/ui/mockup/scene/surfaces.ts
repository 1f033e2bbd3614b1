import { Color, DoubleSide, ShaderMaterial, Vector2, type IUniform, type Texture } from 'three';
import type { MadeOf } from '$lib/core/mockup/blanks';
import type { Material } from '$lib/core/mockup/object-entry';
import type { Hex } from '$lib/core/colour/parse';
import { FLOOR, FRAGMENT, VERTEX } from './shader';

type Look = { gloss: number; narrow: number; thread: number; depth: number; lit: number; inside: Hex };

/** How printed surfaces take light. Chosen by eye against photographs of our own desk; no source. */
const MATERIALS: Record<Material, Look> = {
  paper: { gloss: 0, narrow: 8, thread: 0.6, depth: 0, lit: 0, inside: '#f1ede4' },
  card: { gloss: 0.05, narrow: 18, thread: 0.6, depth: 0, lit: 0, inside: '#efece6' },
  glaze: { gloss: 0.42, narrow: 70, thread: 0.6, depth: 0, lit: 0, inside: '#f6f4ef' },
  cotton: { gloss: 0, narrow: 4, thread: 1.1, depth: 0.2, lit: 0, inside: '#e9e4d8' },
  felt: { gloss: 0, narrow: 4, thread: 2.6, depth: 0.12, lit: 0, inside: '#dedad0' },
  film: { gloss: 0.6, narrow: 46, thread: 0.6, depth: 0, lit: 0, inside: '#c9ccd0' },
  screen: { gloss: 0.05, narrow: 60, thread: 0.6, depth: 0, lit: 0.94, inside: '#202427' },
};

const BARE: Record<MadeOf, { colour: Hex; gloss: number; narrow: number }> = {
  paper: { colour: '#f4f0e7', gloss: 0, narrow: 8 },
  ceramic: { colour: '#f6f3ec', gloss: 0.42, narrow: 70 },
  cloth: { colour: '#d9d0bd', gloss: 0, narrow: 4 },
  cord: { colour: '#b99b64', gloss: 0, narrow: 6 },
  glass: { colour: '#3d5a4c', gloss: 0.7, narrow: 90 },
  wood: { colour: '#b98d5e', gloss: 0.06, narrow: 20 },
  metal: { colour: '#8f9499', gloss: 0.5, narrow: 30 },
  dark: { colour: '#24282b', gloss: 0.2, narrow: 40 },
  plaster: { colour: '#ece8df', gloss: 0, narrow: 6 },
};

/** What all surfaces share: the light. */
export type Shared = Record<string, IUniform>;

/** A colour as the shader counts: linear. */
export const linear = (hex: Hex): Color => new Color().setStyle(hex);

const surface = (shared: Shared, own: Record<string, IUniform>): ShaderMaterial => {
  const made = new ShaderMaterial({
    vertexShader: VERTEX,
    fragmentShader: FRAGMENT,
    side: DoubleSide,
    uniforms: {
      sheetSize: { value: new Vector2(1, 1) },
      sheetEdge: { value: new Vector2() },
      picture: { value: null },
      printed: { value: false },
      own: { value: new Color() },
      inside: { value: new Color() },
      ...{ gloss: { value: 0 }, narrow: { value: 1 }, thread: { value: 1 } },
      ...{ depth: { value: 0 }, lit: { value: 0 } },
      ...own,
    },
  });
  Object.assign(made.uniforms, shared);
  return made;
};

/** The surface that a picture of a sheet lies on. */
export function printedSurface(
  shared: Shared,
  material: Material,
  bare: Hex | null,
  picture: Texture,
  sheet: { size: Vector2; edge: Vector2 },
): ShaderMaterial {
  const { inside, ...look } = MATERIALS[material];
  return surface(shared, {
    ...Object.fromEntries(Object.entries(look).map(([key, value]) => [key, { value }])),
    printed: { value: true },
    picture: { value: picture },
    sheetSize: { value: sheet.size },
    sheetEdge: { value: sheet.edge },
    inside: { value: linear(bare ?? inside) },
  });
}

/** What nothing is printed on; a colour of one's own is that of paper, ceramic and cloth. */
export function bareSurface(shared: Shared, of: MadeOf, bare: Hex | null): ShaderMaterial {
  const { colour, gloss, narrow } = BARE[of];
  const takes = of === 'paper' || of === 'ceramic' || of === 'cloth';
  return surface(shared, {
    own: { value: linear(takes && bare ? bare : colour) },
    gloss: { value: gloss },
    narrow: { value: narrow },
  });
}

export function floorSurface(shared: Shared): ShaderMaterial {
  const made = new ShaderMaterial({
    vertexShader: VERTEX,
    fragmentShader: FLOOR,
    transparent: true,
    premultipliedAlpha: true,
    uniforms: {
      sheetSize: { value: new Vector2(1, 1) },
      sheetEdge: { value: new Vector2() },
      own: { value: new Color() },
      whole: { value: new Color(1, 1, 1) },
      clear: { value: false },
      ...{ keeps: { value: false }, kept: { value: true }, picture: { value: null } },
    },
  });
  Object.assign(made.uniforms, shared);
  return made;
}
