<script lang="ts">
  import { freshMask, type Mask } from '$lib/core/recipe/mask';
  import { freshGradient } from '$lib/core/recipe/gradient';
  import type { Fill } from '$lib/core/recipe/fill';
  import type { Shape } from '$lib/core/recipe/layout';
  import Button from '../components/Button.svelte';
  import Popover from '../components/Popover.svelte';
  import Switch from '../components/Switch.svelte';
  import Tick from '../components/Tick.svelte';
  import type { LayoutEditor } from './editor.svelte';
  import GradientPicker from './GradientPicker.svelte';
  import MaskPlacing from './MaskPlacing.svelte';
  import { putGradient, steering } from './steer';
  import { PICTURE_TYPES, takePicture } from './pictures';

  /** A soft mask over this fill or over the whole shape: painted, a gradient, or the light of a picture. */
  type Props = { editor: LayoutEditor; shape: Shape; fill: Fill };
  let { editor, shape, fill }: Props = $props();

  let over: 'fill' | 'shape' = $state('fill');
  const mask = $derived(over === 'fill' ? fill.mask : shape.mask);
  const place = $derived(over === 'fill' ? 'fill-mask' : 'shape-mask');
  const any = $derived(fill.mask !== null || shape.mask !== null);
  let file: HTMLInputElement | undefined = $state();

  const set = (next: Mask | null): void => editor.setMask(over, next);
  function paint(close: () => void): void {
    if (mask?.kind !== 'painted') set(freshMask());
    editor.paintMask(over);
    close();
  }
  async function usePicture(chosen: File): Promise<void> {
    const picture = await takePicture(editor, chosen);
    if (!picture) return;
    const { asset, width, height } = picture;
    const scale = Math.max(shape.width / width, shape.height / height);
    const e = (shape.width - width * scale) / 2;
    const f = (shape.height - height * scale) / 2;
    set({
      kind: 'picture',
      asset,
      width,
      height,
      inverted: false,
      matrix: { a: scale, b: 0, c: 0, d: scale, e, f },
    });
  }
</script>

<Popover label="Soft mask: {any ? 'masked' : 'none'}" width={296} aside text={any ? 'masked' : 'mask …'}>
  {#snippet children(close)}
    <div class="mask" {@attach steering(editor, place)}>
      <strong>Soft mask</strong>
      <Switch
        label="What the mask covers"
        value={over}
        options={[
          { value: 'fill', label: 'This fill' },
          { value: 'shape', label: 'The whole shape' },
        ]}
        onset={(value) => (over = value)}
      />
      {#if mask === null}
        <p>
          Rub out softly with a brush, fade along a gradient, or let the light of a picture decide what shows.
        </p>
      {:else if mask.kind === 'painted'}
        <p>Painted, {mask.strokes.length === 1 ? 'one stroke' : `${mask.strokes.length} strokes`}.</p>
      {:else if mask.kind === 'picture'}
        <p>The light of a picture of {mask.width} × {mask.height} px.</p>
        <Tick
          label="Dark shows, light hides"
          checked={mask.inverted}
          onset={(inverted) => mask.kind === 'picture' && set({ ...mask, inverted })}
        />
      {/if}
      {#if mask?.kind === 'gradient'}
        <GradientPicker
          gradient={mask.gradient}
          {shape}
          palettes={[]}
          colours={false}
          onset={(gradient, live) => putGradient(editor, place, gradient, live)}
          oncancel={() => editor.history.cancel()}
        />
      {:else if mask}
        <MaskPlacing {editor} {shape} {mask} {over} />
      {/if}
      <div class="row">
        <Button onclick={() => paint(close)}>{mask?.kind === 'painted' ? 'Go on painting' : 'Paint'}</Button>
        {#if mask?.kind !== 'gradient'}
          <Button
            onclick={() => {
              const { stops, ...rest } = freshGradient({ colour: '#000000' }, { colour: '#000000' });
              const faded = stops.map((stop, index) => ({ ...stop, opacity: 1 - index }));
              set({ kind: 'gradient', gradient: { ...rest, stops: faded } });
            }}>Gradient</Button
          >
        {/if}
        <Button onclick={() => file?.click()}>Picture …</Button>
      </div>
      {#if mask}<Button kind="quiet" onclick={() => set(null)}>Take the mask away</Button>{/if}
      <input
        bind:this={file}
        type="file"
        accept={PICTURE_TYPES}
        aria-label="Picture for the mask"
        hidden
        onchange={(event) => {
          const [chosen] = event.currentTarget.files ?? [];
          event.currentTarget.value = '';
          if (chosen) void usePicture(chosen);
        }}
      />
    </div>
  {/snippet}
</Popover>

<style>
  .mask {
    display: grid;
    justify-items: start;
    gap: 8px;
  }
  .mask :global(.rows) {
    justify-self: stretch;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
  }
  p {
    margin: 0;
    color: var(--muted);
  }
</style>
