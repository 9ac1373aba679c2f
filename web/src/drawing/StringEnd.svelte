<script lang="ts">
  // An end of the string over the tops: lift or lower it, or nudge it mark by
  // mark, and the gap under the fence is held there. Delete lets it go.
  import type { Session } from '../lib/session.svelte'
  import { short } from '../lib/tape'
  import { dragging, snap } from './drag'
  import Measure from './Measure.svelte'
  import { Held } from './held.svelte'
  import { nudging } from './nudge'
  import type { View } from './view.svelte'
  import * as msg from '../gen/messages'

  let { session, view, end }: { session: Session; view: View; end: 'start' | 'end' } = $props()
  const units = $derived(session.units)
  const run = $derived(session.run)
  const path = $derived(session.at(end === 'start' ? '/grade/startGap' : '/grade/endGap'))
  const post = $derived(end === 'start' ? run.posts[0]! : run.posts[run.posts.length - 1]!)
  const bay = $derived(end === 'start' ? run.bays[0]! : run.bays[run.bays.length - 1]!)
  const top = $derived(end === 'start' ? bay.topStart : bay.topEnd)
  const held = $derived(session.value<number>(path))
  /** The gap that is planned, which comes after the hand. */
  const planned = $derived((end === 'start' ? bay.bottomStart : bay.bottomEnd) - post.ground)
  const gap = $derived(held ?? planned)
  const x = $derived(view.x(post.station))
  const grip = new Held()
  const y = $derived(view.y(grip.at(top)))

  const within = (mm: number) => Math.min(Math.max(mm, -2000), 4000)
  let before: number | null = null
  let from = 0
  let now = 0
  function start() {
    before = session.value<number>(path) ?? null
    from = now = gap
    session.post = end === 'start' ? 0 : run.posts.length - 1
  }
  function place(mm: number) {
    now = within(mm)
    grip.put(top + now - planned)
    session.preview([{ path, value: now }], true)
  }
  const settle = () => {
    grip.letGo()
    session.commit([{ path, value: now }], msg.string_end_string_s_held_up({ end, short: short(now, units) }))
  }
  const drag = dragging({
    start,
    move: (_, dy) => place(snap(from - dy / view.rise, 1 / view.rise, units)),
    end: settle,
    cancel: () => {
      session.preview([{ path, value: before }])
      grip.letGo()
    },
  })
  const nudge = nudging({ units: () => units, start, by: (mm) => place(now + mm), settle })
  function key(e: KeyboardEvent) {
    if ((e.key === 'Delete' || e.key === 'Backspace') && held !== undefined) {
      e.preventDefault()
      nudge.forget()
      session.commit([{ path, value: null }], msg.string_end_string_s_let_go({ end }))
    } else nudge.key(e)
  }
</script>

<g
  {@attach drag}
  class="cursor-ns-resize touch-none"
  role="slider"
  tabindex="0"
  aria-label={msg.string_end_string_s_gap_under_the({ end, v2: held === undefined ? '' : msg.common_held })}
  aria-orientation="vertical"
  aria-valuemin={-2000}
  aria-valuemax={4000}
  aria-valuenow={gap}
  aria-valuetext={short(gap, units)}
  onkeydown={key}
  data-string-end={end}
>
  <circle cx={x} cy={y} r="22" fill="transparent" />
  <path
    d="M{x - 9} {y}h18M{x} {y - 15}l-5 6h10zM{x} {y + 15}l-5 -6h10z"
    class={held === undefined ? 'fill-(--sheet) stroke-(--ink)' : 'fill-(--ink) stroke-(--ink)'}
    stroke-width="2"
  />
</g>
{#if held !== undefined}
  <Measure
    x={end === 'start' ? Math.max(x + 14, 14) : Math.min(x - 14, view.width - 14)}
    y={y - 14}
    anchor={end === 'start' ? 'start' : 'end'}
    {units}
    words={msg.string_end_held}
    mm={gap}
    after=" up"
  />
{/if}
