<script lang="ts" generics="Entry extends { id?: string; name: string; hex: string; gradient?: unknown }">
  /** The plain colours of a palette as dots to press. */
  type Props = {
    colours: readonly Entry[];
    chosen: (entry: Entry) => boolean;
    label?: (entry: Entry) => string;
    onpick: (entry: Entry) => void;
  };
  let { colours, chosen, label = ({ name }) => name, onpick }: Props = $props();

  const plain = $derived(colours.filter((entry) => !entry.gradient));
</script>

<div>
  {#each plain as entry (entry.id ?? entry.name + entry.hex)}
    <button
      type="button"
      class:chosen={chosen(entry)}
      style:background={entry.hex}
      title="{entry.name} {entry.hex}"
      aria-label={label(entry)}
      onclick={() => onpick(entry)}
    ></button>
  {/each}
</div>

<style>
  div {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
  }
  button {
    width: 24px;
    height: 24px;
    padding: 0;
    border: 1px solid rgb(20 33 31 / 25%);
    border-radius: 50%;
    cursor: pointer;
  }
  .chosen {
    outline: 2px solid var(--kelp);
    outline-offset: 1px;
  }
</style>
