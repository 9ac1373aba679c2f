<script lang="ts">
  // A post on the tape: pull it along, or nudge it mark by mark, and it is
  // held there; the rest re-space while it moves. Delete lets it go.
  import type { PlannedPost } from '../gen/api'
  import { holdAt, letGo, newHold, stopsOf } from '../lib/hold'
  import type { Session } from '../lib/session.svelte'
  import { tape } from '../lib/tape'
  import { dragging, snap } from './drag'
  import { Held } from './held.svelte'
  import { nudging } from './nudge'
  import type { View } from './view.svelte'
  import * as msg from '../gen/messages'

  let { session, view, post, index }: { session: Session; view: View; post: PlannedPost; index: number } =
    $props()
  const units = $derived(session.units)
  const held = new Held()
  const x = $derived(view.x(held.at(post.station)))
  const y = $derived(view.height - view.tape)
  const current = $derived(index === session.post)

  const stops = $derived(stopsOf(session, index))
  let between = { least: 0, most: 0 } // as it was when the pull began
  const within = (mm: number) => Math.min(Math.max(mm, between.least), between.most)

  let id = ''
  let from = 0
  let at = 0
  let before: unknown
  function start() {
    session.post = index
    id = post.held ?? newHold(session)
    before = session.value(session.at('/fixedPosts')) ?? null
    from = at = post.station
    between = stops
    session.followed = id
  }
  function place(mm: number) {
    at = within(mm)
    held.put(at)
    session.preview(holdAt(session, id, at), true)
  }
  function settle() {
    held.letGo()
    // With a bay more before it the post has another number: the keys go along.
    setTimeout(() => {
      session.followed = ''
      const focused = document.activeElement
      if (focused?.hasAttribute('data-post') && focused.getAttribute('data-held') !== id)
        document.querySelector<SVGElement>(`[data-held="${id}"]`)?.focus()
    }, 800)
    session.commit(holdAt(session, id, at), msg.post_handle_post_held_at({ tape: tape(at, units) }))
  }
  const drag = dragging({
    start,
    move: (dx) => place(snap(from + dx / view.scale, 1 / view.scale, units)),
    end: settle,
    cancel: () => {
      session.preview([{ path: session.at('/fixedPosts'), value: before }])
      held.letGo()
    },
  })

  const nudge = nudging({ units: () => units, start, by: (mm) => place(at + mm), settle })
  function key(e: KeyboardEvent) {
    if ((e.key === 'Delete' || e.key === 'Backspace') && post.held) {
      e.preventDefault()
      nudge.forget() // else it would be held again
      session.followed = ''
      session.commit(letGo(session, post.held), msg.common_let_go({ label: post.label }))
    } else nudge.key(e)
  }
</script>

<g
  {@attach drag}
  class="cursor-ew-resize touch-none"
  role="slider"
  tabindex="0"
  aria-label={msg.post_handle_station({ label: post.label, v2: post.held ? msg.common_held : '' })}
  aria-orientation="horizontal"
  aria-valuemin={stops.least}
  aria-valuemax={stops.most}
  aria-valuenow={post.station}
  aria-valuetext={tape(post.station, units)}
  onkeydown={key}
  data-post={post.label}
  data-held={post.held}
>
  <rect x={x - 22} y={y - 2} width="44" height="40" fill="transparent" />
  <path
    d="M{x} {y + 1}l8 9.5 -8 9.5 -8 -9.5z"
    class={post.held
      ? 'fill-(--ink) stroke-(--ink)'
      : current
        ? 'fill-(--mallow) stroke-(--mallow)'
        : 'fill-(--sheet) stroke-(--ink)'}
    stroke-width="2"
  />
  {#if post.held}<path d="M{x - 3.5} {y + 10.5}h7" class="stroke-(--sheet)" stroke-width="2.4" />{/if}
</g>
