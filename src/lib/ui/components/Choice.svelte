<script lang="ts" generics="T extends string">
  /** A choice from a short list. */
  type Props = {
    label: string;
    value: T;
    options: readonly (readonly [T, string])[];
    disabled?: boolean;
    width?: number;
    onset: (value: T) => void;
  };
  let { label, value, options, disabled = false, width, onset }: Props = $props();
</script>

<select
  aria-label={label}
  {value}
  {disabled}
  style:width={width ? `${width}px` : undefined}
  style:max-width={width ? 'none' : undefined}
  onchange={(event) => onset(event.currentTarget.value as T)}
>
  {#each options as [id, text] (id)}<option value={id}>{text}</option>{/each}
</select>

<style>
  select {
    max-width: 140px;
    padding: 1px 4px;
  }
</style>
