<script lang="ts">
  import { urlOf } from '../state/api';
  import type { LayoutSummary } from '$lib/contract/data';
  import { saySize } from './say';

  /** A layout's picture with its name and size; a link to it. */
  type Props = { layout: LayoutSummary };
  let { layout }: Props = $props();
</script>

<a href="/projects/{layout.projectId}/layouts/{layout.id}">
  <span class="mat">
    <img
      src={urlOf('GET /layouts/{id}/svg', {
        id: layout.id,
        query: { patterns: 'live', version: layout.version },
      })}
      alt=""
      loading="lazy"
      style:aspect-ratio="{layout.width} / {layout.height}"
    />
  </span>
  <strong>{layout.name}</strong>
  <span class="mono muted">{saySize(layout, layout.measure)}</span>
</a>

<style>
  a {
    display: grid;
    gap: 1px;
    width: 220px;
    color: inherit;
    text-decoration: none;
  }
  .mat {
    display: grid;
    place-items: center;
    height: 170px;
    margin-bottom: 6px;
    padding: 14px;
    background: var(--surround);
  }
  img {
    max-width: 100%;
    max-height: 142px;
    background: #fff;
  }
  a:hover .mat {
    outline: 2px solid var(--kelp);
    outline-offset: 2px;
  }
</style>
