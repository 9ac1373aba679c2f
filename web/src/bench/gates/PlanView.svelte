<script lang="ts">
  // The gate from above, with what its leaves sweep over. Drag a leaf open.
  import { dragging } from '../../drawing/drag'
  import Picture from '../../drawing/Picture.svelte'
  import { across, down, type Place } from '../../drawing/scene'
  import type { GateLeaf, PlannedGate } from '../../gen/api'
  import { range, sideOf, standing } from '../../lib/leaf'
  import type { Session } from '../../lib/session.svelte'
  import { short } from '../../lib/tape'
  import * as msg from '../../gen/messages'

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
  const limits = $derived(range(gate))
  /** Where it is drawn, while a hand is on it. */
  let place: Place | undefined
  const tip = (l: GateLeaf, on: Place) => {
    const p = standing(l, angle)
    return { x: across(on, p.at), y: down(on, p.off) }
  }
  const clamp = (a: number) => Math.min(Math.max(a, limits.least), limits.most)

  let from = { x: 0, y: 0 }
  function grip(l: () => GateLeaf) {
    return dragging({
      start: () => (from = tip(l(), place!)),
      move: (dx, dy) => {
        const [px, py] = [from.x + dx - across(place!, l().pin), down(place!, 0) - (from.y + dy)]
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

<Picture
  {session}
  view={{ of: 'above', gate: gate.id, angle, road, room }}
  wide={600}
  tall={310}
  label={msg.plan_view_from_above({ v1: gate.name || gate.id })}
  of="above"
>
  {#snippet hands(d)}
    {#each gate.leaves as l (l.post)}
      {@const s = sideOf(l, angle)}
      {@const t = tip(l, d)}
      <g
        {@attach grip(() => l)}
        onpointerdowncapture={() => (place = d)}
        class="cursor-grab touch-none"
        role="slider"
        tabindex="0"
        aria-label={msg.plan_view_the_leaf_on_how_far({ post: l.post })}
        aria-valuemin={Math.round(limits.least)}
        aria-valuemax={Math.round(limits.most)}
        aria-valuenow={Math.round(angle)}
        aria-valuetext="{Math.abs(Math.round(angle))}° {angle < 0 ? 'out' : 'in'}{s
          ? msg.plan_view_least_gap({ short: short(s.gap, units) })
          : ''}"
        onkeydown={key}
        data-leaf={l.post}
      >
        <circle cx={t.x} cy={t.y} r="24" fill="transparent" />
        <circle cx={t.x} cy={t.y} r="9" class="fill-(--sheet) stroke-(--mallow)" stroke-width="3" />
      </g>
    {/each}
  {/snippet}
</Picture>
