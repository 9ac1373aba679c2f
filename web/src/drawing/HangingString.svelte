<script lang="ts">
  // The strings of the run from the side: the height string hanging from prop
  // to prop, its sag drawn larger than it is and its true figure said; the
  // alignment string low over the ground.
  import type { Session } from '../lib/session.svelte'
  import { groundAt } from './ground'
  import Measure from './Measure.svelte'
  import type { View } from './view.svelte'

  let { session, view }: { session: Session; view: View } = $props()
  const run = $derived(session.run)
  const string = $derived(session.strip ? undefined : run.string)
  const deepest = $derived(string ? string.hang.reduce((a, b) => (b.sag > a.sag ? b : a)) : undefined)
  /** How many times the sag is drawn larger, a round number. */
  const times = $derived.by(() => {
    const pixels = (deepest?.sag ?? 0) * view.rise
    if (pixels <= 0) return 1
    return [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000].find((k) => pixels * k >= 10) ?? 1000
  })
  const hung = $derived(
    string
      ? string.hang
          .map((h) => `${view.x(h.at).toFixed(1)} ${view.y(h.height - h.sag * times).toFixed(1)}`)
          .join('L')
      : '',
  )
  /** Between its ends the string hangs from nothing but its props. */
  const stands = $derived(
    (string?.hang.slice(1, -1) ?? [])
      .filter((h) => h.sag < 1e-9)
      .map((h) => ({ x: view.x(h.at), top: view.y(h.height), foot: view.y(groundAt(run.ground, h.at)) })),
  )
</script>

{#if string}
  {@const [x1, x2] = [view.x(0), view.x(run.length)]}
  <path
    d="M{x1} {view.y(string.highStart)}L{x2} {view.y(string.highEnd)}"
    class="stroke-(--ink)"
    stroke-width="1"
    stroke-dasharray="3 5"
    fill="none"
  />
  {#if string.position !== 'sight'}
    <path d="M{hung}" class="stroke-(--mallow)" stroke-width="2.6" fill="none" data-string="height" />
  {/if}
  {#each string.position === 'sight' ? [] : stands as p, i (i)}
    <path d="M{p.x} {p.foot}V{p.top}m-6 0h12" class="stroke-(--ink)" stroke-width="2.6" fill="none" />
  {/each}
  {#if string.position !== 'sight'}
    <path
      d="M{view.x(-string.beyond)} {view.y(string.lowStart)}L{view.x(run.length + string.beyond)} {view.y(
        string.lowEnd,
      )}"
      class="stroke-(--mallow)"
      stroke-width="2.2"
      stroke-dasharray="10 3"
      fill="none"
      data-string="low"
    />
    {#each [[-string.beyond, string.lowStart, groundAt(run.ground, 0)], [run.length + string.beyond, string.lowEnd, groundAt(run.ground, run.length)]] as [at, tie, ground], i (i)}
      <path d="M{view.x(at!)} {view.y(ground!)}V{view.y(tie!) - 7}" class="stroke-(--ink)" stroke-width="4" />
    {/each}
  {/if}
  {#if string.position === 'sight'}
    <Measure
      x={view.width / 2}
      y={view.y((string.highStart + string.highEnd) / 2) - 8}
      units={session.units}
      words="line of sight, "
      mm={string.mark}
      after=" below the tops"
      strong
    />
  {:else if deepest}
    <Measure
      x={Math.min(Math.max(view.x(deepest.at), 120), view.width - 120)}
      y={view.y(deepest.height - deepest.sag * times) + 18}
      units={session.units}
      words={deepest.sag < session.units.smallestMark / 2 ? 'sags less than ' : 'sags '}
      mm={Math.max(deepest.sag, session.units.smallestMark)}
      after={times > 1 ? `, drawn × ${times}` : ''}
      strong
    />
  {/if}
{/if}
