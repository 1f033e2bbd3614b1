<script lang="ts">
  import { untrack } from 'svelte';
  import { chain, scaling, translation } from '$lib/core/geom/affine';
  import { LIMITS } from '$lib/core/recipe/limits';
  import { fontAddress } from '../state/fonts';
  import { LEADING } from '$lib/core/geom/set-lines';
  import { textMatrix } from './text';
  import type { TextWriter } from './text-writer.svelte';
  import type { View } from './view.svelte';

  /** Words are written where they stand: the outlines below are the text itself, this shows the cursor and takes the keys. */
  type Props = { writer: TextWriter; view: View; onend: () => void };
  let { writer, view, onend }: Props = $props();

  const id = $props.id();
  const { size, align, font } = $derived(writer.numbers);
  let metrics = $state({ ascent: 0.8, descent: 0.2 });

  /** The font as the browser draws it, so that the cursor stands where the letters are. */
  async function load(): Promise<void> {
    const address = fontAddress(font);
    if (address === null) return;
    const face = new FontFace(`isle-${font}`, `url(${address})`);
    document.fonts.add(await face.load());
    const context = document.createElement('canvas').getContext('2d');
    if (!context) return;
    context.font = `100px "isle-${font}"`;
    const { fontBoundingBoxAscent: up, fontBoundingBoxDescent: down } = context.measureText('x');
    metrics = { ascent: up / 100, descent: down / 100 };
  }
  $effect(() => void load().catch(() => undefined));

  const share = $derived({ start: 0, middle: 0.5, end: 1 }[align]);
  const width = $derived((writer.set?.widest ?? 0) + size);
  const lines = $derived(writer.text.split('\n').length);
  /** The upper left corner of the lines in the box of the form, or from the anchor while there is none. */
  const corner = $derived.by(() => {
    const { ascent, descent } = metrics;
    const up = ((LEADING - ascent - descent) / 2 + ascent) * size;
    const { origin, widest } = writer.set ?? { origin: { x: 0, y: 0 }, widest: 0 };
    // Room for the cursor lies where the lines are free to grow.
    return { x: origin.x + widest * share - width * share, y: origin.y - up };
  });
  const matrix = $derived(
    chain(
      translation(view.pan.x, view.pan.y),
      scaling(view.zoom),
      writer.shape && writer.set ? textMatrix(writer.shape) : translation(writer.at.x, writer.at.y),
      translation(corner.x, corner.y),
    ),
  );

  function focus(node: HTMLTextAreaElement): void {
    node.focus();
    if (untrack(() => writer.text) !== '') node.select();
  }
</script>

<textarea
  class:empty={writer.text === ''}
  aria-label="Text"
  aria-describedby={writer.problem ? `${id}-problem` : undefined}
  spellcheck="false"
  maxlength={LIMITS.textLength}
  value={writer.text}
  style:width="{width}px"
  style:height="{lines * size * LEADING}px"
  style:font="{size}px/{LEADING} 'isle-{font}', var(--sans)"
  style:text-align={align === 'middle' ? 'center' : align}
  style:transform="matrix({matrix.a}, {matrix.b}, {matrix.c}, {matrix.d}, {matrix.e}, {matrix.f})"
  style:outline-width="{1.5 / view.zoom}px"
  oninput={(event) => writer.write(event.currentTarget.value)}
  onkeydown={(event) => {
    if (event.key === 'Escape' || (event.key === 'Enter' && (event.ctrlKey || event.metaKey))) {
      event.preventDefault();
      event.currentTarget.blur();
    }
    event.stopPropagation();
  }}
  onblur={onend}
  onpointerdown={(event) => event.stopPropagation()}
  {@attach focus}></textarea>
{#if writer.problem}<p
    id="{id}-problem"
    class="problem"
    role="alert"
    style:left="{matrix.e}px"
    style:top="{Math.max(8, matrix.f - 44)}px"
  >
    {writer.problem}
  </p>{/if}

<style>
  textarea {
    position: absolute;
    top: 0;
    left: 0;
    padding: 0;
    border: 0;
    overflow: hidden;
    background: none;
    color: transparent;
    caret-color: var(--signal);
    outline: 1px dashed var(--kelp);
    resize: none;
    transform-origin: 0 0;
    white-space: pre;
  }
  textarea::selection {
    background: rgb(13 90 80 / 25%);
  }
  .problem {
    position: absolute;
    max-width: 320px;
    padding: 6px 10px;
    border: 1px solid var(--amber);
    border-radius: var(--radius);
    background: var(--amber-tint);
  }
</style>
