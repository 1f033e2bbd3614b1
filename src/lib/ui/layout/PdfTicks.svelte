<script lang="ts" module>
  /** What a PDF can be asked for beside its pages. */
  export type PdfWishes = {
    marks: boolean;
    register: boolean;
    fonts: boolean;
    layers: boolean;
    exchange: boolean;
  };

  export const NO_WISHES: PdfWishes = {
    ...{ marks: false, register: false, fonts: false, layers: false, exchange: false },
  };
</script>

<script lang="ts">
  import type { Snippet } from 'svelte';
  import Tick from '../components/Tick.svelte';
  import Ticks from '../components/Ticks.svelte';

  type Props = {
    wishes: PdfWishes;
    /** Whether the project has a press, which files for print exchange name. */
    press: boolean;
    disabled?: boolean;
    onset: (wishes: PdfWishes) => void;
    /** Ticks that stand above them. */
    children?: Snippet;
  };
  let { wishes, press, disabled = false, onset, children }: Props = $props();
</script>

<Ticks>
  {@render children?.()}
  <Tick
    label="Crop marks at the corners"
    checked={wishes.marks}
    {disabled}
    onset={(marks) => onset({ ...wishes, marks })}
  />
  <Tick
    label="Registration marks and a colour bar"
    checked={wishes.register}
    {disabled}
    onset={(register) => onset({ ...wishes, register })}
  />
  <Tick
    label="Text as fonts, to be searched and copied"
    checked={wishes.fonts}
    {disabled}
    onset={(fonts) => onset({ ...wishes, fonts })}
  />
  <Tick
    label="A layer for each group of shapes"
    checked={wishes.layers}
    {disabled}
    onset={(layers) => onset({ ...wishes, layers })}
  />
  <span title={press ? undefined : 'It names the press: choose one in a layout, under Plates, Press.'}
    ><Tick
      label="For print exchange (PDF/X-4), by the project’s press"
      checked={wishes.exchange && press}
      disabled={disabled || !press}
      onset={(exchange) => onset({ ...wishes, exchange })}
    /></span
  >
</Ticks>
