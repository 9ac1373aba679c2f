<script lang="ts">
  // Who works, from when to when, and on which days not.
  import type { Schedule } from '../../gen/api'
  import type { Session } from '../../lib/session.svelte'
  import NumberEntry from '../../parts/NumberEntry.svelte'
  import * as msg from '../../gen/messages'

  let { session, schedule }: { session: Session; schedule: Schedule } = $props()
  const set = (field: string, value: unknown, what: string) =>
    session.commit([{ path: `/days/${field}`, value }], what)
  const rest = $derived(session.value<string[]>('/days/rest') ?? [])
  const taken = $derived(session.value<string[]>('/days/taken') ?? [])
  const times = [
    { field: 'from', name: msg.days_leaves },
    { field: 'to', name: msg.days_back },
  ] as const
  const ticks = [
    { field: 'byHand', name: msg.days_by_hand },
    { field: 'inspected', name: msg.days_inspected },
    { field: 'saturdays', name: msg.days_saturdays },
  ]
  let day = $state('')
</script>

<div class="flex flex-wrap items-start gap-3">
  <div class="w-44">
    <label class="label mb-1" for="crew-name">{msg.days_crew_name}</label>
    <input
      id="crew-name"
      class="field"
      maxlength="80"
      value={session.value<string>('/days/crew') ?? ''}
      onchange={(e) =>
        set('crew', e.currentTarget.value.trim() || null, `${msg.days_crew_name} ${e.currentTarget.value}`)}
    />
  </div>
  <div class="w-24">
    <NumberEntry
      label={msg.pour_hands}
      value={schedule.people}
      error={session.wrongAt('/days/people')}
      oncommit={(n) => set('people', n, msg.pour_with_hands({ n }))}
    />
  </div>
  {#each times as t (t.field)}
    <div>
      <label class="label mb-1" for="crew-{t.field}">{t.name}</label>
      <input
        id="crew-{t.field}"
        type="time"
        class="field"
        value={schedule[t.field]}
        onchange={(e) =>
          e.currentTarget.value && set(t.field, e.currentTarget.value, `${t.name} ${e.currentTarget.value}`)}
      />
    </div>
  {/each}
  <div class="w-36">
    <NumberEntry
      label={msg.days_travel}
      value={schedule.travel}
      error={session.wrongAt('/days/travel')}
      oncommit={(n) => set('travel', n, msg.days_travel_of({ n }))}
    />
  </div>
</div>
<div class="mt-3 flex flex-wrap gap-x-6 gap-y-1">
  {#each ticks as t (t.field)}
    <label class="flex min-h-11 items-center gap-2"
      ><input
        type="checkbox"
        class="size-6 accent-(--mallow)"
        checked={session.value<boolean>(`/days/${t.field}`) ?? false}
        onchange={(e) => set(t.field, e.currentTarget.checked || null, t.name)}
      />{t.name}</label
    >
  {/each}
</div>
{#if taken.length}
  <p class="mt-3">
    {msg.days_taken({ list: taken.join(', ') })}
    <button
      class="ml-2 underline pointer-coarse:min-h-11"
      onclick={() => set('taken', null, msg.days_taken_free)}>{msg.days_taken_free}</button
    >
  </p>
{/if}
<p class="mt-2"><a class="underline" href="/board">{msg.days_to_board}</a></p>
<h2 class="mt-4 font-bold">{msg.days_rest}</h2>
<div class="mt-1 flex flex-wrap items-end gap-2">
  <div>
    <label class="label mb-1" for="rest-day">{msg.pour_day}</label>
    <input id="rest-day" type="date" class="field" bind:value={day} />
  </div>
  <button
    class="btn"
    disabled={!day || rest.includes(day)}
    onclick={() => {
      set('rest', [...rest, day].sort(), msg.days_rest_on({ date: day }))
      day = ''
    }}>{msg.days_add_rest}</button
  >
</div>
<ul class="mt-2 flex flex-wrap gap-2">
  {#each rest as r (r)}
    <li>
      <button
        class="btn"
        onclick={() => {
          const left = rest.filter((o) => o !== r)
          set('rest', left.length ? left : null, msg.pour_take_day_out({ date: r }))
        }}>{msg.pour_take_day_out({ date: r })}</button
      >
    </li>
  {/each}
</ul>
