<script lang="ts">
  import { sameValue } from '$lib/core/num/same';
  import { PICTURED_LIMITS, PLAIN_TONE, type Tone } from '$lib/core/recipe/pictured';
  import Button from '../components/Button.svelte';
  import ColourWell from '../components/ColourWell.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Panel from '../components/Panel.svelte';
  import Rows from '../components/Rows.svelte';
  import Tick from '../components/Tick.svelte';
  import type { PictureEditor } from './editor.svelte';
  import { fieldsOf } from './fields';
  import Levels from './Levels.svelte';
  import type { Maker } from './maker.svelte';

  /** What is done to the colours of the region. */
  type Props = { editor: PictureEditor; maker: Maker };
  let { editor, maker }: Props = $props();

  const { tone } = $derived(editor.pictured.pictured);
  // svelte-ignore state_referenced_locally
  const { toned } = fieldsOf(editor);
  const setTone = (change: Partial<Tone>, live = false): void =>
    editor.steps((from) => ({ ...from, tone: { ...from.tone, ...change } }), live);
</script>

<Panel title="Tone">
  {#snippet aside()}
    <Tick label="on" checked={tone.on} onset={(on) => setTone({ on })} />
  {/snippet}
  {#if tone.on}
    <Levels
      {tone}
      histogram={maker.unit?.histogram ?? []}
      onlive={(change) => setTone(change, true)}
      onset={(change) => setTone(change)}
      oncancel={() => editor.history.cancel()}
    />
    <Rows>
      <span>Becomes</span>
      <span class="pair">
        <NumberField
          label="Black becomes"
          value={tone.low}
          kind={{ suffix: '' }}
          digits={0}
          {...PICTURED_LIMITS.level}
          {...toned('low')}
        /> ·
        <NumberField
          label="White becomes"
          value={tone.high}
          kind={{ suffix: '' }}
          digits={0}
          {...PICTURED_LIMITS.level}
          {...toned('high')}
        />
      </span>
      <span>Even light</span>
      <NumberField
        label="Even light"
        value={tone.even}
        kind={{ suffix: '%' }}
        digits={0}
        least={0}
        most={1}
        {...toned('even')}
      />
      <span>Exposure</span>
      <NumberField
        label="Exposure"
        value={tone.exposure}
        kind={{ suffix: 'EV' }}
        digits={2}
        {...PICTURED_LIMITS.exposure}
        {...toned('exposure')}
      />
      <span>Contrast · saturation</span>
      <span class="pair">
        <NumberField
          label="Contrast"
          value={tone.contrast}
          kind={{ suffix: '%' }}
          digits={0}
          {...PICTURED_LIMITS.share}
          {...toned('contrast')}
        /> ·
        <NumberField
          label="Saturation"
          value={tone.saturation}
          kind={{ suffix: '%' }}
          digits={0}
          {...PICTURED_LIMITS.share}
          {...toned('saturation')}
        />
      </span>
      <span>Becomes a grey</span>
      {#if tone.neutral === null}
        <Button kind="quiet" onclick={() => setTone({ neutral: '#808080' })}>choose …</Button>
      {:else}
        <span class="pair">
          <ColourWell
            colour={tone.neutral}
            label="The colour that becomes a grey"
            size={18}
            reset={{ label: 'None', run: () => setTone({ neutral: null }) }}
            onlive={(neutral) => setTone({ neutral }, true)}
            onset={(neutral) => setTone({ neutral })}
          />
        </span>
      {/if}
      <span>No colour</span>
      <Tick label="grey" checked={tone.grey} onset={(grey) => setTone({ grey })} />
    </Rows>
    {#if !sameValue(tone, PLAIN_TONE)}
      <Button kind="quiet" onclick={() => setTone(PLAIN_TONE)}>As the picture is</Button>
    {/if}
  {/if}
</Panel>
