<script lang="ts">
  // All posts of the run, each with how far it is. A finger that is drawn over some of them
  // picks them all; a key with Shift does too.
  import type { PlannedPost } from '../../gen/api'
  import { marks } from '../../lib/log'
  import Pager from '../Pager.svelte'
  import { PAGE, pageOf } from '../page'
  import * as msg from '../../gen/messages'

  interface Props {
    posts: { post: PlannedPost; at: number }[]
    far: Map<string, number>
    picked: string
    swept: string[]
    onpick: (at: number) => void
  }
  let { posts, far, picked, swept = $bindable(), onpick }: Props = $props()
  let turned = $state<number | null>(null)
  const page = $derived(
    turned ?? Math.max(0, Math.floor(posts.findIndex((p) => p.post.id === picked) / PAGE)),
  )
  $effect(() => {
    void picked
    turned = null
  })

  let from = $state<number | null>(null)
  let moved = false

  function span(a: number, b: number) {
    const [low, high] = a < b ? [a, b] : [b, a]
    swept = posts.slice(low, high + 1).map((p) => p.post.id)
  }
  const under = (e: PointerEvent) => {
    const cell = document.elementFromPoint(e.clientX, e.clientY)?.closest<HTMLElement>('[data-sweep]')
    return cell ? Number(cell.dataset['sweep']) : null
  }
  function down(e: PointerEvent) {
    from = under(e)
    moved = false
    // The finger stays with the grid, not with the cell that it began on.
    if (e.target instanceof Element && e.target.hasPointerCapture(e.pointerId))
      e.target.releasePointerCapture(e.pointerId)
  }
  function move(e: PointerEvent) {
    if (from === null || !e.buttons) return
    const to = under(e)
    if (to === null || (to === from && !moved)) return
    moved = true
    span(from, to)
  }
  function click(i: number, e: MouseEvent) {
    if (moved) {
      moved = false
      return
    }
    if (e.shiftKey) {
      span(
        Math.max(
          0,
          posts.findIndex((p) => p.post.id === picked),
        ),
        i,
      )
      return
    }
    swept = []
    onpick(posts[i]!.at)
  }
  const count = $derived(marks.map((_, i) => posts.filter((p) => (far.get(p.post.id) ?? 0) > i).length))
</script>

<section aria-label={msg.log_all_posts} class="grid gap-1.5">
  <p class="text-pencil" data-testid="log-counts">
    {msg.log_counts({
      staked: count[0]!,
      dug: count[1]!,
      set: count[2]!,
      poured: count[3]!,
      built: count[4]!,
      posts: posts.length,
    })}
  </p>
  <div
    class="grid touch-pan-y grid-cols-[repeat(auto-fill,minmax(3rem,1fr))] gap-1 select-none"
    role="group"
    aria-label={msg.log_sweep}
    onpointerdown={down}
    onpointermove={move}
    onpointerup={() => (from = null)}
    onpointercancel={() => (from = null)}
  >
    {#each pageOf(posts, page) as { row: p, i } (p.post.id)}
      {@const n = far.get(p.post.id) ?? 0}
      <button
        class="flex min-h-12 flex-col items-center justify-center border px-0.5 text-[0.95rem] font-semibold {swept.includes(
          p.post.id,
        )
          ? 'border-mallow bg-mallow text-on-mallow'
          : p.post.id === picked
            ? 'border-2 border-ink bg-sheet'
            : 'border-line bg-sheet'}"
        data-sweep={i}
        aria-pressed={swept.includes(p.post.id) || p.post.id === picked}
        aria-label={msg.log_post_is({ label: p.post.label, state: n ? marks[n - 1]! : msg.log_nothing_yet })}
        onclick={(e) => click(i, e)}
        >{p.post.label}<span class="mt-0.5 flex gap-px" aria-hidden="true"
          >{#each marks as m, k (m)}<span class="h-2 w-1.5 border border-current {k < n ? 'bg-current' : ''}"
            ></span>{/each}</span
        ></button
      >
    {/each}
  </div>
  <Pager count={posts.length} {page} onpage={(n) => (turned = n)} />
  {#if swept.length}
    <p class="flex items-center gap-2 font-medium">
      {msg.log_swept({ count: swept.length })}
      <button class="btn" onclick={() => (swept = [])}>{msg.log_clear}</button>
    </p>
  {:else}<p class="text-[0.9rem] text-pencil">{msg.log_sweep_says}</p>{/if}
</section>
