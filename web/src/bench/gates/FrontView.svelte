<script lang="ts">
  // The gate from the front, to scale: posts, leaves, and every measure.
  import { groundAt } from '../../drawing/ground'
  import Measure from '../../drawing/Measure.svelte'
  import type { PlannedGate } from '../../gen/api'
  import type { Session } from '../../lib/session.svelte'
  import { short } from '../../lib/tape'

  interface Props {
    session: Session
    gate: PlannedGate
    /** What is measured: the opening, or what is needed to hang it. */
    show: 'opening' | 'hang'
  }
  let { session, gate, show }: Props = $props()
  const id = $props.id()
  const units = $derived(session.units)
  const run = $derived(session.run)
  const posts = $derived([gate.first, gate.second].map((p) => run.posts.find((q) => q.label === p)!))
  const bay = $derived(run.bays.find((b) => b.label === gate.bay)!)
  const W = 500
  const [left, right, head] = [86, 78, 26]
  const foot = $derived(show === 'opening' ? 100 : 52)
  const wide = $derived(gate.outside)
  const low = $derived(Math.min(...posts.map((p) => p.ground), gate.bottom))
  const high = $derived(Math.max(...posts.map((p) => p.top), bay.topStart, bay.topEnd))
  const scale = $derived(Math.min((W - left - right) / wide, 250 / (high - low)))
  const H = $derived(head + (high - low) * scale + foot)
  const middle = (left + W - right) / 2
  const x = (at: number) => middle + (at - gate.at) * scale
  const y = (h: number) => head + (high - h) * scale
  const faces = $derived([gate.at - gate.opening / 2, gate.at + gate.opening / 2])
  /** Ground across the gate and a little beyond it, a crown among it. */
  const ground = $derived.by(() => {
    const reach = (middle - 6) / scale
    const [a, b] = [gate.at - reach, gate.at + reach]
    const pts = run.ground.filter((g) => g.at > a && g.at < b).map((g) => ({ at: g.at, h: g.height }))
    const height = (at: number) => groundAt(run.ground, at)
    pts.unshift({ at: a, h: height(a) })
    pts.push({ at: b, h: height(b) })
    return { pts, height }
  })
  const surface = $derived(ground.pts.map((p) => `${x(p.at).toFixed(1)} ${y(p.h).toFixed(1)}`).join('L'))
  /** What the leaf's closed profile says of the ground: it knows of the crown. */
  const crown = $derived.by(() => {
    const out: { at: number; h: number }[] = []
    for (const l of gate.leaves) {
      const s = l.sides[0]
      if (!s) continue
      s.outs.forEach((o, i) => out.push({ at: l.pin + (l.ahead ? o : -o), h: s.ground[0]!.heights[i]! }))
    }
    return out.sort((a, b) => a.at - b.at)
  })
  const leaves = $derived(
    gate.leaves.map((l) => {
      const near = l.pin + (l.ahead ? l.heel : -l.heel)
      const far = l.pin + (l.ahead ? l.reach : -l.reach)
      const [hinge, tip] = [gate.bottom + l.height, gate.bottom + l.tipHeight]
      return { ...l, near, far, hinge, tip }
    }),
  )
  const slid = $derived(gate.kind === 'slide')
  const said = $derived(
    `${gate.name || gate.id} from the front: ${short(gate.opening, units)} inside, ${short(gate.clear, units)} clear, leaf ${short(gate.leaf, units)} high over a gap of ${short(gate.bottom - gate.highest, units)}`,
  )
</script>

