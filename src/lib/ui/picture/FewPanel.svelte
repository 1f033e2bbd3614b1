<script lang="ts">
  import type { PaletteData } from '$lib/contract/data';
  import { retinted } from '$lib/core/colour/tint';
  import { LIMITS } from '$lib/core/recipe/limits';
  import { FRESH_SCREEN, PICTURED_LIMITS, type Few, type Screen } from '$lib/core/recipe/pictured';
  import Button from '../components/Button.svelte';
  import ColourWell from '../components/ColourWell.svelte';
  import NameField from '../components/NameField.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Panel from '../components/Panel.svelte';
  import Rows from '../components/Rows.svelte';
  import Switch from '../components/Switch.svelte';
  import Tick from '../components/Tick.svelte';
  import { toasts } from '../state/toasts.svelte';
  import type { PictureEditor } from './editor.svelte';
  import { fieldsOf } from './fields';
  import type { Maker } from './maker.svelte';

  /** The repeat told by few colours, which are slots then: a colourway gives them others. */
  type Props = { editor: PictureEditor; maker: Maker; palettes: PaletteData[] };
  let { editor, maker, palettes }: Props = $props();

  const FRESH: Few = { on: false, how: 'flat', colours: [], speck: 12 };
  const FRESH_COUNT = 4;
  const few = $derived(editor.pictured.pictured.few ?? FRESH);
  let finding = $state(false);
  // svelte-ignore state_referenced_locally
  const { fields, stepped } = fieldsOf(editor);
  const screen = $derived(few.screen ?? FRESH_SCREEN);
  const setScreen = (change: Partial<Screen>, live = false): void =>
    editor.steps((from) => ({ ...from, few: { ...few, screen: { ...screen, ...change } } }), live);
  const screened = (change: (value: number) => Partial<Screen>) =>
    fields((value, live) => setScreen(change(value), live));

  /** Looks for so many colours in the present unit, and tells it by them. */
  async function find(how: Few['how'], count: number): Promise<void> {
    if (maker.held === null) return toasts.problem('The picture is still being read; try again in a moment.');
    const { pictured, lay } = editor.pictured;
    finding = true;
    const colours = await maker.findColours({ pictured: { ...pictured, few: undefined }, lay }, how, count);
    // Others are looked for meanwhile.
    if (colours === null) return;
    finding = false;
    if (colours.length < PICTURED_LIMITS.few.least)
      return toasts.problem('This unit has one colour alone; there is nothing to tell apart.');
    editor.setFew({ ...few, on: true, how, colours });
  }
  function turn(on: boolean): void {
    if (on && few.colours.length === 0) void find(few.how, FRESH_COUNT);
    else editor.setFew({ ...few, on });
  }
</script>

<Panel title="Colours">
  {#snippet aside()}
    <Tick label="few, as slots" checked={few.on} onset={turn} />
  {/snippet}
  {#if few.on}
    <Rows>
      <span>Told</span>
      <Switch
        label="How few colours tell the picture"
        value={few.how}
        options={[
          { value: 'flat', label: 'Flat', title: 'Each pixel has the nearest colour' },
          { value: 'blend', label: 'Blend', title: 'Mixed of two colours, by its lightness' },
          {
            value: 'halftone',
            label: 'Halftone',
            title: 'Dots of an ink on a paper, as large as it is dark',
          },
        ]}
        onset={(how) =>
          void find(how, how === 'flat' && few.how === 'halftone' ? FRESH_COUNT : few.colours.length)}
      />
      {#if few.how === 'halftone'}
        <span>Dots across · turn</span>
        <span class="pair">
          <NumberField
            label="Dots along the width"
            value={screen.across}
            kind={{ suffix: '' }}
            digits={0}
            {...PICTURED_LIMITS.screen}
            {...screened((across) => ({ across: Math.round(across) }))}
          /> ·
          <NumberField
            label="Turn of the screen"
            value={screen.turn}
            kind={{ suffix: '°' }}
            digits={1}
            {...LIMITS.angle}
            {...screened((turn) => ({ turn }))}
          />
        </span>
        <span>Screen</span>
        <Switch
          label="What the screen is made of"
          value={screen.form}
          options={[
            { value: 'round', label: 'Dots' },
            { value: 'line', label: 'Lines' },
          ]}
          onset={(form) => setScreen({ form })}
        />
      {:else}
        <span>How many</span>
        <NumberField
          label="How many colours"
          value={few.colours.length}
          kind={{ suffix: '' }}
          digits={0}
          {...PICTURED_LIMITS.few}
          onlive={() => undefined}
          onset={(count) => void find(few.how, Math.round(count))}
          oncancel={() => undefined}
        />
      {/if}
      {#if few.how === 'flat'}
        <span>Spots under</span>
        <NumberField
          label="The size under which a spot goes"
          value={few.speck}
          kind={{ suffix: 'px' }}
          digits={0}
          {...PICTURED_LIMITS.speck}
          {...stepped((from, speck) => ({ ...from, few: { ...few, speck: Math.round(speck) } }))}
        />
      {/if}
    </Rows>
    <ul>
      {#each editor.pictured.slots as slot (slot.id)}
        <li data-slot={slot.id}>
          <ColourWell
            colour={slot.colour}
            label={slot.name}
            {palettes}
            link={slot.link}
            onlive={(colour) => editor.setSlot(slot.id, (from) => retinted(from, colour), true)}
            onset={(colour, link) => editor.setSlot(slot.id, (from) => retinted(from, colour, link))}
          />
          <NameField
            label="The name of the colour"
            value={slot.name}
            onset={(name) => {
              editor.setSlot(slot.id, (from) => ({ ...from, name }));
              return null;
            }}
          />
        </li>
      {/each}
    </ul>
    <Button
      kind="quiet"
      disabled={finding || maker.held === null}
      onclick={() => void find(few.how, few.colours.length)}>Find them again</Button
    >
  {:else if finding}<p class="muted note">Looking for its colours …</p>
  {:else}<p class="muted note">Its colours stay as the picture has them.</p>{/if}
</Panel>

<style>
  ul {
    margin: 6px 0;
  }
  li {
    display: flex;
    align-items: center;
    gap: 10px;
    padding: 3px 0;
  }
  .note {
    font-size: var(--small);
  }
</style>
