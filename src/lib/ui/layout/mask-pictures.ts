import { maskPicture } from '$lib/core/formats/mask-picture';
import type { PaintedMask } from '$lib/core/recipe/mask';
import type { MaskPicture } from '$lib/core/svg/fill';

type Drawn = ReturnType<MaskPicture>;

/** Pictures of painted masks for the stage: each is drawn once for its strokes and a step of zoom. */
export class MaskPictures {
  private readonly held = new WeakMap<PaintedMask['strokes'], Map<number, Drawn>>();

  of(mask: PaintedMask, zoom: number): Drawn {
    const wanted = 2 ** Math.ceil(Math.log2(zoom * globalThis.devicePixelRatio));
    const scales = this.held.get(mask.strokes) ?? new Map<number, Drawn>();
    this.held.set(mask.strokes, scales);
    const known = scales.get(wanted);
    if (known !== undefined) return known;
    const drawn = maskPicture(mask, wanted);
    scales.set(wanted, drawn);
    return drawn;
  }
}
