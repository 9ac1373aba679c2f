<script lang="ts">
  // What was changed, the newest first, and the way back to any of it.
  import { untrack } from 'svelte'
  import { Dialog } from 'bits-ui'
  import Pin from '@lucide/svelte/icons/pin'
  import type { RevisionSummary } from '../gen/api'
  import { api } from '../lib/api'
  import type { Session } from '../lib/session.svelte'
  import * as msg from '../gen/messages'

  let { session, onclose }: { session: Session; onclose: () => void } = $props()
  let open = $state(true)
  let history = $state.raw<RevisionSummary[] | null>(null)
  let more = $state(false)
  const when = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'medium' })
  $effect(() => {
    if (open) untrack(() => void read())
  })

  async function read() {
    history = null
    await older()
  }
  /** The next page, under what is shown. */
  async function older() {
    const page = await api.history(session.id, history?.at(-1)?.number).catch(() => null)
    history = [...(history ?? []), ...(page?.revisions ?? [])]
    more = page?.more ?? false
  }

  async function pin(r: RevisionSummary) {
    const pinned = !r.pinned
    if (
      await api.pin(session.id, r.number, pinned).then(
        () => true,
        () => false,
      )
    )
      history = history?.map((o) => (o.number === r.number ? { ...o, pinned } : o)) ?? null
  }
</script>

<Dialog.Root bind:open onOpenChange={(is) => is || onclose()}>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-40 bg-black/50" />
    <Dialog.Content
      class="fixed top-1/2 left-1/2 z-50 flex max-h-[85dvh] w-[min(34rem,calc(100vw-1.5rem))] -translate-x-1/2 -translate-y-1/2 flex-col border border-ink bg-sheet text-ink"
    >
      <Dialog.Title class="px-5 pt-4 text-xl font-bold">{msg.common_history}</Dialog.Title>
      <p class="px-5 pb-3 text-pencil">{msg.history_going_back_adds_a_revision}</p>
      <ol class="min-h-0 flex-1 overflow-auto border-y border-rule">
        {#if !history}<li class="p-5 text-pencil">{msg.common_reading}</li>{/if}
        {#each history ?? [] as r (r.number)}
          <li class="flex items-center gap-3 border-b border-rule px-5 py-1.5 last:border-0">
            <span class="w-8 text-right text-pencil">{r.number}</span>
            <span class="min-w-0 flex-1 leading-snug">
              <span class="font-semibold">{r.what}</span>
              <span class="block text-[0.9rem] text-pencil">{when.format(new Date(r.savedAt))}</span>
            </span>
            <button
              class="btn btn-plain btn-icon {r.pinned ? 'text-mallow' : 'text-pencil'}"
              aria-pressed={r.pinned}
              aria-label={msg.history_keep_revision_however_old_it({ v1: r.number })}
              title={msg.history_keep_it_however_old_it}
              onclick={() => pin(r)}><Pin size={18} fill={r.pinned ? 'currentColor' : 'none'} /></button
            >
            {#if r.current}
              <span class="font-semibold text-mallow">{msg.common_current}</span>
            {:else}
              <button
                class="btn"
                onclick={() => {
                  onclose()
                  void session.store.restore(r.number)
                }}
                >{msg.common_go_back}<span class="sr-only">
                  {msg.common_to_revision({ v1: r.number })}</span
                ></button
              >
            {/if}
          </li>
        {/each}
        {#if more}<li class="p-3 text-center">
            <button class="btn" onclick={older}>{msg.history_older}</button>
          </li>{/if}
      </ol>
      <div class="p-3 text-right"><Dialog.Close class="btn">{msg.common_close}</Dialog.Close></div>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
