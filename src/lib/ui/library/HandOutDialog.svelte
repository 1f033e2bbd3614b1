<script lang="ts">
  import type { Failure } from '$lib/contract/failure';
  import type { HandOutArea } from '$lib/contract/work';
  import { pixelSize, type LengthUnit } from '$lib/core/num/length';
  import { LIMITS } from '$lib/core/recipe/limits';
  import Button from '../components/Button.svelte';
  import Choice from '../components/Choice.svelte';
  import Dialog from '../components/Dialog.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Rows from '../components/Rows.svelte';
  import Switch from '../components/Switch.svelte';
  import { ask, call } from '../state/api';
  import { saveBlob } from '../state/save-file';
  import { sayPatterns } from './say';

  /** Patterns as a file: chosen ones, or the whole library where no ids are given. */
  type Props = { ids?: readonly string[]; onclose: () => void };
  let { ids, onclose }: Props = $props();

  const FORMS = [
    {
      value: 'svg',
      label: 'SVG',
      says: 'One file with every pattern as a <pattern>, a labelled sample of each, and its recipe. Opens anywhere; comes back into Isle just as it was.',
      one: false,
    },
    {
      value: 'zip',
      label: 'Package',
      says: 'A zip with recipes, pictures, palettes and the credits that are due.',
      one: false,
    },
    {
      value: 'css',
      label: 'CSS',
      says: 'A class for each pattern: background-image with its size, and a colour for where pictures are off.',
      one: false,
    },
    {
      value: 'tokens',
      label: 'Tokens',
      says: 'Design tokens: colours and unit of each pattern, with its tile.',
      one: false,
    },
    {
      value: 'tile-svg',
      label: 'Tile, SVG',
      says: 'The smallest rectangle that repeats by itself.',
      one: true,
    },
    { value: 'tile-png', label: 'Tile, PNG', says: 'The same in pixels.', one: true },
    {
      value: 'area',
      label: 'Picture',
      says: 'An area filled with it, from the corner of its unit on, as a picture that knows its resolution.',
      one: true,
    },
  ] as const;
  const forms = $derived(FORMS.filter((form) => !form.one || ids?.length === 1));
  let as = $state<(typeof FORMS)[number]['value']>('svg');
  let scale = $state('1');
  /** The area of a picture, px; as large as the unit to begin with. */
  let area = $state<HandOutArea | null>(null);
  let measure = $state<LengthUnit>('mm');
  $effect(() => {
    if (as === 'area' && area === null && ids?.[0]) void oneUnit(ids[0]);
  });
  async function oneUnit(id: string): Promise<void> {
    const found = await call('GET /patterns/{id}', { id });
    const facts = found.ok ? found.value.facts : null;
    if (!facts) return void (problem = 'This pattern cannot be read; see its page.');
    ({ measure } = facts);
    area = { ...facts.unit, ppi: area?.ppi ?? 300, type: area?.type ?? 'png' };
  }
  const pixels = $derived(area && pixelSize(area, area.ppi));
  let busy = $state(false);
  let problem: string | null = $state(null);
  /** What the file that was just written lacks; the dialog stays for it to be read. */
  let leftOut: string | null = $state(null);
  const chosen = $derived(FORMS.find((form) => form.value === as));

  async function handOut(): Promise<void> {
    busy = true;
    problem = leftOut = null;
    try {
      const answer = await ask('POST /handouts', {
        body: {
          ...(ids ? { ids } : {}),
          as,
          scale: Number(scale),
          ...(as === 'area' && area ? { area } : {}),
        },
      });
      if (answer.ok) {
        await saveBlob(answer);
        const left = answer.headers.get('x-isle-left-out');
        const why = as === 'css' ? 'repeat in no upright rectangle or cannot be read' : 'cannot be read';
        if (left) leftOut = `Left out, since they ${why}: ${decodeURIComponent(left)}.`;
        else onclose();
      } else problem = ((await answer.json()) as Failure).message;
    } catch {
      problem = 'The server does not answer. Try again.';
    }
    busy = false;
  }
</script>

<Dialog
  title={ids
    ? `Hand out ${ids.length === 1 ? 'one pattern' : sayPatterns(ids.length)}`
    : 'Hand out the library'}
  width={480}
  {onclose}
>
  <div class="forms" role="radiogroup" aria-label="As">
    {#each forms as form (form.value)}
      <label class:chosen={as === form.value}>
        <input type="radio" name="form" value={form.value} bind:group={as} />
        {form.label}
      </label>
    {/each}
  </div>
  <p class="muted">{chosen?.says}</p>
  {#if as === 'tile-png'}
    <label class="scale">
      <span class="muted">Pixels to a CSS px</span>
      <Choice
        label="Pixels to a CSS px"
        value={scale}
        options={[
          ['1', '1 (96 ppi)'],
          ['2', '2 (192 ppi)'],
          ['3.125', '3.125 (300 ppi)'],
          ['6.25', '6.25 (600 ppi)'],
        ]}
        onset={(value) => (scale = value)}
      />
    </label>
  {/if}
  {#if as === 'area' && area && pixels}
    <Rows>
      <span>Width · height</span>
      <span class="pair">
        <NumberField
          label="Width of the picture"
          value={area.width}
          kind={{ unit: measure }}
          {...LIMITS.pageSide}
          hideUnit
          onset={(width) => area && (area.width = width)}
        /> ·
        <NumberField
          label="Height of the picture"
          value={area.height}
          kind={{ unit: measure }}
          {...LIMITS.pageSide}
          onset={(height) => area && (area.height = height)}
        />
      </span>
      <span>Resolution</span>
      <NumberField
        label="Resolution of the picture"
        value={area.ppi}
        kind={{ suffix: 'ppi' }}
        digits={0}
        {...LIMITS.ppi}
        onset={(ppi) => area && (area.ppi = ppi)}
      />
      <span>Kind of file</span>
      <Switch
        label="Kind of file"
        value={area.type}
        options={[
          { value: 'png', label: 'PNG' },
          { value: 'webp', label: 'WebP' },
          { value: 'tiff', label: 'TIFF' },
        ]}
        onset={(type) => area && (area.type = type)}
      />
      <span>Comes to</span>
      <span class="mono">{pixels.width} × {pixels.height} px</span>
    </Rows>
    <Button kind="quiet" onclick={() => ids?.[0] && oneUnit(ids[0])}>As large as its unit</Button>
  {/if}
  {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
  {#if leftOut}<p class="problem" role="status">The file is written. {leftOut}</p>{/if}
  {#snippet actions()}
    <Button onclick={onclose}>{leftOut ? 'Close' : 'Cancel'}</Button>
    <Button kind="main" disabled={busy} onclick={handOut}>{busy ? 'Writing …' : 'Save the file'}</Button>
  {/snippet}
</Dialog>

<style>
  .forms {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
  }
  .forms label {
    display: inline-flex;
    align-items: center;
    gap: 6px;
    padding: 5px 10px;
    border: 1px solid var(--rule);
    border-radius: var(--radius);
    cursor: pointer;
  }
  .chosen {
    border-color: var(--kelp);
    background: var(--kelp-tint);
  }
  input {
    accent-color: var(--kelp);
  }
  .scale {
    display: flex;
    align-items: center;
    gap: 8px;
  }
</style>
