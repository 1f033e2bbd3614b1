import {
  apply,
  chain,
  determinant,
  isIdentity,
  multiply,
  scaling,
  translation,
  type Affine,
} from '../geom/affine';
import { boxCentre, unionBoxes, type Box } from '../geom/box';
import { pathBox } from '../geom/path';
import type { Point } from '../geom/point';
import { nearly } from '../num/tolerance';
import { LIMITS } from '../recipe/limits';
import {
  emptyRecipe,
  type ComposedRecipe,
  type DrawingElement,
  type Motif,
  type Placing,
} from '../recipe/recipe';
import { freeName } from '../recipe/edit';
import { moved, type Drawn } from './art-drawn';
import { ArtReader } from './art-reader';
import type { SetText } from './art-text';
import { rootMatrix, shapePath, viewBoxOf, viewportMatrix } from './import-read';
import { lengthOf } from './lengths';
import { mergeColours } from './merge-colours';
import { transformOf } from './transforms';
import { groundOf, withinTile } from './tile-edges';
import type { XmlNode } from './xml';

/** A <pattern> of a file as a recipe. Its pictures are named `pending:0` … until they are kept as assets. */
export type ReadPattern = {
  name: string;
  description: string;
  recipe: ComposedRecipe;
  /** Where the tile's upper left corner lay in the file, px. */
  at: Point;
  notes: string[];
};

export type PatternsImport = {
  patterns: ReadPattern[];
  /** Pictures inside the file as data URLs. */
  pictures: string[];
  notes: string[];
};

const DEEPEST_HREF = 12;
/** The box for units in shares where no shape of the file uses the pattern: a CSS px square of our own choice. */
const LONE_BOX: Box = { x: 0, y: 0, width: 100, height: 100 };
/** Parts of a pattern that become motifs of their own; more are kept as one motif. */
const MOST_MOTIFS = 40;

/**
 * Reads every <pattern> element of an SVG tree as SVG 2 (section 14.3) describes it: attributes and content through
 * `href`, both kinds of units, viewBox, patternTransform. A tile shows nothing beyond its edges, so what crosses one is
 * cut there, unless its other part lies at the opposite edge: then it is one piece that wraps. A plain rectangle over
 * the whole tile becomes the ground. Elements of `skip` are passed over.
 */
export function readPatterns(
  root: XmlNode,
  newId: () => string,
  setText: SetText | null,
  skip: ReadonlySet<XmlNode> = new Set(),
): PatternsImport {
  const reader = new ArtReader(root, { newId, setText });
  const found: XmlNode[] = [];
  const gather = (node: XmlNode): void => {
    if (node.name === 'pattern' && !skip.has(node)) found.push(node);
    for (const child of node.children) gather(child);
  };
  gather(root);
  const patterns: ReadPattern[] = [];
  const notes: string[] = [];
  for (const [index, node] of found.entries()) {
    const read = new PatternReader(root, node, reader, newId).read(index);
    if (typeof read === 'string') notes.push(read);
    else patterns.push(read);
  }
  return { patterns, pictures: reader.pictures, notes };
}

class PatternReader {
  private readonly chain: XmlNode[];
  private readonly notes: string[] = [];

  constructor(
    private readonly root: XmlNode,
    private readonly node: XmlNode,
    private readonly art: ArtReader,
    private readonly newId: () => string,
  ) {
    this.chain = this.hrefChain();
  }

  /** The recipe, or a sentence that says why there is none. */
  read(index: number): ReadPattern | string {
    const name = this.name(index);
    const box = this.unitBox();
    const tile = this.tile(box);
    if (!(tile.width > 0) || !(tile.height > 0) || ![tile.x, tile.y].every(Number.isFinite))
      return `The pattern “${name}” has a tile without a size; SVG draws nothing for it, so it was left out.`;
    const holder = this.chain.find((node) => node.children.some((child) => !DESCRIPTIVE.has(child.name)));
    if (!holder) return `The pattern “${name}” draws nothing and was left out.`;
    // Tile space has the tile's upper left corner at (0, 0). `lie` takes it to the page but for a move.
    const full = multiply(linear(rootMatrix(this.root)), this.transform());
    const { scale, lie } = parted(full);
    if (scale === null) return `The pattern “${name}” is flattened by its transform and was left out.`;
    const unit = { width: tile.width * scale.across, height: tile.height * scale.down };
    const sides = [unit.width, unit.height];
    if (sides.some((side) => side < LIMITS.unitSide.least || side > LIMITS.unitSide.most))
      return `The pattern “${name}” has a tile of ${sides.map((side) => side.toPrecision(3)).join(' × ')} px; sides from 0.4 to ${LIMITS.unitSide.most} px can be used.`;
    const before = new Set(this.art.notes);
    const content = chain(scaling(scale.across, scale.down), this.contentMatrix(tile, box));
    const drawn = this.art.inside(holder, content);
    if (!drawn) return `The pattern “${name}” draws more than ${LIMITS.elements} paths; simplify it first.`;
    for (const note of this.art.notes) if (!before.has(note)) this.notes.push(note);
    const recipe = this.recipe(drawn, unit, holder);
    if (recipe.placings.length === 0 && recipe.ground.kind === 'clear')
      return `The pattern “${name}” draws nothing that Isle can use and was left out.`;
    return {
      name,
      description: this.text('desc').slice(0, 2000),
      recipe: isIdentity(lie) ? recipe : { ...recipe, lie },
      at: apply(multiply(rootMatrix(this.root), this.transform()), tile),
      notes: this.notes,
    };
  }

