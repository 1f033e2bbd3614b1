<script lang="ts">
  import { CUT_LIMITS, type CutOut } from '$lib/core/recipe/cut-out';
  import ColourWell from '../components/ColourWell.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Rows from '../components/Rows.svelte';
  import Tick from '../components/Tick.svelte';
  import Levels from '../picture/Levels.svelte';

  /** The levels of a cut-out's matte, and what is done to its edge. */
  type Props = {
    by: CutOut;
    histogram: readonly number[];
    onset: (by: CutOut) => void;
    oncolour: (colour: string) => void;
  };
  let { by, histogram, onset, oncolour }: Props = $props();

  /** What it was before levels began to be dragged. */
  let before: CutOut | null = null;
  const set =
    <K extends keyof CutOut>(key: K) =>
    (value: CutOut[K]): void =>
      onset({ ...by, [key]: value });
</script>

<Levels
  tone={by}
  {histogram}
  labels={['Left out under', 'Middle of the matte', 'Whole from']}
  onlive={(change) => {
    before ??= by;
    onset({ ...by, ...change });
  }}
  onset={(change) => {
    before = null;
    onset({ ...by, ...change });
  }}
  oncancel={() => {
    if (before) onset(before);
    before = null;
  }}
/>
<Rows>
  {#if by.channel === 'colour'}
    <span>Far from</span>
    <ColourWell colour={by.colour} label="The colour behind the subject" size={18} onset={oncolour} />
  {/if}
  <span>The other way round</span>
  <Tick label="inverted" checked={by.inverted} onset={set('inverted')} />
  <span>Holes within</span>
  <Tick label="filled" checked={by.holes} onset={set('holes')} />
  <span>Edge outward</span>
  <NumberField
    label="How far the edge is moved outward"
    value={by.shift}
    kind={{ suffix: 'px' }}
    digits={0}
    {...CUT_LIMITS.shift}
    onset={(value) => onset({ ...by, shift: Math.round(value) })}
  />
  <span>Soft edge</span>
  <NumberField
    label="How wide the edge is soft"
    value={by.feather}
    kind={{ suffix: 'px' }}
    digits={0}
    {...CUT_LIMITS.feather}
    onset={(value) => onset({ ...by, feather: Math.round(value) })}
  />
  <span>Colours of the edge</span>
  <Tick label="of the subject alone" checked={by.clean} onset={set('clean')} />
</Rows>
