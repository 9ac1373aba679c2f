<script lang="ts">
  // The gate from above, with what its leaves sweep over. Drag a leaf open.
  import { dragging } from '../../drawing/drag'
  import Measure from '../../drawing/Measure.svelte'
  import type { GateLeaf, PlannedGate } from '../../gen/api'
  import { range, sideOf, standing } from '../../lib/leaf'
  import type { Session } from '../../lib/session.svelte'
  import { short } from '../../lib/tape'

  interface Props {
    session: Session
    gate: PlannedGate
    angle: number
    onswing: (angle: number) => void
  }
  let { session, gate, angle, onswing }: Props = $props()
  const units = $derived(session.units)
  const road = $derived(session.value<number>(`${gate.path}/road`) || undefined)
  const room = $derived(session.value<number>(`${gate.path}/roomIn`) || undefined)
  const W = 480
  const H = 300
  const reach = $derived(Math.max(...gate.leaves.map((l) => l.reach), 600))
  const inward = $derived(gate.swing !== 'out' ? reach * 1.12 : reach * 0.3)
  const outward = $derived(gate.swing !== 'in' ? reach * 1.12 : reach * 0.34)
  const beside = $derived(gate.open > 90 ? reach * 1.05 : reach * 0.18)
  const scale = $derived(Math.min((W - 60) / (gate.outside + 2 * beside), (H - 44) / (inward + outward)))
  const x = (at: number) => W / 2 + (at - gate.at) * scale
  /** In is drawn upward. */
  const base = $derived(22 + inward * scale)
  const y = (off: number) => base - off * scale
  const limits = $derived(range(gate))
  const faces = $derived([gate.at - gate.opening / 2, gate.at + gate.opening / 2])

  /** The swept ground of a leaf, to one side. */
  function sector(l: GateLeaf, side: 'in' | 'out') {
    const sign = side === 'out' ? -1 : 1
    const pts = Array.from({ length: 25 }, (_, i) => standing(l, (gate.open * i) / 24, l.reach))
    return `M${x(l.pin)} ${y(0)}L${pts.map((p) => `${x(p.at).toFixed(1)} ${y(sign * p.off).toFixed(1)}`).join('L')}z`
  }
  function body(l: GateLeaf) {
    const sign = angle < 0 ? -1 : 1
    const [a, b] = [standing(l, Math.abs(angle), l.heel), standing(l, Math.abs(angle), l.reach)]
    return `M${x(a.at)} ${y(sign * a.off)}L${x(b.at)} ${y(sign * b.off)}`
  }
  const tip = (l: GateLeaf) => {
    const p = standing(l, Math.abs(angle), l.reach)
    return { x: x(p.at), y: y((angle < 0 ? -1 : 1) * p.off) }
  }
  const clamp = (a: number) => Math.min(Math.max(a, limits.least), limits.most)

  let from = { x: 0, y: 0 }
  let svg = $state<SVGSVGElement>()
  function grip(l: () => GateLeaf) {
    return dragging({
      start: () => (from = tip(l())),
      move: (dx, dy) => {
        const k = W / (svg?.getBoundingClientRect().width || W)
        const [px, py] = [from.x + dx * k - x(l().pin), y(0) - (from.y + dy * k)]
        const along = l().ahead ? px : -px
        let a = (Math.atan2(py, along) * 180) / Math.PI
        // Beyond straight back it stays where its side is.
        if (a < -90 && limits.least === 0) a += 360
        if (a > 90 && limits.most === 0) a -= 360
        onswing(Math.round(clamp(a)))
      },
      end: () => {},
      cancel: () => {},
    })
  }
  function key(e: KeyboardEvent) {
    const step = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1, PageUp: 10, PageDown: -10 }[e.key]
    if (step !== undefined) onswing(clamp(angle + step * (e.shiftKey ? 5 : 1)))
    else if (e.key === 'Home') onswing(limits.least)
    else if (e.key === 'End') onswing(limits.most)
    else return
    e.preventDefault()
    e.stopPropagation()
  }
</script>

<svg
  bind:this={svg}
  viewBox="0 0 {W} {H}"
  class="block h-auto w-full touch-pan-y"
  style:max-width="{W * 1.25}px"
  role="group"
  aria-label="{gate.name || gate.id} from above"
