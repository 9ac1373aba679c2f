<script lang="ts">
  // The corridor that the fence's bottom runs in: between the least and the
  // most gap over the ground, under every bay of fence.
  import type { Session } from '../lib/session.svelte'
  import { groundAt } from './ground'
  import { inSight } from './paths'
  import type { View } from './view.svelte'

  let { session, view }: { session: Session; view: View } = $props()
  const run = $derived(session.drawn)
  const least = $derived(session.value<number>(session.at('/fence/gapLeast')) ?? 0)
  const most = $derived(session.value<number>(session.at('/fence/gapMost')) ?? 0)

  const d = $derived.by(() => {
    const { first, last } = inSight(run, view)
    let out = ''
    for (let i = first; i < last; i++) {
      const b = run.bays[i]
      if (!b || b.gate) continue
      const [from, to] = [run.posts[i]!.station, run.posts[i + 1]!.station]
      const stations = [from, ...run.ground.map((g) => g.at).filter((s) => s > from && s < to), to]
      const edge = (gap: number) =>
        stations.map((s) => `${view.x(s).toFixed(1)} ${view.y(groundAt(run.ground, s) + gap).toFixed(1)}`)
      out += `M${edge(least).join('L')}L${edge(most).reverse().join('L')}z`
    }
    return out
  })
</script>

<path {d} fill="url(#corridor)" class="stroke-(--ink)" stroke-width="0.8" data-corridor />
