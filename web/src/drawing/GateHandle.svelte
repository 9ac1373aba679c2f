<script lang="ts">
  // A gate on the tape: drag it along, or nudge it mark by mark.
  import type { PlannedGate } from '../gen/api'
  import type { Session } from '../lib/session.svelte'
  import { tape } from '../lib/tape'
  import { dragging, snap } from './drag'
  import { Held } from './held.svelte'
  import { nudging } from './nudge'
  import type { View } from './view.svelte'
  import * as msg from '../gen/messages'

  let { session, view, gate }: { session: Session; view: View; gate: PlannedGate } = $props()
  const units = $derived(session.units)
  const half = $derived(gate.centre / 2)
  const least = $derived(half)
  const most = $derived(session.run.length - half)
  const name = $derived(gate.name || gate.id)
  const held = new Held()
  const x = $derived(view.x(held.at(gate.at)))
  const wide = $derived(Math.max(gate.opening * view.scale, 44))
  const y = $derived(view.height - view.tape)

  // The two ends are real stops: no gate post stands beyond the run's ends.
  const within = (mm: number) => Math.min(Math.max(mm, least), most)

  let from = 0
  let at = 0
  function place(mm: number) {
    at = within(mm)
    held.put(at)
    session.preview([{ path: `${gate.path}/at`, value: at }])
  }
  function settle() {
    held.letGo()
    session.commit([{ path: `${gate.path}/at`, value: at }], `${name} to ${tape(at, units)}`)
  }
  const drag = dragging({
    start: () => (from = at = gate.at),
    move: (dx) => place(snap(from + dx / view.scale, 1 / view.scale, units)),
    end: settle,
    cancel: () => {
      place(from)
      held.letGo()
    },
  })

  const { key } = nudging({
    units: () => units,
    // The document knows of the keys before, which the plan may not yet.
    start: () => (at = session.value<number>(`${gate.path}/at`) ?? gate.at),
    by: (mm) => place(at + mm),
    settle,
  })
</script>

<g
  {@attach drag}
  class="cursor-ew-resize touch-none"
  role="slider"
  tabindex="0"
  aria-label={msg.gate_handle_middle_of_the_opening({ name })}
  aria-orientation="horizontal"
  aria-valuemin={least}
  aria-valuemax={most}
  aria-valuenow={gate.at}
  aria-valuetext={tape(gate.at, units)}
  onkeydown={key}
  data-gate={gate.id}
>
  <rect x={x - wide / 2} {y} width={wide} height={view.tape} fill="transparent" />
  <rect
    x={x - wide / 2}
    y={y + 1}
    width={wide}
    height="35"
    class="fill-(--sheet) stroke-(--ink)"
    stroke-width="2"
  />
  <path
    d="M{x - 7} {y + 11}l-7 8 7 8M{x + 7} {y + 11}l7 8-7 8M{x} {y + 8}v22"
    fill="none"
    class="stroke-(--ink)"
    stroke-width="2.2"
  />
</g>
