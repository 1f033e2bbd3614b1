<script lang="ts">
  import type { PaletteData } from '$lib/contract/data';
  import { tintOf } from '$lib/core/colour/tint';
  import { freeName } from '$lib/core/recipe/edit';
  import { groundSlots, type Ground, type GroundStop } from '$lib/core/recipe/recipe';
  import Choice from '../components/Choice.svelte';
  import ColourWell from '../components/ColourWell.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Panel from '../components/Panel.svelte';
  import type { BenchEditor } from './editor.svelte';
  import { newId } from './fresh';

  /** What lies behind the motifs: nothing, one colour, or a gradient that the repeat closes. */
  type Props = {
    editor: BenchEditor;
    palettes: PaletteData[];
    addSlot: (name: string, colour: string) => string | null;
    setColour: (id: string, colour: string, link?: string) => void;
    showColour: (id: string, colour: string) => void;
  };
  let { editor, palettes, addSlot, setColour, showColour }: Props = $props();

  const recipe = $derived(editor.kind === 'composed' ? editor.still : editor.recipe);
  const ground = $derived(recipe.ground);
  const flat = $derived(ground.kind === 'slot' ? recipe.slots.find((slot) => slot.id === ground.slot) : null);
  const slotOptions = $derived([
    ...recipe.slots.map((slot) => [slot.id, slot.name] as [string, string]),
    ['new', 'A new colour'] as [string, string],
  ]);
  const KINDS: [Ground['kind'], string][] = [
    ['clear', 'clear'],
    ['slot', 'one colour'],
    ['linear', 'linear gradient'],
    ['radial', 'radial gradient'],
  ];

  const set = (next: Ground): void => editor.commit({ ...editor.recipe, ground: next });
  const gradients = $derived(
    palettes.flatMap(({ colours }) =>
      colours.flatMap(({ id, name, gradient }) => (gradient ? [{ id, name, gradient }] : [])),
    ),
  );

  /** Takes the stops of a gradient of the palettes, in one step: colours that the pattern has not yet are added. */
  function takeGradient(id: string): void {
    const found = gradients.find((one) => one.id === id);
    if (!found || (ground.kind !== 'linear' && ground.kind !== 'radial')) return;
    const slots = [...editor.recipe.slots];
    const stops = found.gradient.map(({ at, hex, link }): GroundStop => {
      const held = slots.find((slot) => (link ? slot.link === link : slot.colour === hex));
      if (held) return { at, slot: held.id };
      const names = slots.map((slot) => slot.name);
      const fresh = { id: newId(), name: freeName(found.name, names), ...tintOf(hex, link) };
      slots.push(fresh);
      return { at, slot: fresh.id };
    });
    editor.commit({ ...editor.recipe, slots, ground: { ...ground, stops } });
  }
  const slotOrNew = (id: string): string | null => (id === 'new' ? addSlot('Ground', '#e0f0ec') : id);

  function setKind(kind: Ground['kind']): void {
    if (kind === ground.kind) return;
    if (kind === 'clear') return set({ kind });
    const held = groundSlots(ground);
    const first = held[0] ?? slotOrNew('new');
    if (first === null) return;
    if (kind === 'slot') return set({ kind, slot: held.at(-1) ?? first });
    const second = held[1] ?? editor.recipe.slots.find((slot) => slot.id !== first)?.id ?? slotOrNew('new');
    if (second === null) return;
    const repeat = editor.recipe.kind === 'composed' ? editor.recipe.repeat.kind : 'straight';
    if (kind === 'radial')
      return set({
        kind,
        radius: 0.5,
        stops: [
          { at: 0, slot: first },
          { at: 1, slot: second },
        ],
      });
    set({
      kind,
      along: repeat === 'half-drop' ? 'across' : 'down',
      stops: [
        { at: 0, slot: first },
        { at: 0.5, slot: second },
      ],
    });
  }
  function setStop(index: number, change: Partial<GroundStop>): void {
    const now = editor.recipe.ground;
    if (now.kind !== 'linear' && now.kind !== 'radial') return;
    const stops = now.stops.map((stop, at) => (at === index ? { ...stop, ...change } : stop));
    set({ ...now, stops });
  }
</script>

<Panel title="Ground">
  {#snippet aside()}
    <Choice label="Kind of ground" value={ground.kind} options={KINDS} onset={setKind} />
  {/snippet}
  {#if ground.kind === 'slot' && flat}
    <div class="line">
      <ColourWell
        colour={flat.colour}
        label="Ground colour"
        {palettes}
        onlive={(colour) => showColour(flat.id, colour)}
        link={flat.link}
        onset={(colour, link) => setColour(flat.id, colour, link)}
      />
      <Choice
        label="Ground"
        value={ground.slot}
        options={slotOptions}
        onset={(id) => {
          const slot = slotOrNew(id);
          if (slot) set({ kind: 'slot', slot });
        }}
      />
    </div>
  {:else if ground.kind === 'clear'}
    <p class="muted">Nothing: each use shows what it lies on.</p>
  {:else if ground.kind === 'linear' || ground.kind === 'radial'}
    {#each ground.stops as stop, index (index)}
      <div class="line">
        <Choice
          label="Colour {index + 1} of the gradient"
          value={stop.slot}
          options={slotOptions}
          onset={(id) => {
            const slot = slotOrNew(id);
            if (slot) setStop(index, { slot });
          }}
        />
        <NumberField
          label="Place of colour {index + 1}"
          value={stop.at}
          kind={{ suffix: '%' }}
          least={0}
          most={1}
          onset={(at) => setStop(index, { at })}
        />
        <button
          type="button"
          aria-label="Remove colour {index + 1} from the gradient"
          disabled={ground.stops.length < 3}
          onclick={() => set({ ...ground, stops: ground.stops.filter((_, at) => at !== index) })}>×</button
        >
      </div>
    {/each}
    {#if gradients.length > 0}
      <Choice
        label="Take a gradient of the palettes"
        value=""
        options={[['', 'From a palette …'], ...gradients.map(({ id, name }) => [id, name] as const)]}
        onset={takeGradient}
      />
    {/if}
    <div class="line">
      <button
        type="button"
        class="add"
        disabled={ground.stops.length >= 16}
        onclick={() =>
          set({ ...ground, stops: [...ground.stops, { at: 0.75, slot: ground.stops[0]?.slot ?? '' }] })}
        >Add a colour</button
      >
      {#if ground.kind === 'linear'}
        <Choice
          label="Direction of the gradient"
          value={ground.along}
          options={[
            ['down', 'down'],
            ['across', 'across'],
          ]}
          onset={(along) => set({ ...ground, along })}
        />
      {:else}
        <span class="muted">Radius</span>
        <NumberField
          label="Radius of the gradient"
          value={ground.radius}
          kind={{ suffix: '%' }}
          least={0.01}
          most={0.5}
          onset={(radius) => set({ ...ground, radius })}
        />
      {/if}
    </div>
  {/if}
</Panel>

<style>
  .line {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 8px;
    padding: 2px 0;
  }
  .line :global(select) {
    flex: 1;
    max-width: none;
  }
  button {
    padding: 0 5px;
    border: 0;
    background: none;
    color: var(--muted);
    cursor: pointer;
  }
  button:disabled {
    color: var(--rule);
    cursor: default;
  }
  .add {
    padding: 0;
    color: var(--kelp);
    font-weight: 600;
  }
</style>
