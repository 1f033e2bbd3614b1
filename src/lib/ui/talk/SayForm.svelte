<script lang="ts">
  import type { PersonData } from '$lib/contract/people';
  import { TALK_LIMITS } from '$lib/contract/talk';
  import Button from '../components/Button.svelte';
  import type { Outcome } from '$lib/contract/failure';

  /** Words for a comment or an answer. An @ offers the names of colleagues; Ctrl+Enter says it. */
  type Props = {
    label: string;
    action: string;
    people: readonly PersonData[];
    say: (words: string) => Promise<Outcome<unknown>>;
    oncancel?: () => void;
    /** With each another value but null the field takes the focus. */
    wanted?: unknown;
  };
  let { label, action, people, say, oncancel, wanted = null }: Props = $props();

  let words = $state('');
  let problem: string | null = $state(null);
  let busy = $state(false);
  let field: HTMLTextAreaElement | undefined = $state();

  $effect(() => {
    if (wanted !== null) field?.focus();
  });

  /** What is typed behind the last @, where it may become a name. */
  const asked = $derived(/@([\p{L}\p{N} .'-]{0,40})$/u.exec(words)?.[1] ?? null);
  const offered = $derived(
    asked === null
      ? []
      : people
          .filter(({ name }) => name.toLowerCase().startsWith(asked.toLowerCase()) && name !== asked)
          .slice(0, 5),
  );

  function name(one: PersonData): void {
    words = `${words.slice(0, words.lastIndexOf('@'))}@${one.name} `;
    field?.focus();
  }
  async function submit(): Promise<void> {
    if (words.trim() === '' || busy) return;
    busy = true;
    const said = await say(words.trim());
    busy = false;
    problem = said.ok ? null : said.failure.message;
    if (said.ok) words = '';
  }
</script>

<form
  onsubmit={(event) => {
    event.preventDefault();
    void submit();
  }}
>
  <textarea
    bind:this={field}
    bind:value={words}
    aria-label={label}
    placeholder={label}
    rows="2"
    maxlength={TALK_LIMITS.words}
    onkeydown={(event) => {
      if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) {
        event.preventDefault();
        void submit();
      }
      if (event.key === 'Escape') oncancel?.();
    }}></textarea>
  {#if offered.length > 0}
    <div class="names" role="group" aria-label="Name somebody">
      {#each offered as one (one.id)}
        <button type="button" onclick={() => name(one)}>@{one.name}</button>
      {/each}
    </div>
  {/if}
  {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
  <div class="ways">
    {#if oncancel}<Button kind="quiet" onclick={oncancel}>Cancel</Button>{/if}
    <Button type="submit" disabled={busy || words.trim() === ''}>{action}</Button>
  </div>
</form>

<style>
  form {
    display: grid;
    gap: 6px;
  }
  textarea {
    width: 100%;
    padding: 6px 8px;
    border: 1px solid var(--rule);
    border-radius: var(--radius);
    background: var(--card);
    resize: vertical;
  }
  .names {
    display: flex;
    flex-wrap: wrap;
    gap: 4px;
  }
  .names button {
    padding: 1px 8px;
    border: 1px solid var(--rule);
    border-radius: 10px;
    background: var(--kelp-tint);
    color: var(--kelp);
    cursor: pointer;
  }
  .ways {
    display: flex;
    justify-content: flex-end;
    gap: 6px;
  }
  .problem {
    color: var(--amber);
    font-size: 12px;
  }
</style>
