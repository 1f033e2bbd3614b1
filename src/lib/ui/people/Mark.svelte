<script lang="ts">
  import { initialsOf } from '$lib/contract/people';

  /** The initials of somebody in their colour; their whole name is told on pointing, and to those who listen. */
  type Props = { name: string; colour: string; size?: number; gone?: boolean };
  let { name, colour, size = 26, gone = false }: Props = $props();
</script>

<span
  class="mark"
  class:gone
  role="img"
  aria-label={name}
  title={name}
  style:--own={colour}
  style:--size="{size}px"
  data-initials={initialsOf(name)}
></span>

<style>
  .mark {
    display: inline-grid;
    place-items: center;
    flex: none;
    width: var(--size);
    height: var(--size);
    border-radius: 6px 6px 6px 0;
    background: var(--own);
    color: #fff;
    font-size: calc(var(--size) * 0.42);
    font-weight: 700;
    line-height: 1;
    letter-spacing: 0;
  }
  /* Letters to look at: what it says is the name. */
  .mark::before {
    content: attr(data-initials);
  }
  .gone {
    background: var(--rule-strong);
  }
</style>
