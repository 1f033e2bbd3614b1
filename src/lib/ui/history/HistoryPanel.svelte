<script lang="ts">
  import { onMount } from 'svelte';
  import { done, fail } from '$lib/contract/failure';
  import type { LayoutState } from '$lib/contract/data';
  import Button from '../components/Button.svelte';
  import SidePanel from '../components/SidePanel.svelte';
  import Switch from '../components/Switch.svelte';
  import NewThing from '../library/NewThing.svelte';
  import { onLive } from '../state/live';
  import { momentOf } from '../people/say';
  import type { LayoutEditor } from '../layout/editor.svelte';
  import type { LayoutHistory } from './layout-history.svelte';

  /** The states of a layout, the newest first; one of them is looked at and compared. */
  type Props = { history: LayoutHistory; editor: LayoutEditor; onclose: () => void };
  let { history, editor, onclose }: Props = $props();

  let naming: { version: number | null; name: string } | null = $state.raw(null);
  onMount(() => {
    void history.load();
    return () => history.close();
  });
  onLive(
    ['layout.changed', 'layout.state_named'],
    (events) => {
      if (events.some(({ subject }) => subject === editor.id || subject === '')) void history.load();
    },
    1000,
  );

  const title = ({ version, name }: LayoutState): string => name ?? (version === 0 ? 'As it began' : '');
  const sized = (bytes: number): string =>
    bytes < 1000 ? `${bytes} bytes` : `${(bytes / 1000).toFixed(bytes < 10_000 ? 1 : 0)} kB`;
</script>

<SidePanel title="History" {onclose}>
  {#snippet tools()}
    <Button kind="quiet" onclick={() => (naming = { version: null, name: '' })}>Name this state …</Button>
  {/snippet}
  <ol aria-label="States">
    {#each history.states as state, index (state.version)}
      {@const shown = history.looked?.state.version === state.version}
      <li class:shown>
        <button
          type="button"
          class="state"
          aria-pressed={shown}
          disabled={index === 0}
          onclick={() => history.look(state)}
        >
          {#if title(state)}<strong>{title(state)}</strong>{/if}
          <span class:muted={title(state) !== ''}
            >{index === 0 ? `Now, ${momentOf(state.at)}` : momentOf(state.at)}</span
          >
          <span class="muted">{state.by ?? ''}{state.bytes > 0 ? ` · ${sized(state.bytes)}` : ''}</span>
        </button>
        {#if shown}
          <div class="tools">
            <Switch
              label="Compare"
              value={history.compare}
              options={[
                { value: 'beside', label: 'Beside' },
                { value: 'over', label: 'Slider' },
              ]}
              onset={(value) => (history.compare = value)}
            />
            {#if state.version > 0}
              <Button
                kind="quiet"
                onclick={() => (naming = { version: state.version, name: state.name ?? '' })}
                >{state.name ? 'Rename …' : 'Name …'}</Button
              >
            {/if}
          </div>
          {#if history.differences.length > 0}
            <ul aria-label="What differs">
              {#each history.differences.slice(0, 60) as one (one.id)}
                <li>
                  <span>“{one.name}” <span class="muted">{one.what}</span></span>
                  <Button
                    kind="quiet"
                    label={one.fresh ? `Take “${one.name}” away` : `Take “${one.name}” back`}
                    onclick={() => history.takeBack(one.id)}>{one.fresh ? 'Take away' : 'Take back'}</Button
                  >
                </li>
              {/each}
            </ul>
          {:else}
            <p class="muted none">No shape differs from the present.</p>
          {/if}
          <div class="tools end">
            <Button kind="main" onclick={() => history.restore()}>Restore all of it</Button>
          </div>
        {/if}
      </li>
    {/each}
  </ol>
</SidePanel>
{#if naming}
  <NewThing
    title={naming.name === '' ? 'Name a state' : 'Rename a state'}
    label="Its name; a named state is kept for good"
    action="Keep it"
    name={naming.name}
    create={async (name) => {
      const wrong = await history.name(naming?.version ?? null, name);
      if (wrong) return fail('invalid', wrong);
      naming = null;
      return done(null);
    }}
    onclose={() => (naming = null)}
  />
{/if}

<style>
  ol,
  ul {
    margin: 0;
    padding: 0;
    list-style: none;
  }
  ol {
    overflow: auto;
  }
  ol > li {
    border-bottom: 1px solid var(--rule);
  }
  .shown {
    background: var(--kelp-tint);
  }
  .state {
    display: grid;
    width: 100%;
    padding: 8px 12px;
    border: 0;
    background: none;
    text-align: left;
    cursor: pointer;
  }
  .state:disabled {
    cursor: default;
  }
  .state:hover:not(:disabled) {
    background: var(--kelp-tint);
  }
  .tools {
    display: flex;
    align-items: center;
    gap: 8px;
    padding: 2px 12px 8px;
  }
  .end {
    justify-content: flex-end;
  }
  ul li {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 6px;
    padding: 2px 12px;
  }
  .none {
    padding: 2px 12px 8px;
  }
</style>
