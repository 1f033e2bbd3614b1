<script lang="ts">
  import { closedRound, fillsRound, runsOn, wholeRound } from '$lib/core/mockup/whole-round';
  import type { Standing } from '$lib/core/mockup/mockup';
  import { roundOf } from '$lib/core/mockup/objects';
  import Button from '../components/Button.svelte';
  import Panel from '../components/Panel.svelte';
  import Switch from '../components/Switch.svelte';
  import NumberField from '../components/NumberField.svelte';
  import { toasts } from '../state/toasts.svelte';
  import { saveArc } from './save-arc';
  import type { MockupSession } from './session.svelte';

  /** Whether a pattern closes all round an object, what it costs to have it close, and where the joint lies. */
  type Props = { session: MockupSession; one: Standing };
  let { session, one }: Props = $props();

  const round = $derived(roundOf(one.object));
  const editor = $derived(session.editorOf(one));
  const isSheet = $derived(session.layOf(one)?.how === 'sheet');
  const fills = $derived(round && editor && isSheet ? fillsRound(editor.doc.shapes, round) : []);
  const first = $derived(fills[0]?.fill ?? null);
  const periods = $derived(first && editor ? (editor.lookup(first)?.scene.lattice ?? null) : null);
  const fit = $derived(round && first && periods ? wholeRound(round, first, periods) : null);
  const joined = $derived(runsOn(fills));
  const cone = $derived(one.object.kind === 'cup' || one.object.kind === 'cone');

  const percent = (scale: number): string => String(Number((scale * 100).toFixed(2)));
  const mm = (length: number): string => String(Number(length.toFixed(1)));

  const page = $derived(session.pages.get(one.id) ?? null);
  const PPI = { least: 36, most: 600 };
  let ppi = $state(300);
  let saving = $state(false);
  /** What a printer cuts for it: the true development, with the art bent into it. */
  async function save(): Promise<void> {
    if (!page) return;
    saving = true;
    try {
      await saveArc(one.object, page, one.name, ppi);
    } catch {
      toasts.problem('The wall could not be made; try a lower resolution.');
    } finally {
      saving = false;
    }
  }

  function take(): void {
    if (!fit || !first || !editor) return;
    const ids = new Set(fills.map(({ fill }) => fill.id));
    const shapes = new Set(fills.map(({ shape }) => shape.id));
    editor.change((shape) => closedRound(shape, ids, first, fit, fills.length > 1), { ids: shapes });
  }
  /** The other way of drawing on a cone has another page: a cut sheet of its own, with all that is on this one. */
  async function run(kind: 'cup' | 'cone'): Promise<void> {
    if (kind === one.object.kind) return;
    session.changeOne(one.id, (held) => ({ ...held, object: { ...held.object, kind } }));
    if (one.layout !== null) await session.cut(one.id, null);
  }
</script>

{#if round}
  <Panel title="All round">
    {#if cone}
      <Switch
        label="How the art runs"
        value={one.object.kind === 'cone' ? 'cone' : 'cup'}
        options={[
          { value: 'cup', label: 'straight', title: 'Flat art that is bent round the cone' },
          { value: 'cone', label: 'with the cone', title: 'Every row goes round level, and closes' },
        ]}
        onset={(kind) => void run(kind)}
      />
    {/if}
    {#if one.object.kind === 'cone' && page}
      <p class="muted">
        <Button kind="quiet" disabled={saving} onclick={() => void save()}
          >{saving ? 'Making it …' : 'Save its wall developed'}</Button
        >
        at
        <NumberField
          label="Resolution of the developed wall"
          value={ppi}
          kind={{ suffix: 'ppi' }}
          digits={0}
          {...PPI}
          onset={(value) => (ppi = Math.round(value))}
        />
      </p>
    {/if}
    <p class="muted">{mm(round.girth)} mm round; the joint lies {round.joint}.</p>
    {#if round.angle > 1e-6}
      <p class="note">
        Straight art keeps its true form and cannot close: its rows meet at the joint at {round.angle.toFixed(
          1,
        )}°. With the cone every row closes, drawn wider above than below.
      </p>
    {:else if !first}
      <p class="muted">
        {isSheet ? 'No pattern goes round it yet.' : 'Only a cut sheet of its own goes round it.'}
      </p>
    {:else if !fit}
      <p class="note">Its pattern closes at no scale that a fill may have.</p>
    {:else if fit.cost === 0 && joined}
      <p class="closes">
        Closes{fit.count === null
          ? ''
          : ` with ${fit.count} ${fit.count === 1 ? 'repeat' : 'repeats'} round`}.
      </p>
    {:else}
      <div class="offer">
        <p>
          Closes with <strong
            >{fit.count === null
              ? 'a turn'
              : `${fit.count} ${fit.count === 1 ? 'repeat' : 'repeats'}`}</strong
          >
          round: scale {percent(first.scaleX)} → {percent(fit.scaleX)} %{fit.rotation === first.rotation
            ? ''
            : `, turned ${Number(fit.rotation.toFixed(2))}°`}{joined ? '' : ', all sides as one'}.
        </p>
        <Button kind="quiet" onclick={take}>Take it</Button>
      </div>
    {/if}
  </Panel>
{/if}

<style>
  p {
    margin: 8px 0 0;
    font-size: var(--small);
  }
  .note {
    color: var(--muted);
  }
  .closes,
  .offer {
    margin-top: 8px;
    padding: 8px 10px;
    border-radius: var(--radius);
    background: var(--kelp-tint);
  }
  .offer p {
    margin: 0 0 4px;
  }
</style>
