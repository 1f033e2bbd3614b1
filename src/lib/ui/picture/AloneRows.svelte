<script lang="ts">
  import { LIMITS } from '$lib/core/recipe/limits';
  import { PICTURED_LIMITS, type ColourAlone } from '$lib/core/recipe/pictured';
  import Button from '../components/Button.svelte';
  import ColourWell from '../components/ColourWell.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Rows from '../components/Rows.svelte';
  import type { PictureEditor } from './editor.svelte';
  import { fieldsOf } from './fields';

  /** What is done to one colour of the picture alone: which one, how far from its hue, and what becomes of it. */
  type Props = { editor: PictureEditor; alone: readonly ColourAlone[] };
  let { editor, alone }: Props = $props();

  // svelte-ignore state_referenced_locally
  const { fields } = fieldsOf(editor);
  const FRESH: ColourAlone = { colour: '#4c8c4a', reach: 50, hue: 0, chroma: 0, light: 0 };
  function setAlone(change: (from: readonly ColourAlone[]) => ColourAlone[], live = false): void {
    editor.steps((from) => {
      const next = change(from.tone.alone ?? []);
      const { alone: _, ...tone } = from.tone;
      return { ...from, tone: next.length > 0 ? { ...tone, alone: next } : tone };
    }, live);
  }
  const setOne = (index: number, change: Partial<ColourAlone>, live = false): void =>
    setAlone((from) => from.map((one, at) => (at === index ? { ...one, ...change } : one)), live);
  const one = (index: number, key: 'reach' | 'hue' | 'chroma' | 'light') =>
    fields((value, live) => setOne(index, { [key]: value }, live));
  const percent = { kind: { suffix: '%' }, digits: 0, ...PICTURED_LIMITS.share } as const;
</script>

{#each alone as { colour, reach, hue, chroma, light }, index (index)}
  <Rows>
    <span>This colour alone</span>
    <span class="pair">
      <ColourWell
        {colour}
        label="Colour {index + 1} that is changed alone"
        size={18}
        reset={{ label: 'No more', run: () => setAlone((from) => from.filter((_, at) => at !== index)) }}
        onlive={(next) => setOne(index, { colour: next }, true)}
        onset={(next) => setOne(index, { colour: next })}
      />
      ±
      <NumberField
        label="How far colour {index + 1} reaches"
        value={reach}
        kind={{ suffix: '°' }}
        digits={0}
        {...PICTURED_LIMITS.reach}
        {...one(index, 'reach')}
      />
    </span>
    <span>Hue</span>
    <NumberField
      label="Turn of colour {index + 1}"
      value={hue}
      kind={{ suffix: '°' }}
      digits={0}
      {...LIMITS.angle}
      {...one(index, 'hue')}
    />
    <span>Saturation · light</span>
    <span class="pair">
      <NumberField
        label="Saturation of colour {index + 1}"
        value={chroma}
        {...percent}
        {...one(index, 'chroma')}
      /> ·
      <NumberField
        label="Lightness of colour {index + 1}"
        value={light}
        {...percent}
        {...one(index, 'light')}
      />
    </span>
  </Rows>
{/each}
{#if alone.length < PICTURED_LIMITS.alone}
  <Button kind="quiet" onclick={() => setAlone((from) => [...from, FRESH])}>Change one colour alone …</Button>
{/if}
