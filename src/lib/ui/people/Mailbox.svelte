<script lang="ts">
  import PageSection from '../components/PageSection.svelte';
  import { whenOf } from './say';

  /** The demo's simulated mailbox: what Isle would send where there were a mail server. */
  type Letter = { to: string; subject: string; text: string; link: string; at: number };
  type Props = { letters: readonly Letter[] };
  let { letters }: Props = $props();
</script>

<PageSection title="Simulated mailbox">
  <p class="muted">In the demo nothing is sent. Here stands what would be, since this Isle was started.</p>
  <ol>
    {#each letters as letter (letter.link)}
      <li>
        <p>
          <strong>{letter.subject}</strong> <span class="muted">to {letter.to}, {whenOf(letter.at)}</span>
        </p>
        <p>{letter.text}</p>
        <!-- eslint-disable-next-line svelte/no-navigation-without-resolve -->
        <p><a class="mono" href={letter.link}>{letter.link}</a></p>
      </li>
    {:else}
      <li class="muted">Nothing yet. Invite somebody, and the message appears here.</li>
    {/each}
  </ol>
</PageSection>

<style>
  ol {
    display: grid;
    gap: 10px;
    margin: 0;
    padding: 0;
    list-style: none;
  }
  li {
    padding: 10px 14px;
    border: 1px dashed var(--rule-strong);
    border-radius: var(--radius);
    background: var(--card);
    overflow-wrap: anywhere;
  }
</style>