>
  {#if room}<path d="M0 {y(room)}H{W}" class="stroke-(--ink)" stroke-width="4" /><Measure
      x={W - 8}
      y={y(room) - 6}
      words="room "
      mm={room}
      {units}
      anchor="end"
    />{/if}
  {#if road && y(-road) < H}<path
      d="M0 {y(-road)}H{W}"
      class="stroke-(--ink)"
      stroke-width="4"
      stroke-dasharray="14 5"
    /><Measure x={W - 8} y={y(-road) + 18} words="kerb " mm={road} {units} anchor="end" />{/if}
  {#each gate.leaves as l (l.post)}
    {#each l.sides as s (s.side)}
      {@const bad = !s.clears || s.struck}
      <path
        d={sector(l, s.side)}
        class={bad ? 'fill-(--stop-wash) stroke-(--stop)' : 'fill-(--tape) stroke-(--line)'}
        stroke-width="1.5"
        stroke-dasharray="6 4"
        fill-opacity="0.8"
      />
      {#if bad && !s.isCut}
        {@const p = standing(l, s.angle, s.out)}
        {@const [cx, cy] = [x(p.at), y((s.side === 'out' ? -1 : 1) * p.off)]}
        <path d="M{cx - 6} {cy - 6}l12 12m0 -12l-12 12" class="stroke-(--stop)" stroke-width="3" />
      {/if}
    {/each}
  {/each}
  <path
    d="M0 {y(0)}H{x(faces[0]! - gate.post)}M{x(faces[1]! + gate.post)} {y(0)}H{W}"
    class="stroke-(--timber-edge)"
    stroke-width="5"
  />
  {#each faces as f, i (i)}
    <rect
      x={x(i === 0 ? f - gate.post : f)}
      y={y(gate.post / 2)}
      width={gate.post * scale}
      height={gate.post * scale}
      class={session.run.hollow
        ? 'fill-(--metal) stroke-(--metal-edge)'
        : 'fill-(--timber) stroke-(--timber-edge)'}
      stroke-width="1.5"
    />
    <Measure
      x={x(i === 0 ? f - gate.post / 2 : f + gate.post / 2)}
      y={y(-gate.post / 2) + 17}
      words={i === 0 ? gate.first : gate.second}
      {units}
      strong
    />
  {/each}
  {#if gate.runBack}
    {@const r = gate.runBack}
    <rect
      x={x(r.from)}
      y={gate.swing === 'out' ? y(-60) : y(180)}
      width={(r.to - r.from) * scale}
      height={Math.max(8, 120 * scale)}
      class="fill-(--tape) stroke-(--line)"
      stroke-dasharray="6 4"
    />
    <Measure x={x((r.from + r.to) / 2)} y={y(260)} words="run-back " mm={r.past} {units} />
  {/if}
  {#each gate.leaves as l (l.post)}
    {@const s = sideOf(l, angle)}
    {@const t = tip(l)}
    <path
      d={body(l)}
      class="stroke-(--mallow)"
      stroke-width={Math.max(6, l.thick * scale)}
      stroke-linecap="butt"
    />
    <circle cx={x(l.pin)} cy={y(0)} r="4" class="fill-(--sheet) stroke-(--ink)" stroke-width="2" />
    <g
      {@attach grip(() => l)}
      class="cursor-grab touch-none"
      role="slider"
      tabindex="0"
      aria-label="The leaf on {l.post}, how far it is open"
      aria-valuemin={Math.round(limits.least)}
      aria-valuemax={Math.round(limits.most)}
      aria-valuenow={Math.round(angle)}
      aria-valuetext="{Math.abs(Math.round(angle))}° {angle < 0 ? 'out' : 'in'}{s
        ? `, least gap ${short(s.gap, units)}`
        : ''}"
      onkeydown={key}
      data-leaf={l.post}
    >
      <circle cx={t.x} cy={t.y} r="24" fill="transparent" />
      <circle cx={t.x} cy={t.y} r="9" class="fill-(--sheet) stroke-(--mallow)" stroke-width="3" />
    </g>
  {/each}
  <Measure x={8} y={18} words="inside" {units} anchor="start" />
  <Measure x={8} y={H - 8} words="outside" {units} anchor="start" />
</svg>
