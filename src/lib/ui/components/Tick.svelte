<script lang="ts">
  /** Something that is on or off, with its name beside it. */
  type Props = { label: string; checked: boolean; disabled?: boolean; onset: (value: boolean) => void };
  let { label, checked, disabled = false, onset }: Props = $props();
</script>

<label>
  <input type="checkbox" {checked} {disabled} onchange={(event) => onset(event.currentTarget.checked)} />
  {label}
</label>

<style>
  label {
    display: inline-flex;
    align-items: center;
    gap: 6px;
    color: var(--muted);
    cursor: pointer;
  }
  input {
    margin: 0;
    accent-color: var(--kelp);
  }
</style>
