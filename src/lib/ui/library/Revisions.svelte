<script lang="ts">
  import { may } from '../state/may';
  import type { PatternDetail } from '$lib/contract/data';
  import Button from '../components/Button.svelte';
  import Dialog from '../components/Dialog.svelte';
  import { call, urlOf } from '../state/api';
  import { toasts } from '../state/toasts.svelte';
  import { refresh } from '../state/refresh';

  /** The revisions of a pattern with pictures: any two side by side, and any older one restored as the newest. */
  type Props = { pattern: PatternDetail };
  let { pattern }: Props = $props();

  let compared: [number, number] | null = $state.raw(null);
  let scale = $state(0.5);
  const numbers = $derived(pattern.revisions.map((revision) => revision.number));
  const when = (at: number): string =>
    new Date(at).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' });
  const picture = (number: number, width: number, height: number, at: number): string =>
    urlOf('GET /patterns/{id}/revisions/{number}/swatch', {
      ...{ id: pattern.id, number },
      query: { width, height, scale: at },
    });

  async function restore(number: number): Promise<void> {
    const done = await call('POST /patterns/{id}/revisions/{number}/restored', {
      id: pattern.id,
      number,
      body: { base: pattern.version },
    });
    if (!done.ok) return toasts.problem(done.failure.message);
    compared = null;
    await refresh();
    toasts.show(`Revision ${number} is published again, as revision ${done.value.revision}.`);
  }
</script>

<section aria-labelledby="revisions">
  <h2 id="revisions">Revisions</h2>
  <ul>
    {#each pattern.revisions as { number, createdAt } (number)}
      <li>
        <button
          type="button"
          title="Compare revision {number} with {number === pattern.newest ? 'the one before' : 'the newest'}"
          onclick={() =>
            (compared =
              number === pattern.newest ? [numbers[1] ?? number, number] : [number, pattern.newest])}
        >
          <img src={picture(number, 96, 40, 0.4)} alt="" width="96" height="40" loading="lazy" />
          <span><strong>Revision {number}</strong><br /><span class="muted">{when(createdAt)}</span></span>
        </button>
        {#if number !== pattern.newest && !pattern.stock}
          {#if may('designer')}<Button kind="quiet" onclick={() => restore(number)}>Restore</Button>{/if}
        {/if}
      </li>
    {/each}
  </ul>
</section>

{#if compared}
  <Dialog title="{pattern.name}: two revisions" width={920} onclose={() => (compared = null)}>
    <div class="pair">
      {#each [0, 1] as const as side (side)}
        <figure>
          <img
            src={picture(compared[side], 420, 320, scale)}
            alt="Revision {compared[side]}"
            width="420"
            height="320"
          />
          <figcaption>
            <select
              aria-label={side === 0 ? 'Left revision' : 'Right revision'}
              value={compared[side]}
              onchange={(event) => {
                const number = Number(event.currentTarget.value);
                if (compared) compared = side === 0 ? [number, compared[1]] : [compared[0], number];
              }}
            >
              {#each numbers as number (number)}<option value={number}>Revision {number}</option>{/each}
            </select>
            {#if compared[side] !== pattern.newest && !pattern.stock}
              {#if may('designer')}<Button kind="quiet" onclick={() => compared && restore(compared[side])}
                  >Restore</Button
                >{/if}
            {/if}
          </figcaption>
        </figure>
      {/each}
    </div>
    <label class="scale"
      >Scale <input type="range" min="0.1" max="3" step="0.05" bind:value={scale} />
      <span class="mono">{Math.round(scale * 100)} %</span></label
    >
  </Dialog>
{/if}

<style>
  li {
    display: flex;
    align-items: center;
    justify-content: space-between;
    padding: 3px 0;
  }
  li button:first-child {
    display: flex;
    align-items: center;
    gap: 10px;
    padding: 2px;
    border: 0;
    background: none;
    text-align: left;
    cursor: pointer;
  }
  img {
    display: block;
    background: var(--surround);
  }
  .pair {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 16px;
  }
  figure {
    margin: 0;
  }
  figcaption {
    display: flex;
    justify-content: space-between;
    margin-top: 6px;
  }
  .pair img {
    width: 100%;
    height: auto;
  }
  .scale {
    display: flex;
    align-items: center;
    gap: 10px;
  }
  input {
    accent-color: var(--kelp);
  }
</style>