  private recipe(drawn: Drawn[], unit: { width: number; height: number }, holder: XmlNode): ComposedRecipe {
    const recipe = emptyRecipe('px', unit);
    const ground = groundOf(drawn, unit);
    const rest = ground ? drawn.slice(1) : drawn;
    const within = this.value('overflow') === 'visible' ? rest : withinTile(rest, unit);
    const palette = new Set<string>(ground ? [ground] : []);
    for (const { element } of within) for (const slot of slotsIn(element)) palette.add(slot);
    const merged = mergeColours(
      within.map(({ element }) => element),
      [...this.art.slots.values()].filter((slot) => palette.has(slot.id)),
      // The ground keeps the slot that it has.
      LIMITS.slots - 1,
    );
    if (merged.note) this.notes.push(merged.note);
    const cut = within.map((one, index) => ({ ...one, element: merged.elements[index] ?? one.element }));
    const groups =
      holder.children.length <= MOST_MOTIFS && cut.length <= MOST_MOTIFS ? cut.map((one) => [one]) : [cut];
    const motifs: Motif[] = [];
    const placings: Placing[] = [];
    for (const group of groups) this.place(group, motifs, placings);
    const used = new Set<string>(ground ? [ground] : []);
    for (const { element } of cut) for (const slot of slotsIn(element)) used.add(slot);
    return {
      ...recipe,
      ground: ground ? { kind: 'slot', slot: ground } : { kind: 'clear' },
      slots: [...this.art.slots.values()].filter((slot) => used.has(slot.id)),
      motifs,
      placings,
    };
  }

  /** Puts a group of elements into the unit as a motif; one that is there already at another place is placed again. */
  private place(group: readonly Drawn[], motifs: Motif[], placings: Placing[]): void {
    const box = unionBoxes(group.map((one) => one.box));
    if (!box) return;
    const middle = boxCentre(box);
    const elements = group.map((one) => moved(one, translation(-middle.x, -middle.y)));
    const content = {
      kind: 'drawing' as const,
      asset: null,
      width: Math.max(box.width, 0.01),
      height: Math.max(box.height, 0.01),
      elements,
    };
    const key = JSON.stringify(elements);
    const held = motifs.find(
      (motif) => motif.content.kind === 'drawing' && JSON.stringify(motif.content.elements) === key,
    );
    const motif: Motif = held ?? {
      id: this.newId(),
      name: freeName(
        'Piece',
        motifs.map((one) => one.name),
      ),
      content,
    };
    if (!held) motifs.push(motif);
    placings.push({
      id: this.newId(),
      motif: motif.id,
      ...middle,
      rotation: 0,
      scaleX: 1,
      scaleY: 1,
      opacity: 1,
    });
  }

  /** The pattern and those that it takes over from, nearest first. A chain that comes back to itself ends there. */
  private hrefChain(): XmlNode[] {
    const nodes = [this.node];
    for (let node = this.node; nodes.length <= DEEPEST_HREF;) {
      const href = node.attributes.href ?? '';
      if (href === '') break;
      const next = href.startsWith('#') ? this.art.byId.get(href.slice(1)) : undefined;
      if (next?.name !== 'pattern' || nodes.includes(next)) {
        this.notes.push('A reference that leads to no pattern of this file was passed over.');
        break;
      }
      nodes.push(next);
      node = next;
    }
    return nodes;
  }

  private value(name: string): string | undefined {
    return this.chain.find((node) => node.attributes[name] !== undefined)?.attributes[name];
  }

