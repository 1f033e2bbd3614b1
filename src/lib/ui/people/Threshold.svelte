<script lang="ts">
  import type { Snippet } from 'svelte';

  /** A page before the door: somebody signs in or comes in by a link. Half of it is the studio's own ground: stripes and the mark. */
  type Props = { title: string; children: Snippet };
  let { title, children }: Props = $props();
</script>

<main>
  <div class="ground" aria-hidden="true">
    <div class="disc">
      <svg viewBox="0 0 28 24" width="84" height="72">
        <path d="M2 15a12 12 0 0 1 24 0z" fill="#fff" />
        <path
          d="M2 19c3 0 3 3 6 3s3-3 6-3 3 3 6 3 3-3 6-3"
          fill="none"
          stroke="var(--signal)"
          stroke-width="2.4"
          stroke-linecap="round"
        />
      </svg>
    </div>
  </div>
  <div class="door">
    <h1>{title}</h1>
    {@render children()}
  </div>
</main>

<style>
  main {
    display: grid;
    grid-template-columns: 2fr 3fr;
    min-height: 100vh;
  }
  .ground {
    display: grid;
    place-items: center;
    background: repeating-linear-gradient(
        90deg,
        transparent 0 34px,
        rgb(255 255 255 / 9%) 34px 52px,
        transparent 52px 60px,
        rgb(207 74 29 / 80%) 60px 64px,
        transparent 64px 84px
      )
      var(--kelp);
  }
  .disc {
    display: grid;
    place-items: center;
    width: 168px;
    height: 168px;
    border-radius: 50%;
    background: var(--kelp);
  }
  .door {
    display: grid;
    align-content: center;
    gap: 16px;
    width: min(420px, 100%);
    padding: 24px;
    margin-inline: auto;
  }
  @media (max-width: 700px) {
    main {
      grid-template-columns: 1fr;
      grid-template-rows: 110px 1fr;
    }
    .disc {
      display: none;
    }
  }
</style>
