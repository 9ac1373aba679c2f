<script lang="ts">
  // A hole that rock or water stops: where, and what each way out gives.
  import type { PlannedPost, WayOut } from '../../gen/api'
  import { Answer, fresh, take } from '../../lib/answer.svelte'
  import { api } from '../../lib/api'
  import { costs } from '../../lib/cost'
  import { stopAt, stopOf, type Stop } from '../../lib/rules'
  import type { Session } from '../../lib/session.svelte'
  import { wrongSays } from '../../lib/wrong'
  import { short, small, wind } from '../../lib/tape'
  import Choice from '../../parts/Choice.svelte'
  import Fraction from '../../parts/Fraction.svelte'
  import TapeEntry from '../../parts/TapeEntry.svelte'
  import Words from '../../parts/Words.svelte'
  import * as msg from '../../gen/messages'

  let { session, post }: { session: Session; post: PlannedPost } = $props()
  const units = $derived(session.units)
  const hit = $derived(stopOf(session, post))
  let what = $state<Stop>('rock')
  $effect(() => {
    if (hit) what = hit.what as Stop
  })
  const names = { rock: msg.common_rock, water: msg.stopped_water, root: 'A root' }

  function stop(depth: number | null) {
    session.commit(
      stopAt(session, post, depth === null ? null : { what, depth }),
      depth === null
        ? msg.stopped_is_not_stopped({ label: post.label })
        : msg.stopped_hit_at({ label: post.label, what, short: short(depth, units) }),
    )
  }
  const taken = $derived(post.stopped?.settled)
  // svelte-ignore state_referenced_locally
  const asked = new Answer<WayOut[]>(
    session,
    () => `${session.run.id} ${post.label}`,
    async (doc, signal) => {
      // Whether it is stopped still, and has these ways, the plan of this very job says.
      await fresh(() => session.caughtUp)
      if (signal.aborted || !post.stopped) return []
      return (await api.ways({ doc, run: session.run.id, post: post.label }, signal)).ways
    },
  )
  const ways = $derived(asked.value ?? [])
  const pick = (w: WayOut) =>
    take(
      session,
      () => asked.fresh,
      () => ways.find((o) => o.id === w.id),
      `${post.label}: ${w.id}`,
    )
  const most = $derived(Math.max(post.stopped?.planned ?? 0, ...ways.map((w) => w.gust)))
</script>

<section class="border-t border-rule pt-3" aria-labelledby="stopped">
  <h2 id="stopped" class="font-bold">{msg.stopped_cannot_get_the_depth}</h2>
  <div class="mt-1 grid max-w-md gap-2">
    <Choice
      label={msg.stopped_what_stopped_the_hole}
      value={what}
      options={(['rock', 'water', 'root'] as const).map((v) => ({ value: v, name: names[v] }))}
      onpick={(v) => {
        what = v as Stop
        if (hit) stop(hit.value ?? null)
      }}
    />
    <TapeEntry
      label={msg.stopped_stopped_at_a_depth_of}
      optional
      {units}
      value={hit?.value}
      error={session.store.errors[0] && wrongSays(session.store.errors[0])}
      oncommit={stop}
    />
  </div>
  {#if post.stopped}
    {@const s = post.stopped}
    <p class="mt-3 max-w-prose">
      {msg.stopped_the_rules_ask_for}
      <Fraction mm={s.wanted} {units} />{msg.stopped_there_it_would_bear_a}
      <strong>{wind(s.planned, units)}</strong>
      {msg.stopped_by_the_published_formula}
      {#if s.same}{msg.stopped_no_deeper_it_would_have}
        <strong><Fraction mm={s.same} {units} /></strong>
        {msg.stopped_wide_for_the_same}{:else}{msg.stopped_no_width_that_can_be}{/if}
    </p>
    <ul class="mt-2 grid gap-1.5" data-testid="ways-out">
      {#each ways as w (w.id)}
        <li class="grid gap-1 border border-line bg-sheet px-3 py-2">
          <div class="flex flex-wrap items-baseline justify-between gap-x-3">
            <strong><Words says={w.name} {units} /></strong>
            <span
              ><strong class="text-[1.1rem]">{wind(w.gust, units)}</strong>
              <span class={w.frost ? 'text-good' : 'text-stop'}
                >{w.frost ? msg.stopped_below_the_frost_depth : msg.stopped_above_the_frost_depth}</span
              ></span
            >
          </div>
          <div class="h-2 bg-rule" aria-hidden="true">
            <div class="h-2 bg-(--metal-edge)" style:width="{most ? (100 * w.gust) / most : 0}%"></div>
          </div>
          <p class="leading-snug text-pencil"><Words says={w.says} {units} /></p>
          <div class="flex flex-wrap items-center justify-between gap-2">
            <span
              >{w.cost
                ? costs(w.cost, units).join(' · ')
                : w.concrete > 1e-6
                  ? msg.stopped_concrete({ small: small(w.concrete, units) })
                  : msg.stopped_no_more_concrete}</span
            >
            <button class="btn" onclick={() => pick(w)}>{msg.common_take_it}</button>
          </div>
        </li>
      {/each}
    </ul>
    {#if asked.refused}<p class="mt-2 text-stop">{asked.refused}</p>{/if}
    {#if taken}<p class="mt-2 font-medium">{msg.stopped_settled({ taken })}</p>{/if}
    <p class="mt-2 text-[0.92rem] text-pencil">
      {msg.stopped_a_figure_to_compare_with}
    </p>
  {/if}
</section>
