<script lang="ts">
  import type { UseInPlace } from '$lib/contract/data';
  import type { Colourway } from '$lib/core/colour/colourway';
  import type { Recipe } from '$lib/core/recipe/recipe';
  import { mapFills, type Shape } from '$lib/core/recipe/layout';
  import { grow } from '$lib/core/geom/box';
  import { lowerShape } from '$lib/core/draw/lower';
  import { compiledPattern } from '$lib/core/scene/pattern';
  import { compileUnit } from '$lib/core/scene/unit';
  import { layoutSvg } from '$lib/core/svg/layout';
  import { imageOf } from '../state/raster';

  /** A use of a pattern as a small picture, drawn with a recipe of one's choice. */
  type Props = {
    use: UseInPlace;
    recipe: Recipe;
    colourways?: readonly Colourway[];
    width: number;
    height: number;
    label: string;
  };
  let { use, recipe, colourways = [], width, height, label }: Props = $props();

  /** Alone, without what lies below it, a fill that blends, fades or is masked would hardly be seen. */
  const plain = (shape: Shape): Shape => ({
    ...mapFills(shape, (fill) => ({ ...fill, blend: 'normal', opacity: 1, mask: null, shown: true })),
    mask: null,
    hidden: false,
  });

  const svg = $derived.by(() => {
    const pattern = compiledPattern('use', 'use', compileUnit(recipe), recipe.slots, colourways);
    const scene = lowerShape(plain(use.shape), () => pattern);
    const box = scene.box;
    const scale = Math.min(width / box.width, height / box.height) * 0.94;
    const [across, down] = [width / scale, height / scale];
    const region = grow(
      {
        x: box.x + (box.width - across) / 2,
        y: box.y + (box.height - down) / 2,
        width: across,
        height: down,
      },
      0,
    );
    return layoutSvg(
      { width: across, height: down, background: null, shapes: [scene] },
      { patterns: 'live', region, width: String(width), height: String(height), scale },
    );
  });
  const picture = $derived(imageOf(svg).then((image) => image.src));
</script>

<span class="frame" style:width="{width}px" style:height="{height}px">
  {#await picture then source}<img src={source} alt={label} {width} {height} />{/await}
</span>

<style>
  .frame {
    display: inline-block;
    background: var(--surround);
  }
  img {
    display: block;
  }
</style>
