<script lang="ts">
  // A grade post: drag it along, and the top breaks there; lift or lower it,
  // and the gap under the fence is held there too. Arrows do the same, mark by
  // mark; Delete lets it go.
  import type { PlannedPost } from '../gen/api'
  import { breakAt, letGo, newHold, stopsOf } from '../lib/hold'
  import type { FixedPost } from '../gen/api'
  import { Later } from '../lib/later'
  import type { Session } from '../lib/session.svelte'
  import { short, tape } from '../lib/tape'
  import { dragging, snap } from './drag'
  import type { View } from './view.svelte'
  import * as msg from '../gen/messages'

  let { session, view, post, index }: { session: Session; view: View; post: PlannedPost; index: number } =
    $props()
  const units = $derived(session.units)
  const bay = $derived(session.run.bays[index]!)
  const x = $derived(view.x(post.station))
  const y = $derived(view.y(bay.topStart))
  const kept = $derived(
    (session.value<FixedPost[]>(session.at('/fixedPosts')) ?? []).find((f) => f.id === post.held),
  )

  let id = ''
  let from = { at: 0, gap: 0 }
  let now: { at: number; gap?: number } = { at: 0 }
  let between = { least: 0, most: 0 }
  let before: unknown
  function start() {
    session.post = index
    id = post.held ?? newHold(session)
    session.followed = id
    before = session.value(session.at('/fixedPosts')) ?? null
    from = { at: post.station, gap: bay.bottomStart - post.ground }
    now = { at: post.station, gap: kept?.gap }
    between = stopsOf(session, index)
  }
  function place(at: number, gap: number | undefined) {
    now = { at: Math.min(Math.max(at, between.least), between.most), gap }
    session.preview(breakAt(session, id, now.at, now.gap), true)
  }
  function settle() {
    setTimeout(() => {
      session.followed = ''
      const focused = document.activeElement
      if (focused?.hasAttribute('data-grade') && focused.getAttribute('data-held') !== id)
        document.querySelector<SVGElement>(`[data-grade][data-held="${id}"]`)?.focus()
    }, 800)
    session.commit(
      breakAt(session, id, now.at, now.gap),
      msg.grade_post_grade_post_at({
        tape: tape(now.at, units),
        v2: now.gap === undefined ? '' : msg.grade_post_gap({ short: short(now.gap, units) }),
      }),
    )
  }
  const drag = dragging({
    start,
    move: (dx, dy) =>
      place(
        Math.abs(dx) > 6 ? snap(from.at + dx / view.scale, 1 / view.scale, units) : from.at,
        Math.abs(dy) > 6 ? snap(from.gap - dy / view.rise, 1 / view.rise, units) : kept?.gap,
      ),
    end: settle,
    cancel: () => session.preview([{ path: session.at('/fixedPosts'), value: before }]),
  })

  const later = new Later(settle)
  function key(e: KeyboardEvent) {
    if ((e.key === 'Delete' || e.key === 'Backspace') && post.held) {
      e.preventDefault()
      later.forget()
      session.followed = ''
      session.commit(letGo(session, post.held), msg.common_let_go({ label: post.label }))
      return
    }
    const way = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[e.key]
    if (!way) return
    e.preventDefault()
    e.stopPropagation()
    const step = (e.shiftKey ? 16 : 1) * units.smallestMark
    if (!later.waiting) start()
    place(now.at + way[0]! * step, way[1] ? (now.gap ?? from.gap) + way[1] * step : now.gap)
    later.wait()
  }
</script>

<g
  {@attach drag}
  class="cursor-move touch-none"
  role="slider"
  tabindex="0"
  aria-label={msg.grade_post_grade_post_station({ label: post.label, v2: post.held ? msg.common_held : '' })}
  aria-valuenow={post.station}
  aria-valuetext={msg.grade_post_gap_2({
    tape: tape(post.station, units),
    short: short(bay.bottomStart - post.ground, units),
  })}
  onkeydown={key}
  data-grade={post.label}
  data-held={post.held}
>
  <circle cx={x} cy={y} r="22" fill="transparent" />
  <circle
    cx={x}
    cy={y}
    r="7.5"
    class={post.held ? 'fill-(--ink) stroke-(--ink)' : 'fill-(--sheet) stroke-(--mallow)'}
    stroke-width="3"
  />
  {#if kept?.gap !== undefined}<path d="M{x - 3.5} {y}h7" class="stroke-(--sheet)" stroke-width="2.4" />{/if}
</g>
