<script lang="ts">
  // What the spacing stresses: each stretch's regular bay, the bays that are
  // odd or take a cut piece, posts that are held or stay, and where every rail
  // is broken.
  import type { Session } from '../lib/session.svelte'
  import Measure from './Measure.svelte'
  import { inSight } from './paths'
  import type { View } from './view.svelte'

  let { session, view }: { session: Session; view: View } = $props()
  const run = $derived(session.drawn)
  const units = $derived(session.units)
  const sight = $derived(inSight(run, view))
  const top = $derived(view.above - 12)
  const x = (i: number) => view.x(run.posts[i]!.station)
  const bays = $derived(run.bays.slice(sight.first, sight.last).map((b, k) => ({ b, i: sight.first + k })))
  const marked = $derived(bays.filter(({ b }) => !b.gate && (b.odd || b.pieceCut || b.held)))
  const posts = $derived(run.posts.slice(sight.first, sight.last + 1))
  const place = $derived(new Map(run.posts.map((p, i) => [p.label, i])))

  /** The clear opening of the bay that begins at a station. */
  const clearAt = (at: number) => run.bays[run.posts.findIndex((p) => Math.abs(p.station - at) < 0.01)]?.clear

  /** A row of rails at its height in each bay, with a gap where a piece ends. */
  const rails = $derived.by(() => {
    const rows = session.strip ? [] : run.rails
    let lines = ''
    let joints = ''
    rows.forEach((row, r) => {
      const part = (r + 0.6) / (rows.length + 0.2)
      for (const p of row.pieces) {
        const [a, b] = [place.get(p.from)!, place.get(p.to)!]
        if (b < sight.first || a > sight.last) continue
        for (let i = a; i < b; i++) {
          const bay = run.bays[i]!
          const y1 = view.y(bay.bottomStart + (bay.topStart - bay.bottomStart) * part)
          const y2 = view.y(bay.bottomEnd + (bay.topEnd - bay.bottomEnd) * part)
          lines += `M${(x(i) + (i === a ? 3 : 0)).toFixed(1)} ${y1.toFixed(1)}L${(x(i + 1) - (i + 1 === b ? 3 : 0)).toFixed(1)} ${y2.toFixed(1)}`
          if (i === a) joints += `M${(x(i) + 3).toFixed(1)} ${(y1 - 6).toFixed(1)}v12`
          if (i + 1 === b) joints += `M${(x(i + 1) - 3).toFixed(1)} ${(y2 - 6).toFixed(1)}v12`
        }
      }
    })
    return { lines, joints }
  })
</script>

{#if rails.lines}
  <path d={rails.lines} class="stroke-(--timber-edge)" stroke-width="3" fill="none" />
  <path d={rails.joints} class="stroke-(--ink)" stroke-width="2" fill="none" />
{/if}
{#each run.segments as s, i (i)}
  {@const [a, b] = [Math.max(view.x(s.from), -9), Math.min(view.x(s.to), view.width + 9)]}
  {#if b > 0 && a < view.width}
    <path
      d="M{a} {top - 5}v10M{a} {top}H{b}M{b} {top - 5}v10"
      class="stroke-(--ink)"
      fill="none"
      stroke-width="1.3"
    />
    {#if b - a > 96 || (s.gate && b - a > 30)}
      {@const clear = s.gate ? clearAt(s.from) : undefined}
      <Measure
        x={(a + b) / 2}
        y={top - 7}
        {units}
        mm={clear ?? (s.bays === 1 ? s.to - s.from : s.each)}
        words={s.gate || s.bays === 1 ? '' : `${s.bays - s.odd} × `}
        after={clear && b - a > 90 ? ' clear' : s.odd && s.bays > 1 && b - a > 190 ? `, ${s.odd} odd` : ''}
      />
    {/if}
  {/if}
{/each}
{#each marked as { b, i } (b.label + i)}
  {@const [x1, x2] = [x(i), x(i + 1)]}
  {@const [t1, t2] = [view.y(b.topStart), view.y(b.topEnd)]}
  {@const [b1, b2] = [view.y(b.bottomStart), view.y(b.bottomEnd)]}
  <path
    d="M{x1} {t1}L{x2} {t2}L{x2} {b2}L{x1} {b1}z"
    fill="url(#odd)"
    class="stroke-(--warn)"
    stroke-width="2.5"
  />
  {#if x2 - x1 > 52}
    <Measure
      x={(x1 + x2) / 2}
      y={(t1 + t2 + b1 + b2) / 4 + 5}
      {units}
      words={b.held ? 'held ' : b.pieceCut && x2 - x1 > 86 ? 'cut ' : ''}
      mm={b.pieceCut ? b.piece : b.centreToCentre}
      strong
    />
  {/if}
{/each}
{#each posts.filter((p) => p.inWay?.length) as p (p.label + p.station)}
  <!-- This hole runs into something. -->
  {@const hole = Math.max(p.holeWidth * view.scale, 8)}
  <path
    d="M{view.x(p.station) - hole / 2} {view.y(p.ground)}h{hole}V{view.y(
      p.ground - Math.max(p.holeDepth, 300),
    )}h{-hole}zl{hole} {view.y(p.ground - Math.max(p.holeDepth, 300)) - view.y(p.ground)}"
    class="stroke-(--stop)"
    stroke-width="2.5"
    fill="none"
  />
{/each}
{#each posts.filter((p) => p.held || p.stays) as p (p.label + p.station)}
  {@const [px, py] = [view.x(p.station), view.y(p.top)]}
  {#if p.held}
    <!-- A nail through the post's head: it does not move. -->
    <path
      d="M{px - 8} {py - 15}h16M{px} {py - 15}v21"
      class="stroke-(--ink)"
      stroke-width="3.2"
      fill="none"
    />
  {:else}
    <rect
      x={px - 5}
      y={py - 3}
      width="10"
      height={view.y(p.ground) - py + 3}
      class="fill-(--sheet) stroke-(--ink)"
      stroke-width="1.8"
    />
  {/if}
{/each}
<defs>
  <pattern id="odd" width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
    <path d="M0 0H9" class="stroke-(--warn)" stroke-width="1.8" opacity="0.75" />
  </pattern>
</defs>