  private text(name: string): string {
    const child = this.node.children.find((one) => one.name === name);
    return child?.text.replace(/\s+/g, ' ').trim() ?? '';
  }

  private name(index: number): string {
    const title = this.text('title') || (this.node.attributes.id ?? '').replace(/[_-]+/g, ' ').trim();
    return (title || `Pattern ${index + 1}`).slice(0, LIMITS.nameLength);
  }

  private transform(): Affine {
    return transformOf(this.value('patternTransform') ?? this.value('transform'));
  }

  /** The box that shares are taken of: that of the first shape that is filled or stroked with the pattern. */
  private unitBox(): Box {
    const shares =
      (this.value('patternUnits') ?? 'objectBoundingBox') === 'objectBoundingBox' ||
      this.value('patternContentUnits') === 'objectBoundingBox';
    if (!shares) return LONE_BOX;
    const user = this.user(this.root);
    const shape = user && shapePath(user);
    const box = shape?.ok ? pathBox(shape.path) : null;
    if (box && box.width > 0 && box.height > 0) return box;
    this.notes.push('No shape of the file uses it, so its shares were taken of a square of 100 px.');
    return LONE_BOX;
  }

  private user(node: XmlNode): XmlNode | null {
    const { id } = this.node.attributes;
    if (!id) return null;
    const paints = [node.attributes.fill, node.attributes.stroke, node.attributes.style];
    if (paints.some((paint) => paint?.includes(`url(#${id})`))) return node;
    for (const child of node.children) {
      const found = this.user(child);
      if (found) return found;
    }
    return null;
  }

  /** The tile in the pattern's own coordinates. */
  private tile(box: Box): Box {
    const [x, y, width, height] = ['x', 'y', 'width', 'height'].map((name) => this.value(name));
    if ((this.value('patternUnits') ?? 'objectBoundingBox') === 'userSpaceOnUse')
      return { x: lengthOf(x), y: lengthOf(y), width: lengthOf(width), height: lengthOf(height) };
    return {
      x: box.x + share(x) * box.width,
      y: box.y + share(y) * box.height,
      width: share(width) * box.width,
      height: share(height) * box.height,
    };
  }

  /** The pattern's content → tile space. A viewBox counts more than content units. */
  private contentMatrix(tile: Box, box: Box): Affine {
    const viewer = this.chain.find((node) => node.attributes.viewBox !== undefined);
    if (viewer && viewBoxOf(viewer)) {
      const how = this.value('preserveAspectRatio');
      const attributes = { ...viewer.attributes, ...(how === undefined ? {} : { preserveAspectRatio: how }) };
      return viewportMatrix({ ...viewer, attributes }, tile.width, tile.height);
    }
    if (this.value('patternContentUnits') === 'objectBoundingBox') return scaling(box.width, box.height);
    return translation(0, 0);
  }
}

const DESCRIPTIVE = new Set(['title', 'desc', 'metadata']);

/** A share as SVG writes it: a number, or percent. */
function share(text: string | undefined): number {
  const match = /^\s*([-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?)\s*(%?)\s*$/i.exec(text ?? '');
  return match ? Number(match[1]) / (match[2] === '%' ? 100 : 1) : 0;
}

const linear = (m: Affine): Affine => ({ ...m, e: 0, f: 0 });

/**
 * A transform parted into sizes along the tile's sides and how the plane lies: sizes alone where it neither turns nor
 * skews, else one size for both sides and the rest. `scale` is `null` where it flattens.
 */
function parted(full: Affine): { scale: { across: number; down: number } | null; lie: Affine } {
  const lie = linear(full);
  const area = Math.abs(determinant(lie));
  if (!(area > 1e-12) || !Number.isFinite(area)) return { scale: null, lie };
  const upright = { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 };
  if (nearly(lie.b, 0, 1e-9) && nearly(lie.c, 0, 1e-9) && lie.a > 0 && lie.d > 0)
    return { scale: { across: lie.a, down: lie.d }, lie: upright };
  const size = Math.sqrt(area);
  const even = (value: number): number => value / size + 0;
  return {
    scale: { across: size, down: size },
    lie: { a: even(lie.a), b: even(lie.b), c: even(lie.c), d: even(lie.d), e: 0, f: 0 },
  };
}

function slotsIn({ fill, stroke }: DrawingElement): string[] {
  const paints = fill === null ? [] : typeof fill === 'string' ? [fill] : fill.stops.map((stop) => stop.slot);
  return stroke ? [...paints, stroke.slot] : paints;
}
