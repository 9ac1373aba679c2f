<script lang="ts">
  // A hole that rock or water stops: where, and what each way out gives.
  import type { PlannedPost, WayOut } from '../../gen/api'
  import { costs } from '../../lib/cost'
  import { stopAt, stopOf, type Stop } from '../../lib/rules'
  import type { Session } from '../../lib/session.svelte'
  import { wrongSays } from '../../lib/wrong'
  import { short, small, wind } from '../../lib/tape'
  import Choice from '../../parts/Choice.svelte'
  import Fraction from '../../parts/Fraction.svelte'
  import TapeEntry from '../../parts/TapeEntry.svelte'
  import Words from '../../parts/Words.svelte'

  let { session, post }: { session: Session; post: PlannedPost } = $props()
  const units = $derived(session.units)
  const hit = $derived(stopOf(session, post))
  let what = $state<Stop>('rock')
  $effect(() => {
    if (hit) what = hit.what as Stop
  })
  const names = { rock: 'Rock', water: 'Water', root: 'A root' }

  function stop(depth: number | null) {
    session.commit(
      stopAt(session, post, depth === null ? null : { what, depth }),
      depth === null ? `${post.label} is not stopped` : `${post.label} hit ${what} at ${short(depth, units)}`,
    )
  }
  const taken = $derived(post.stopped?.settled)
  let ways = $state.raw<WayOut[]>([])
  let trouble = $state('')
  $effect(() => {
    if (!post.stopped) return
    const stop = new AbortController()
    session
      .waysOut(session.run.id, post.label, stop.signal)
      .then((w) => {
        ways = w
        trouble = ''
      })
      .catch((e: unknown) => {
        if (!stop.signal.aborted) trouble = e instanceof Error ? e.message : String(e)
      })
    return () => stop.abort()
  })
  const most = $derived(Math.max(post.stopped?.planned ?? 0, ...ways.map((w) => w.gust)))
</script>

<section class="border-t border-rule pt-3" aria-labelledby="stopped">
  <h2 id="stopped" class="font-bold">Cannot get the depth?</h2>
  <div class="mt-1 grid max-w-md gap-2">
    <Choice
      label="What stopped the hole"
      value={what}
      options={(['rock', 'water', 'root'] as const).map((v) => ({ value: v, name: names[v] }))}
      onpick={(v) => {
        what = v as Stop
        if (hit) stop(hit.value ?? null)
      }}
    />
    <TapeEntry
      label="Stopped at a depth of"
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
      The rules ask for <Fraction mm={s.wanted} {units} />; there it would bear a gust of
      <strong>{wind(s.planned, units)}</strong> by the published formula. {#if s.same}No deeper, it would have
        to be
        <strong><Fraction mm={s.same} {units} /></strong> wide for the same.{:else}No width that can be dug
        gives the same.{/if}
    </p>
    <ul class="mt-2 grid gap-1.5" data-testid="ways-out">
      {#each ways as w (w.id)}
        <li class="grid gap-1 border border-line bg-sheet px-3 py-2">
          <div class="flex flex-wrap items-baseline justify-between gap-x-3">
            <strong><Words says={w.name} {units} /></strong>
            <span
              ><strong class="text-[1.1rem]">{wind(w.gust, units)}</strong>
              <span class={w.frost ? 'text-good' : 'text-stop'}
                >{w.frost ? 'below the frost depth' : 'above the frost depth'}</span
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
                  ? `+${small(w.concrete, units)} concrete`
                  : 'no more concrete'}</span
            >
            <button class="btn" onclick={() => session.commit(w.edits, `${post.label}: ${w.id}`)}
              >Take it</button
            >
          </div>
        </li>
      {/each}
    </ul>
    {#if trouble}<p class="mt-2 text-stop">{trouble}</p>{/if}
    {#if taken}<p class="mt-2 font-medium">Settled: {taken}.</p>{/if}
    <p class="mt-2 text-[0.92rem] text-pencil">
      A figure to compare with, never an approval; an engineer decides where wind matters.
    </p>
  {/if}
</section>
