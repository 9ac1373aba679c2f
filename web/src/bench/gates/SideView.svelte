<script lang="ts">
  // The leaf from the side, over the ground it stands above at this angle, and
  // the gap under it all the way.
  import Measure from '../../drawing/Measure.svelte'
  import type { GateLeaf, LeafSide, PlannedGate } from '../../gen/api'
  import { under } from '../../lib/leaf'
  import type { Session } from '../../lib/session.svelte'
  import { short } from '../../lib/tape'

  interface Props {
    session: Session
    gate: PlannedGate
    leaf: GateLeaf
    side: LeafSide
    angle: number
  }
  let { session, gate, leaf, side, angle }: Props = $props()
  const id = $props.id()
  const units = $derived(session.units)
  const now = $derived(under(side, angle))
  const W = 480
  const H = 190
  const left = 34
  const scale = $derived((W - left - 40) / leaf.reach)
  /** All heights of the swing, so that the picture stays still while the leaf moves. */
  const all = $derived(side.ground.flatMap((g) => [...g.heights, g.bottom]))
  const low = $derived(Math.min(...all))
  const high = $derived(Math.max(...all))
  /** Heights are stretched, so that an inch is seen: as much as the room allows. */
  const tall = $derived(Math.min(scale * 6, (H - 96) / Math.max(high - low, 100)))
  const stretch = $derived(Math.round((tall / scale) * 10) / 10)
  const x = (out: number) => left + out * scale
  const y = (h: number) => H - 26 - (h - low) * tall
  const surface = $derived(now.heights.map((h, i) => `${x(side.outs[i]!).toFixed(1)} ${y(h).toFixed(1)}`))
  const bottom = $derived(y(now.bottom))
  const strikes = $derived(now.gap < -0.05)
  /** What of the ground stands above the leaf's bottom. */
  const over = $derived(
    now.heights.map((h, i) => `${x(side.outs[i]!).toFixed(1)} ${y(Math.max(h, now.bottom)).toFixed(1)}`),
  )
  // The curve below: the least gap at each angle.
  const C = 86
  const gaps = $derived(side.ground.map((g) => g.gap))
  const most = $derived(Math.max(...gaps, side.wanted, 10))
  const least = $derived(Math.min(...gaps, 0))
  const cx = (a: number) => left + ((W - left - 40) * a) / gate.open
  const cy = (g: number) => C - 8 - ((g - least) * (C - 24)) / (most - least)
</script>

<figure class="grid gap-1">
  <svg
    viewBox="0 0 {W} {H}"
    class="block h-auto w-full"
    style:max-width="{W * 1.25}px"
    role="img"
    aria-label="The leaf on {leaf.post} {Math.round(angle)}° open, seen from the side: {strikes
      ? `it strikes, ${short(-now.gap, units)} too low`
      : `${short(now.gap, units)} over the ground`}"
  >
    <defs>
      <pattern
        id="{id}-soil"
        width="9"
        height="9"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <path d="M0 0V9" class="stroke-(--ground-hatch)" stroke-width="1.2" />
      </pattern>
      <pattern
        id="{id}-bad"
        width="7"
        height="7"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(-45)"
      >
        <path d="M0 0V7" class="stroke-(--stop)" stroke-width="2.4" />
      </pattern>
    </defs>
    <rect
      x={x(leaf.heel)}
      y="6"
      width={x(leaf.reach) - x(leaf.heel)}
      height={Math.max(0, bottom - 6)}
      class="fill-(--sheet) stroke-(--mallow)"
      stroke-width="2"
    />
    <path d="M{surface.join('L')}V{H}H{x(0)}z" class="fill-(--ground)" />
    <path d="M{surface.join('L')}V{H}H{x(0)}z" fill="url(#{id}-soil)" />
    <path d="M{surface.join('L')}" class="stroke-(--ground-edge)" stroke-width="2" fill="none" />
    {#if strikes}<path
        d="M{over.join('L')}V{bottom}H{x(0)}z"
        fill="url(#{id}-bad)"
        class="stroke-(--stop)"
        stroke-width="1.5"
      />{/if}
    <path d="M{x(leaf.heel)} {bottom}H{x(leaf.reach)}" class="stroke-(--mallow)" stroke-width="3.5" />
    <path d="M{x(0)} 2V{H}" class="stroke-(--timber-edge)" stroke-width="6" />
    <path
      d="M{x(now.out)} {bottom}V{y(now.bottom - now.gap)}"
      class={strikes ? 'stroke-(--stop)' : 'stroke-(--ink)'}
      stroke-width="2"
    />
    <Measure
      x={Math.min(Math.max(x(now.out), 90), W - 90)}
      y={Math.min(bottom, y(now.bottom - now.gap)) - 10}
      words={strikes ? 'strikes: ' : 'gap '}
      mm={Math.abs(now.gap)}
      after={strikes ? ' too low' : ''}
      {units}
      strong
      tone={strikes ? 'stop' : 'ink'}
    />
    <Measure x={x(0) + 12} y={24} words="{Math.round(angle)}° open" {units} anchor="start" strong />
    <Measure x={W - 6} y={H - 7} words="heights × {stretch}" {units} anchor="end" />
  </svg>
  <svg
    viewBox="0 0 {W} {C + 16}"
    class="block h-auto w-full"
    style:max-width="{W * 1.25}px"
    role="img"
    aria-label="The least gap over the whole swing: {short(side.gap, units)} at {Math.round(
      side.angle,
    )}°, {short(side.wanted, units)} is wanted"
  >
    <path d="M{left} {cy(0)}H{W - 40}" class="stroke-(--ground-edge)" stroke-width="2" />
    <path
      d="M{left} {cy(side.wanted)}H{W - 40}"
      class="stroke-(--warn)"
      stroke-width="1.5"
      stroke-dasharray="6 4"
    />
    <path
      d="M{side.ground.map((g, i) => `${cx(side.angles[i]!).toFixed(1)} ${cy(g.gap).toFixed(1)}`).join('L')}"
      class="stroke-(--ink)"
      stroke-width="2.2"
      fill="none"
    />
    <path d="M{cx(angle)} 4V{C}" class="stroke-(--mallow)" stroke-width="2" />
    <circle cx={cx(angle)} cy={cy(now.gap)} r="4.5" class="fill-(--mallow)" />
    <Measure x={W - 36} y={cy(side.wanted) + 4} mm={side.wanted} {units} anchor="start" />
    <Measure x={left} y={C + 13} words="closed" {units} />
    <Measure x={W - 40} y={C + 13} words="{Math.round(gate.open)}°" {units} />
    <Measure x={(left + W - 40) / 2} y={C + 13} words="gap on the way" {units} />
  </svg>
</figure>
