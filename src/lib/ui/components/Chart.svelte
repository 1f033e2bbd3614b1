<script lang="ts">
  import type { Config, Data, Layout } from 'plotly.js-dist-min';

  /** A chart drawn by Plotly.js, which is fetched when the first one is shown. `label` says in words what it shows. */
  type Props = { label: string; data: Data[]; layout: Partial<Layout>; height: number };
  let { label, data, layout, height }: Props = $props();

  const CONFIG: Partial<Config> = { displayModeBar: false, responsive: true };
  const FONT = { family: 'Schibsted Grotesk Variable, sans-serif', size: 11.5, color: '#14211f' };

  function draw(node: HTMLElement): () => void {
    let gone = false;
    let purge = (): void => undefined;
    const [held, form] = [data, layout];
    void import('plotly.js-cartesian-dist-min').then(({ default: plotly }) => {
      if (gone) return;
      purge = () => plotly.purge(node);
      void plotly.react(
        node,
        held,
        { font: FONT, paper_bgcolor: 'rgba(0,0,0,0)', plot_bgcolor: 'rgba(0,0,0,0)', ...form, height },
        CONFIG,
      );
    });
    return () => {
      gone = true;
      purge();
    };
  }
</script>

<div class="chart" role="img" aria-label={label} style:height="{height}px" {@attach draw}></div>

<style>
  .chart {
    width: 100%;
  }
</style>
