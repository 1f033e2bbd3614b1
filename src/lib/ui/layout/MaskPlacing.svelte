<script lang="ts">
  import { LIMITS } from '$lib/core/recipe/limits';
  import { layMask, maskPlace, type MaskPlace, type PlacedMask } from '$lib/core/recipe/mask';
  import type { Shape } from '$lib/core/recipe/layout';
  import NumberField from '../components/NumberField.svelte';
  import Rows from '../components/Rows.svelte';
  import type { LayoutEditor } from './editor.svelte';
  import { gestureOf } from './numbers';

  /** Where a painted mask or the picture of one lies on its shape: moved, scaled and turned about the shape's middle. */
  type Props = { editor: LayoutEditor; shape: Shape; mask: PlacedMask; over: 'fill' | 'shape' };
  let { editor, shape, mask, over }: Props = $props();

  const place = $derived(maskPlace(mask));
  const length = $derived({ unit: editor.doc.measure });
  const number = (key: keyof MaskPlace) =>
    gestureOf(editor, (value) => {
      const middle = { x: shape.width / 2, y: shape.height / 2 };
      editor.setMask(over, layMask(mask, { [key]: value }, middle), true);
    });
</script>

<Rows>
  <span>Place</span>
  <span class="pair"
    ><NumberField
      label="Mask across"
      value={place.x}
      kind={length}
      {...LIMITS.place}
      hideUnit
      {...number('x')}
    />
    · <NumberField label="Mask down" value={place.y} kind={length} {...LIMITS.place} {...number('y')} /></span
  >
  <span>Scale</span>
  <NumberField
    label="Scale of the mask"
    value={place.scale}
    kind={{ suffix: '%' }}
    {...LIMITS.scale}
    {...number('scale')}
  />
  <span>Turn</span>
  <NumberField
    label="Turn of the mask"
    value={place.turn}
    kind={{ suffix: '°' }}
    {...LIMITS.angle}
    {...number('turn')}
  />
</Rows>
