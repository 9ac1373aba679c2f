<script lang="ts">
  // The tape: a ruler under the run, with a mark at every post.
  import type { Session } from '../lib/session.svelte'
  import { rulerLabel, rulerScale } from '../lib/tape'
  import type { Drawing } from '../gen/api'
  import Measure from './Measure.svelte'
  import type { View } from './view.svelte'

  let { session, view, drawing }: { session: Session; view: View; drawing?: Drawing } = $props()
  const run = $derived(session.drawn)
  const units = $derived(session.units)
  const top = $derived(view.height - view.tape)
  const scale = $derived(rulerScale(view.scale, units))
  const current = $derived(run.posts[session.drawnPost])
  const ticks = $derived.by(() => {
    const out: { x: number; label: string }[] = []
    const first = Math.max(0, Math.ceil(view.from / scale.tick))
    const last = Math.floor(Math.min(view.to, run.length) / scale.tick + 1e-9)
    for (let k = first; k <= last; k++) {
      const at = k * scale.tick
      out.push({ x: view.x(at), label: k % scale.every ? '' : rulerLabel(at, units) })
    }
    return out
  })
  const marks = $derived.by(() => {
    // Where the posts are drawn, which follow the hand.
    const posts = drawing?.layers.find((l) => l.class === 'post')?.shapes ?? []
    let d = ''
    let free = -Infinity
    for (const { points } of posts) {
      const x = view.x((points[0]! + points[2]!) / 2)
      if (x < free) continue // less than a pixel from the one before
      d += `M${x.toFixed(1)} ${top + 15}l-5 -15h10z`
      free = x + 1
    }
    return d
  })
  /** The unrolled line has a P1 for each run: its run is named. */
  const whose = $derived.by(() => {
    const at = session.strip?.posts[session.drawnPost]
    const run = at && session.lineRuns[at.run]
    return run ? `${run.name || run.id} ` : ''
  })
  const half = $derived(session.strip ? 105 : 60)
  const labelX = $derived(
    current ? Math.min(Math.max(view.x(current.station), half + 2), view.width - half - 2) : 0,
  )
</script>

<g>
  <rect x="0" y={top} width={view.width} height={view.tape} class="fill-(--tape)" />
  <path d="M0 {top}H{view.width}" class="stroke-(--ink)" stroke-width="1.5" />
  {#each ticks as t (t.x)}
    <path
      d="M{t.x.toFixed(1)} {top}v{t.label ? 20 : 9}"
      class="stroke-(--ink)"
      stroke-width={t.label ? 1.4 : 0.9}
    />
    {#if t.label}
      <text x={t.x} y={top + 32} text-anchor="middle" class="fill-(--ink) text-[13px]">{t.label}</text>
    {/if}
  {/each}
  <path d={marks} class="fill-(--ink)" />
  {#if current}
    {@const x = view.x(current.station)}
    <path d="M{x} {top + 17}l-7 -17h14z" class="fill-(--mallow)" />
    <g aria-hidden="true">
      <rect x={labelX - half} y={top + view.tape - 24} width={2 * half} height="23" class="fill-(--mallow)" />
      <Measure
        x={labelX}
        y={top + view.tape - 7}
        {units}
        words="{whose}{current.label} · "
        mm={current.station}
        long
        strong
        tone="onmallow"
      />
    </g>
  {/if}
</g>