{#snippet across(a: number, b: number, at: number, words: string, mm: number, strong = false)}
  <path
    d="M{x(a)} {at}H{x(b)}M{x(a)} {at - 5}v10M{x(b)} {at - 5}v10"
    class="stroke-(--ink)"
    stroke-width={strong ? 2 : 1.3}
    fill="none"
  />
  <Measure x={(x(a) + x(b)) / 2} y={at - 6} {mm} {words} {units} {strong} />
{/snippet}
{#snippet upright(at: number, a: number, b: number, words: string, mm: number, to: 'left' | 'right')}
  <path
    d="M{at} {y(a)}V{y(b)}M{at - 5} {y(a)}h10M{at - 5} {y(b)}h10"
    class="stroke-(--ink)"
    stroke-width="1.3"
    fill="none"
  />
  <Measure
    x={to === 'left' ? at - 8 : at + 8}
    y={(y(a) + y(b)) / 2 + 5}
    {mm}
    {words}
    {units}
    anchor={to === 'left' ? 'end' : 'start'}
  />
{/snippet}

<svg
  viewBox="0 0 {W} {H}"
  class="block h-auto w-full"
  style:max-width="{W * 1.25}px"
  role="img"
  aria-label={said}
>
  <defs>
    <pattern id="{id}-soil" width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
      <path d="M0 0V9" class="stroke-(--ground-hatch)" stroke-width="1.2" />
    </pattern>
  </defs>
  <path d="M{surface}V{H}H{x(ground.pts[0]!.at)}z" class="fill-(--ground)" />
  <path d="M{surface}V{H}H{x(ground.pts[0]!.at)}z" fill="url(#{id}-soil)" />
  {#if crown.length}
    <path
      d="M{crown.map((p) => `${x(p.at).toFixed(1)} ${y(p.h).toFixed(1)}`).join('L')}L{[...crown]
        .reverse()
        .map((p) => `${x(p.at).toFixed(1)} ${y(ground.height(p.at)).toFixed(1)}`)
        .join('L')}z"
      class="fill-(--ground)"
    />
    <path
      d="M{crown.map((p) => `${x(p.at).toFixed(1)} ${y(p.h).toFixed(1)}`).join('L')}"
      class="stroke-(--ground-edge)"
      stroke-width="2"
      fill="none"
    />
  {/if}
  <path d="M{surface}" class="stroke-(--ground-edge)" stroke-width="2" fill="none" />

  {#each leaves as l (l.post)}
    <path
      d="M{x(l.near)} {y(l.hinge)}L{x(l.far)} {y(l.tip)}V{y(gate.bottom)}H{x(l.near)}z"
      class={run.hollow ? 'fill-(--sheet) stroke-(--metal-edge)' : 'fill-(--sheet) stroke-(--timber-edge)'}
      stroke-width="2.5"
    />
    {#if l.brace && l.brace.kind !== 'unbraced'}
      {@const strut = l.brace.kind === 'strut'}
      <path
        d="M{x(l.near)} {y(strut ? gate.bottom : l.hinge)}L{x(l.far)} {y(strut ? l.tip : gate.bottom)}"
        class={strut ? 'stroke-(--timber-edge)' : 'stroke-(--ink)'}
        stroke-width={strut ? 5 : 1.8}
        opacity={strut ? 0.55 : 1}
      />
    {/if}
  {/each}
  {#if slid}
    <rect
      x={x(faces[0]!)}
      y={y(gate.bottom + gate.leaf)}
      width={gate.opening * scale}
      height={gate.leaf * scale}
      class="fill-(--sheet) stroke-(--timber-edge)"
      stroke-width="2.5"
    />
  {/if}
  {#each posts as p, i (p.label)}
    {@const face = faces[i]! - (i === 0 ? gate.post : 0)}
    <rect
      x={x(face)}
      y={y(p.top)}
      width={gate.post * scale}
      height={H - y(p.top)}
      class={run.hollow ? 'fill-(--metal) stroke-(--metal-edge)' : 'fill-(--timber) stroke-(--timber-edge)'}
      stroke-width="1.5"
    />
    <Measure
      x={x(face + gate.post / 2)}
      y={y(p.top) - 8}
      words="{p.label} {slid ? 'guide' : p.hung ? 'hinges' : 'latch'}"
      {units}
      strong
    />
  {/each}
  {#each leaves as l, n (l.post)}
    {#each l.hinges as h (h.name)}
      {@const at = y(gate.bottom + h.onLeaf)}
      {@const out = x(l.pin)}
      <g class="stroke-(--ink)" stroke-width="2">
        <path d="M{x(l.near) - (l.ahead ? 1 : -1) * 14 * scale} {at}H{x(l.near) + (l.ahead ? 22 : -22)}" />
        <path d="M{out} {at}v{h.pin === 'up' ? -9 : 9}" stroke-width="3.5" />
      </g>
    {/each}
    {#if show === 'hang'}
      {#each l.blocks as b, k (b.name)}
        <rect
          x={x(b.at) - 8}
          y={y(gate.bottom)}
          width="16"
          height={Math.max(2, b.height * scale)}
          class="fill-(--timber) stroke-(--timber-edge)"
        />
        <Measure
          x={x(b.at)}
          y={y(gate.bottom - b.height) + 16 + (k === 1 && n === 1 ? 17 : 0)}
          mm={b.height}
          words="block "
          {units}
        />
      {/each}
    {/if}
  {/each}
  {#if gate.latch}
    {@const single = leaves.length === 1 ? leaves[0]! : undefined}
    {@const at = leaves.length === 2 ? (leaves[0]!.far + leaves[1]!.far) / 2 : (single?.far ?? gate.at)}
    <rect
      x={x(at) - 7}
      y={y(gate.bottom + gate.latch.onLeaf) - 4}
      width="14"
      height="8"
      class="fill-(--ink)"
    />
  {/if}

  {#if show === 'opening'}
    {@const base = H - foot}
    {@render across(faces[0]!, faces[1]!, base + 26, 'inside ', gate.opening, true)}
    {@render across(
      faces[0]! - gate.post / 2,
      faces[1]! + gate.post / 2,
      base + 56,
      'centre to centre ',
      gate.centre,
    )}
    {@render across(faces[0]! - gate.post, faces[1]! + gate.post, base + 86, 'outside ', gate.outside)}
    {#each leaves as l (l.post)}
      {@render across(
        Math.min(l.near, l.far),
        Math.max(l.near, l.far),
        y(gate.bottom + l.height * 0.52),
        'leaf ',
        l.width,
      )}
    {/each}
    {@render upright(
      44 + 42,
      gate.bottom,
      gate.bottom + (leaves[0]?.height ?? gate.leaf),
      '',
      leaves[0]?.height ?? gate.leaf,
      'left',
    )}
    {@render upright(W - right + 22, gate.highest, gate.bottom, 'gap ', gate.bottom - gate.highest, 'right')}
    <path
      d="M{x(faces[0]!)} {y(gate.bottom)}L{x(faces[1]!)} {y(bay.topEnd)}M{x(faces[1]!)} {y(gate.bottom)}L{x(
        faces[0]!,
      )} {y(bay.topStart)}"
      class="stroke-(--ink)"
      stroke-width="1"
      stroke-dasharray="3 5"
      opacity="0.7"
    />
    <Measure
      x={x(gate.at)}
      y={y(gate.bottom + gate.leaf * 0.14)}
      words="diagonals "
      mm={gate.checks?.[2]?.length}
      {units}
    />
  {:else}
    <Measure x={W / 2} y={H - 8} words="hinges and latch above ground" {units} />
    {#each leaves as l (l.post)}
      {@const first = l.end === 'first'}
      {@const at = first ? left - 22 : W - right + 18}
      {#each l.hinges as h (h.name)}
        {@const level = y(gate.bottom + h.onLeaf)}
        <path d="M{at} {level}H{x(l.pin)}" class="stroke-(--ink)" stroke-width="1" stroke-dasharray="2 4" />
        <Measure
          x={first ? at - 2 : at + 2}
          y={level + 5}
          mm={h.above}
          {units}
          strong
          anchor={first ? 'end' : 'start'}
        />
      {/each}
    {/each}
    {#if gate.latch && leaves.length === 1}
      {@const first = leaves[0]!.end === 'first'}
      <path
        d="M{first ? W - right + 10 : left - 12} {y(gate.bottom + gate.latch.onLeaf)}H{x(leaves[0]!.far)}"
        class="stroke-(--ink)"
        stroke-width="1"
        stroke-dasharray="2 4"
      />
      <Measure
        x={first ? W - right + 12 : left - 14}
        y={y(gate.bottom + gate.latch.onLeaf) + 5}
        words="latch "
        mm={gate.latch.above}
        {units}
        strong
        anchor={first ? 'start' : 'end'}
      />
    {/if}
  {/if}
</svg>
