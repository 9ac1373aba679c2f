<script lang="ts">
  // A list of posts or bays, a page at a time; a row picks its post.
  import type { Snippet } from 'svelte'
  import type { PlannedBay, PlannedPost } from '../gen/api'
  import type { Session } from '../lib/session.svelte'
  import type { View } from '../drawing/view.svelte'
  import { postRole } from '../lib/names'
  import Pager from './Pager.svelte'
  import { PAGE, pageOf } from './page'
  import { scrolls } from '../lib/scrolls'
  import * as msg from '../gen/messages'

  interface Props {
    session: Session
    view: View
    caption: string
    head: string[]
    row: Snippet<[PlannedPost, PlannedBay | undefined]>
  }
  let { session, view, caption, head, row }: Props = $props()
  const posts = $derived(session.run.posts)
  const page = $derived(Math.floor(session.post / PAGE))
  const shown = $derived(pageOf(posts, page))

  function pick(i: number) {
    session.post = Math.min(Math.max(i, 0), posts.length - 1)
    view.show(session.drawn.posts[session.drawnPost]!.station)
  }
</script>

<div {@attach scrolls} class="relative mt-4 overflow-x-auto border border-line bg-sheet">
  <table class="sheet-table w-full">
    <caption class="px-2 pt-2 text-left font-bold">{caption}</caption>
    <thead>
      <tr
        ><th scope="col">{msg.common_post}</th>{#each head as h, k (k)}<th scope="col">{h}</th>{/each}</tr
      >
    </thead>
    <tbody>
      {#each shown as { row: p, i } (p.label)}
        <tr class={i === session.post ? 'bg-mallow-wash' : ''}>
          <td>
            <button
              class="min-h-9 min-w-14 text-left font-bold {i === session.post ? 'text-mallow' : ''}"
              aria-pressed={i === session.post}
              onclick={() => pick(i)}
              >{p.kind === 'line' ? p.label : `${p.label} ${postRole(p, session.run)}`}</button
            >
          </td>
          {@render row(p, session.run.bays[i])}
        </tr>
      {/each}
    </tbody>
  </table>
  <div class="px-2">
    <Pager count={posts.length} {page} onpage={(n) => pick(n * PAGE)} />
  </div>
</div>
