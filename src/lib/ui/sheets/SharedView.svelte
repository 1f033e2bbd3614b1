<script lang="ts">
  import type { SharedSheet } from '$lib/contract/data';
  import { SHEET_LIMITS, type SheetChoice } from '$lib/core/sheet/client-sheet';
  import { sayDate } from '../library/say';
  import { call, urlOf } from '../state/api';

  /** A sheet as a client sees it: pictures with their names, a choice and words for each; nothing else of the studio. */
  type Props = { token: string; sheet: SharedSheet };
  let { token, sheet: first }: Props = $props();

  // svelte-ignore state_referenced_locally
  let sheet = $state.raw(first);
  let who = $state('');
  let words: Record<string, string> = $state({});
  let problem: { item: string; message: string } | null = $state(null);
  let busy = $state(false);

  const choiceOf = (item: string): SheetChoice | null =>
    sheet.answers.findLast((one) => one.item === item && one.choice !== null)?.choice ?? null;
  async function leave(
    item: string,
    left: { choice?: SheetChoice | null; words?: string },
  ): Promise<boolean> {
    busy = true;
    const answer = await call('POST /shared/{token}/answers', {
      token,
      body: {
        item,
        who: who.trim(),
        ...left,
      },
    });
    busy = false;
    problem = answer.ok ? null : { item, message: answer.failure.message };
    if (answer.ok) sheet = answer.value;
    return answer.ok;
  }
  const choose = (item: string, choice: SheetChoice): Promise<boolean> =>
    leave(item, { choice: choiceOf(item) === choice ? null : choice });
  async function say(item: string): Promise<void> {
    const text = (words[item] ?? '').trim();
    if (text !== '' && (await leave(item, { words: text }))) words[item] = '';
  }
</script>

<div class="sheet">
  <header>
    <h1>{sheet.shown.line === '' ? 'For you to see' : sheet.shown.line}</h1>
    {#if sheet.shown.words}<p class="words">{sheet.shown.words}</p>{/if}
    <p class="muted">As it was on {sayDate(sheet.shownAt)}. This link ends on {sayDate(sheet.endsAt)}.</p>
    <label
      >Your name, if you like <input
        type="text"
        bind:value={who}
        maxlength={SHEET_LIMITS.who}
        autocomplete="name"
      /></label
    >
  </header>
  <main>
    {#each sheet.shown.items as item (item.id)}
      <article class={item.width} aria-label={item.title || 'Note'}>
        {#if sheet.pictures.includes(item.id)}
          <img
            src={urlOf('GET /shared/{token}/pictures/{item}', { token, item: item.id })}
            alt={item.title}
          />
        {/if}
        {#if item.title}<h2>{item.title}</h2>{/if}
        {#if item.facts}<p class="muted mono">{item.facts}</p>{/if}
        {#if item.caption}<p class="caption">{item.caption}</p>{/if}
        {#if item.colours.length > 0}
          <ul class="colours">
            {#each item.colours as { name, hex }, at (at)}
              <li><span style:background={hex}></span>{name} <code>{hex}</code></li>
            {/each}
          </ul>
        {/if}
        <div class="answer">
          {#if item.kind !== 'note'}
            <button
              type="button"
              aria-pressed={choiceOf(item.id) === 'this'}
              disabled={busy}
              onclick={() => void choose(item.id, 'this')}>This one</button
            >
            <button
              type="button"
              class="not"
              aria-pressed={choiceOf(item.id) === 'not'}
              disabled={busy}
              onclick={() => void choose(item.id, 'not')}>Not this</button
            >
          {/if}
        </div>
        {#each sheet.answers.filter((one) => one.item === item.id && one.words !== '') as one (one.id)}
          <blockquote>
            <p>{one.words}</p>
            <span class="muted">{one.who || 'said'}, {sayDate(one.createdAt)}</span>
          </blockquote>
        {/each}
        <div class="say">
          <textarea
            rows="2"
            aria-label="Words about {item.title || 'this note'}"
            placeholder="Say something about it"
            maxlength={SHEET_LIMITS.answer}
            bind:value={words[item.id]}></textarea>
          <button
            type="button"
            disabled={busy || !(words[item.id] ?? '').trim()}
            onclick={() => void say(item.id)}>Leave it</button
          >
        </div>
        {#if problem?.item === item.id}<p class="problem" role="alert">{problem.message}</p>{/if}
      </article>
    {/each}
  </main>
</div>

<style>
  .sheet {
    max-width: 1180px;
    padding: 40px 28px 80px;
    margin: 0 auto;
  }
  header {
    display: grid;
    gap: 10px;
    max-width: 720px;
    margin-bottom: 34px;
  }
  h1 {
    font-size: 34px;
  }
  .words,
  .caption {
    white-space: pre-line;
  }
  label {
    color: var(--muted);
  }
  input {
    padding: 5px 8px;
    margin-left: 6px;
    border: 1px solid var(--rule-strong);
    border-radius: var(--radius);
  }
  main {
    display: grid;
    grid-template-columns: repeat(6, 1fr);
    gap: 40px 24px;
    align-items: end;
  }
  article {
    display: grid;
    gap: 4px;
    grid-column: span 6;
  }
  .half {
    grid-column: span 3;
  }
  .third {
    grid-column: span 2;
  }
  @media (max-width: 760px) {
    .half,
    .third {
      grid-column: span 6;
    }
  }
  img {
    display: block;
    width: 100%;
    margin-bottom: 6px;
  }
  h2 {
    font-size: 16px;
  }
  .colours {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 16px;
    padding: 0;
    margin: 4px 0;
    list-style: none;
  }
  .colours span {
    display: inline-block;
    width: 12px;
    height: 12px;
    margin-right: 5px;
    border-radius: 50%;
    box-shadow: 0 0 0 1px rgb(20 33 31 / 18%);
    vertical-align: -1px;
  }
  code {
    color: var(--muted);
    font: 500 11.5px var(--mono);
  }
  .answer {
    display: flex;
    gap: 6px;
    margin-top: 6px;
  }
  button {
    padding: 4px 12px;
    border: 1px solid var(--rule-strong);
    border-radius: 14px;
    background: var(--card);
    cursor: pointer;
  }
  button[aria-pressed='true'] {
    border-color: var(--kelp);
    background: var(--kelp);
    color: #fff;
  }
  .not[aria-pressed='true'] {
    border-color: var(--signal);
    background: var(--signal);
  }
  button:disabled {
    opacity: 0.55;
    cursor: default;
  }
  blockquote {
    padding: 4px 10px;
    margin: 6px 0 0;
    border-left: 2px solid var(--rule-strong);
    overflow-wrap: anywhere;
  }
  blockquote p {
    white-space: pre-line;
  }
  .say {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 6px;
    align-items: start;
    margin-top: 6px;
  }
  textarea {
    padding: 6px 8px;
    border: 1px solid var(--rule);
    border-radius: var(--radius);
    font: inherit;
    resize: vertical;
  }
  .problem {
    color: var(--signal);
  }
</style>
