<script lang="ts">
  // A list of posts or bays, a page at a time; a row picks its post.
  import type { Snippet } from 'svelte'
  import type { PlannedBay, PlannedPost } from '../gen/api'
  import type { Session } from '../lib/session.svelte'
  import type { View } from '../drawing/view.svelte'

  interface Props {
    session: Session
    view: View
    caption: string
    head: string[]
    row: Snippet<[PlannedPost, PlannedBay | undefined]>
  }
  let { session, view, caption, head, row }: Props = $props()
  const PAGE = 60
  const posts = $derived(session.run.posts)
  const page = $derived(Math.floor(session.post / PAGE))
  const shown = $derived(posts.slice(page * PAGE, (page + 1) * PAGE))

  function pick(i: number) {
    session.post = Math.min(Math.max(i, 0), posts.length - 1)
    view.show(posts[session.post]!.station)
  }
</script>

<div class="relative mt-4 overflow-x-auto border border-line bg-sheet">
  <table class="sheet-table w-full">
    <caption class="px-2 pt-2 text-left font-bold">{caption}</caption>
    <thead>
      <tr
        ><th scope="col">Post</th>{#each head as h (h)}<th scope="col">{h}</th>{/each}</tr
      >
    </thead>
    <tbody>
      {#each shown as p, k (p.id)}
        {@const i = page * PAGE + k}
        <tr class={i === session.post ? 'bg-mallow-wash' : ''}>
          <td>
            <button
              class="min-h-9 min-w-14 text-left font-bold {i === session.post ? 'text-mallow' : ''}"
              aria-pressed={i === session.post}
              onclick={() => pick(i)}>{p.kind === 'line' ? p.id : `${p.id} ${p.kind}`}</button
            >
          </td>
          {@render row(p, session.run.bays[i])}
        </tr>
      {/each}
    </tbody>
  </table>
  {#if posts.length > PAGE}
    <div class="flex items-center gap-3 border-t border-rule p-2">
      <button class="btn" disabled={page === 0} onclick={() => pick((page - 1) * PAGE)}>Before</button>
      <span>{page * PAGE + 1} to {page * PAGE + shown.length} of {posts.length}</span>
      <button class="btn" disabled={(page + 1) * PAGE >= posts.length} onclick={() => pick((page + 1) * PAGE)}
        >After</button
      >
    </div>
  {/if}
</div>
