<script lang="ts">
  // What must be settled before anything is dug. It never keeps anyone from
  // looking.
  import Phone from '@lucide/svelte/icons/phone'
  import Flag from '@lucide/svelte/icons/flag'
  import type { Ticket } from '../../gen/api'
  import { api } from '../../lib/api'
  import type { Session } from '../../lib/session.svelte'
  import Pick from '../../parts/Pick.svelte'
  import Words from '../../parts/Words.svelte'
  import LengthField from '../LengthField.svelte'
  import * as msg from '../../gen/messages'

  let { session }: { session: Session } = $props()
  const before = $derived(session.plan.before)
  const ticket = $derived(session.value<Ticket>('/site/before/ticket'))
  const today = new Date(Date.now() - new Date().getTimezoneOffset() * 60000).toISOString().slice(0, 10)
  let day = $state(today)
  let trouble = $state('')
  const ticks: Record<string, string> = {
    services: 'services',
    private: 'private',
    boundary: 'boundary',
    code: 'code',
    neighbour: 'neighbour',
  }
  const shown = (date: string) =>
    new Date(`${date}T12:00:00`).toLocaleDateString(undefined, {
      weekday: 'short',
      day: 'numeric',
      month: 'short',
      year: 'numeric',
    })

  async function office(ask: boolean) {
    trouble =
      (await session.takeMade(() =>
        ask ? api.askOffice({ doc: session.doc, day }) : api.officeMarks({ doc: session.doc, day }),
      )) ?? ''
  }
</script>

<div class="grid gap-x-8 gap-y-5 lg:grid-cols-[minmax(0,1fr)_22rem]">
  <section aria-labelledby="before-title">
    <h2 id="before-title" class="flex flex-wrap items-center gap-3 font-bold">
      {msg.common_before_you_dig}
      {#if before.ready}<span class="border border-good px-2 text-good">{msg.before_cleared_to_dig}</span>
      {:else}<span class="border border-stop bg-stop-wash px-2 text-stop"
          >{msg.before_not_cleared_to_dig}</span
        >{/if}
    </h2>
    <ul class="mt-2 border-t border-rule">
      {#each before.checks as c (c.id)}
        <li class="flex items-start gap-3 border-b border-rule py-2">
          {#if ticks[c.id]}
            <input
              type="checkbox"
              id="check-{c.id}"
              class="mt-1 size-6 shrink-0 accent-(--mallow)"
              checked={c.done}
              onchange={(e) =>
                session.commit(
                  [{ path: `/site/before/${ticks[c.id]}`, value: e.currentTarget.checked }],
                  `${c.name}: ${e.currentTarget.checked ? msg.before_done : msg.before_open_again}`,
                )}
            />
          {:else}
            <span class="mt-1 grid size-6 shrink-0 place-items-center border border-line" aria-hidden="true"
              >{c.done ? '✓' : ''}</span
            >
          {/if}
          <div class="min-w-0 flex-1">
            <label for="check-{c.id}" class="font-semibold">{c.name}</label>
            <p class="leading-snug text-pencil"><Words says={c.says} units={session.units} /></p>
          </div>
          {#if c.id === 'permit'}
            <div class="w-40">
              <Pick
                label={msg.before_permit}
                hideLabel
                value={session.choice('/site/before/permit')}
                options={session.catalogue.choices['site/before/permit']!}
                onpick={(v) =>
                  session.commit([{ path: '/site/before/permit', value: v }], msg.before_permit_2({ v1: v }))}
              />
            </div>
          {:else if c.id === 'code'}
            <div class="w-40">
              <LengthField
                {session}
                path="/site/before/maxHeight"
                label={msg.before_most_height_allowed}
                optional
              />
            </div>
          {/if}
        </li>
      {/each}
    </ul>
  </section>
  <section class="border border-line bg-sheet p-3" aria-labelledby="office-title">
    <h2 id="office-title" class="font-bold">{msg.before_locating_office_simulated}</h2>
    <p class="mt-1 leading-snug text-pencil">
      {msg.before_a_stand_in_for_the}
    </p>
    <label class="label mt-3 mb-1" for="office-day">{msg.before_today}</label>
    <input id="office-day" type="date" class="field" bind:value={day} />
    <div class="mt-2 grid gap-1.5">
      <button class="btn justify-start" onclick={() => office(true)}
        ><Phone size={18} aria-hidden="true" />{ticket
          ? msg.before_ask_again
          : msg.before_ask_for_the_services}</button
      >
      <button class="btn justify-start" disabled={!ticket} onclick={() => office(false)}
        ><Flag size={18} aria-hidden="true" />{msg.before_have_they_been}</button
      >
    </div>
    {#if trouble}<p class="mt-2 border-l-4 border-l-warn bg-warn-wash px-3 py-1.5" role="alert">
        {trouble}
      </p>{/if}
    {#if ticket}
      <dl class="mt-3 grid grid-cols-[auto_1fr] gap-x-3 gap-y-0.5" data-testid="ticket">
        <dt class="text-pencil">{msg.before_ticket}</dt>
        <dd class="font-semibold">{ticket.number}</dd>
        <dt class="text-pencil">{msg.before_asked}</dt>
        <dd>{shown(ticket.asked)}</dd>
        <dt class="text-pencil">{msg.before_marks_by}</dt>
        <dd class="font-semibold">{shown(ticket.clear)}</dd>
        <dt class="text-pencil">{msg.common_marks}</dt>
        <dd>{ticket.marked ? msg.before_are_down_they_stand_under : msg.before_not_down_yet}</dd>
      </dl>
    {/if}
    <h3 class="mt-4 font-semibold">{msg.before_uniform_colours}</h3>
    <ul class="mt-1 grid gap-0.5">
      {#each session.catalogue.services as s (s.id)}
        <li class="flex items-center gap-2">
          <span class="size-4 border border-ink" style:background="var(--service-{s.token})"></span>
          {s.name}: <strong>{s.colour}</strong>{#if !s.office}<span class="text-pencil"
              >{msg.before_the_owner_s_to_find}</span
            >{/if}
        </li>
      {/each}
    </ul>
  </section>
</div>
