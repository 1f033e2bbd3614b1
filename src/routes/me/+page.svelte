<script lang="ts">
  import type { Me } from '$lib/contract/people';
  import { call } from '$lib/ui/state/api';
  import { refresh } from '$lib/ui/state/refresh';
  import { toasts } from '$lib/ui/state/toasts.svelte';
  import Button from '$lib/ui/components/Button.svelte';
  import ColourWell from '$lib/ui/components/ColourWell.svelte';
  import NameField from '$lib/ui/components/NameField.svelte';
  import PageSection from '$lib/ui/components/PageSection.svelte';
  import type { Outcome } from '$lib/contract/failure';
  import PlainPage from '$lib/ui/components/PlainPage.svelte';
  import Mark from '$lib/ui/people/Mark.svelte';
  import NewPassword from '$lib/ui/people/NewPassword.svelte';
  import PasskeyList from '$lib/ui/people/PasskeyList.svelte';
  import { whenOf } from '$lib/ui/people/say';

  let { data } = $props();
  const me = $derived(data.me as Me);

  async function change(to: { name?: string; colour?: string }): Promise<string | null> {
    const saved = await call('PATCH /me', { body: to });
    await refresh();
    return saved.ok ? null : saved.failure.message;
  }
  async function end(ending: Promise<Outcome<unknown>>, said: string): Promise<void> {
    const ended = await ending;
    if (!ended.ok) toasts.problem(ended.failure.message);
    else toasts.show(said);
    await refresh();
  }
</script>

<svelte:head><title>You · Isle</title></svelte:head>
<PlainPage here="You and your devices">
  <section aria-label="You" class="you">
    <Mark name={me.person.name} colour={me.person.colour} size={52} />
    <div>
      <h1>
        <NameField label="Your name" size="title" value={me.person.name} onset={(name) => change({ name })} />
      </h1>
      <p class="muted">{me.person.email ?? 'without a password, on this machine'} · {me.person.role}</p>
    </div>
    <span class="colour">
      <span class="muted">Your colour</span>
      <ColourWell
        colour={me.person.colour}
        label="Your colour"
        onset={async (colour) => {
          const wrong = await change({ colour });
          if (wrong) toasts.problem(wrong);
        }}
      />
    </span>
  </section>
  {#if me.studio.opened}
    <PageSection title="Where you are signed in" width={640}>
      <ul class="lines">
        {#each data.sessions as session (session.id)}
          <li>
            <span
              ><strong>{session.device}</strong>{session.own ? ' (here)' : ''}
              <span class="muted">last used {whenOf(session.seenAt)}, since {whenOf(session.createdAt)}</span
              ></span
            >
            {#if !session.own}
              <Button
                kind="quiet"
                onclick={() =>
                  end(call('DELETE /sessions/{id}', { id: session.id }), `${session.device} is signed out.`)}
                >End it</Button
              >
            {/if}
          </li>
        {/each}
      </ul>
      {#if data.sessions.length > 1}
        <div>
          <Button onclick={() => end(call('DELETE /sessions'), 'You are signed out everywhere else.')}
            >Sign out everywhere else</Button
          >
        </div>
      {/if}
    </PageSection>
    <PasskeyList passkeys={data.passkeys} />
    <NewPassword has={me.password} />
  {/if}
</PlainPage>

<style>
  .you {
    display: grid;
    max-width: 640px;
    grid-template-columns: auto 1fr auto;
    align-items: center;
    gap: 16px;
  }
  .colour {
    display: flex;
    align-items: center;
    gap: 8px;
  }
</style>
