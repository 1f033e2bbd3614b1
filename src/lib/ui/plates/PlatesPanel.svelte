<script lang="ts">
  import type { Box } from '$lib/core/geom/box';
  import SidePanel from '../components/SidePanel.svelte';
  import Switch from '../components/Switch.svelte';
  import PressChoice from './PressChoice.svelte';
  import type { LayoutPlates } from './layout-plates.svelte';

  /** The plates that the layout is printed from: which are seen, how much each covers, and how much ink lies where. */
  type Props = { plates: LayoutPlates; onshow: (box: Box) => void; onclose: () => void };
  let { plates, onshow, onclose }: Props = $props();

  const { shown, sum } = $derived(plates);
  const over = $derived(
    sum === null
      ? 0
      : sum.total.reduce((count, value) => count + (value > plates.settings.inkLimit ? 1 : 0), 0) /
          sum.total.length,
  );
  const under = $derived(shown?.plates.map((plate) => plates.under(plate)) ?? []);
  const underSum = $derived(
    under.some((value) => value === null)
      ? null
      : under.reduce<number>((all, value) => all + (value ?? 0), 0),
  );
  const press = $derived(plates.profiles.find(({ id }) => id === plates.settings.profile));
  const percent = (share: number): string => {
    const value = share * 100;
    return value > 0 && value < 0.1 ? 'under 0.1 %' : `${value.toFixed(value < 10 ? 1 : 0)} %`;
  };
  const whole = (share: number | null | undefined): string =>
    share === null || share === undefined ? '' : String(Math.round(share * 100));

  function toggle(name: string, on: boolean): void {
    if (on) plates.off.delete(name);
    else plates.off.add(name);
  }
  function goToMost(): void {
    const box = plates.lookAtMost();
    if (box) onshow(box);
  }
  /** Shows one plate by itself, or all again where it is alone already. */
  function alone(name: string): void {
    const only = plates.on.length === 1 && plates.on[0]?.name === name;
    plates.off.clear();
    if (!only) for (const plate of shown?.plates ?? []) if (plate.name !== name) plates.off.add(plate.name);
  }
</script>

<SidePanel title="Plates" {onclose}>
  {#snippet tools()}<PressChoice {plates} />{/snippet}
  <div class="body">
    <p class="muted">
      {#if press}
        Process colours by “{press.name}”.
      {:else}
        No press yet: process colours stay as they are on the screen. Load the profile of your printer’s press
        to see its plates.
      {/if}
    </p>
    {#if plates.problem}<p class="problem" role="alert">{plates.problem}</p>{/if}
    {#if shown}
      {#if shown.plates.length > 0}
        <table>
          <thead>
            <tr><th>Plate</th><th>Covers</th><th title="Under the pointer, %">Here</th></tr>
          </thead>
          <tbody>
            {#each shown.plates as plate, at (plate.name)}
              <tr class:away={plates.off.has(plate.name)}>
                <td>
                  <div class="plate">
                    <input
                      type="checkbox"
                      aria-label="Show {plate.name}"
                      checked={!plates.off.has(plate.name)}
                      onchange={(event) => toggle(plate.name, event.currentTarget.checked)}
                    />
                    <span class="chip" style:background={plate.look}></span>
                    <button
                      type="button"
                      title="{plate.name}: show it alone, or all again"
                      onclick={() => alone(plate.name)}>{plate.name}</button
                    >
                    {#if plate.overprint}<span class="over" title="Prints over other inks">over</span>{/if}
                  </div>
                </td>
                <td class="mono">{percent(plate.coverage)}</td>
                <td class="mono">{whole(under[at])}</td>
              </tr>
            {/each}
          </tbody>
          <tfoot>
            <tr>
              <td>Ink in all, at most</td>
              <td class="mono" class:much={over > 0}
                ><button type="button" title="Go to where most ink lies" onclick={goToMost}
                  >{sum?.most ?? 0} %</button
                ></td
              >
              <td class="mono">{whole(underSum)}</td>
            </tr>
          </tfoot>
        </table>
        <p class="muted" role="status">
          {#if over > 0}
            {percent(over)} of the page has more ink than the {plates.settings.inkLimit} % that the paper takes.
          {:else}
            Nowhere more ink than the {plates.settings.inkLimit} % that the paper takes.
          {/if}
          {#if shown.beyond}
            {shown.beyond.share === 0
              ? 'The press shows every colour as it is.'
              : `${percent(shown.beyond.share)} of the page is out of gamut: it comes out visibly otherwise.`}
          {/if}
        </p>
        <div class="marks">
          <span>Mark</span>
          <Switch
            label="What is marked on the page"
            value={plates.mark}
            options={[
              { value: 'none', label: 'Nothing' },
              { value: 'ink', label: 'Too much ink' },
              ...(shown.beyond ? [{ value: 'beyond' as const, label: 'Out of gamut' }] : []),
            ]}
            onset={(mark) => (plates.mark = mark)}
          />
        </div>
      {:else}
        <p class="muted">
          There are no spot inks on this page. A colour of a palette becomes one where the palette says that
          it is printed in a spot ink.
        </p>
      {/if}
    {:else if !plates.problem}
      <p class="muted" role="status">Drawing the plates …</p>
    {/if}
  </div>
</SidePanel>

<style>
  .body {
    display: grid;
    flex: 1;
    gap: 12px;
    align-content: start;
    min-height: 0;
    overflow: auto;
    padding: 12px;
  }
  table {
    width: 100%;
    border-collapse: collapse;
  }
  th {
    padding: 2px 0 4px;
    border-bottom: 1px solid var(--rule);
    font-size: 12px;
    font-weight: 600;
    text-align: right;
  }
  th:first-child {
    text-align: left;
  }
  td {
    padding: 4px 0;
    text-align: right;
  }
  td:first-child {
    text-align: left;
  }
  .plate {
    display: flex;
    align-items: center;
    gap: 7px;
  }
  td:last-child {
    width: 42px;
    color: var(--muted);
  }
  td button {
    overflow: hidden;
    padding: 0;
    border: 0;
    background: none;
    color: inherit;
    text-align: left;
    text-overflow: ellipsis;
    white-space: nowrap;
    cursor: pointer;
  }
  td button:hover {
    text-decoration: underline;
  }
  input {
    margin: 0;
    accent-color: var(--kelp);
  }
  .chip {
    flex: none;
    width: 14px;
    height: 14px;
    border: 1px solid var(--rule-strong);
    border-radius: 3px;
  }
  .over {
    padding: 0 5px;
    border: 1px solid var(--rule);
    border-radius: 8px;
    color: var(--muted);
    font-size: 11.5px;
  }
  .away button {
    color: var(--muted);
    text-decoration: line-through;
  }
  tfoot td {
    border-top: 1px solid var(--rule);
  }
  .much {
    color: var(--amber);
    font-weight: 600;
  }
  .marks {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 8px;
  }
  .marks > span {
    color: var(--muted);
  }
</style>
