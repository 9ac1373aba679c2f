<script lang="ts">
  // A photograph of a post: small, large when it is tapped, and the way to delete it for good.
  import { Dialog } from 'bits-ui'
  import { api } from '../../lib/api'
  import { photoAt } from '../../lib/photo'
  import type { Session } from '../../lib/session.svelte'
  import * as msg from '../../gen/messages'

  let { session, id, label, size }: { session: Session; id: string; label: string; size: string } = $props()
  const at = $derived(photoAt(session.id, id))
  let gone = $state(false)
  let open = $state(false)
  let asked = $state(false)
  let trouble = $state('')

  async function remove() {
    try {
      await api.deletePhoto(session.id, id)
      gone = true
      open = false
    } catch (e) {
      trouble = e instanceof Error ? e.message : String(e)
    }
  }
</script>

{#if gone}
  <span class="py-1 text-pencil">{msg.photo_deleted}</span>
{:else}
  <Dialog.Root bind:open onOpenChange={() => (asked = false)}>
    <Dialog.Trigger class="flex-none"
      ><img
        class="{size} border border-line object-cover"
        loading="lazy"
        alt={msg.log_photo_of({ label })}
        src={at}
        onerror={() => (gone = true)}
      /></Dialog.Trigger
    >
    <Dialog.Portal>
      <Dialog.Overlay class="fixed inset-0 z-40 bg-black/60" />
      <Dialog.Content
        class="fixed top-1/2 left-1/2 z-50 flex max-h-[92dvh] w-max max-w-[calc(100vw-1rem)] -translate-x-1/2 -translate-y-1/2 flex-col border border-ink bg-sheet text-ink"
      >
        <Dialog.Title class="px-4 py-2 font-bold">{msg.log_photo_of({ label })}</Dialog.Title>
        <img class="min-h-0 flex-1 object-contain" alt="" src={at} />
        {#if asked}<p class="max-w-prose px-4 pt-3">{msg.photo_delete_says}</p>{/if}
        {#if trouble}<p class="px-4 pt-2 text-stop" role="alert">{trouble}</p>{/if}
        <div class="flex flex-wrap justify-end gap-2 p-3">
          {#if asked}
            <button class="btn" onclick={() => (asked = false)}>{msg.photo_keep}</button>
            <button class="btn border-stop text-stop" onclick={remove}>{msg.photo_delete_for_good}</button>
          {:else}
            <button class="btn" onclick={() => (asked = true)}>{msg.photo_delete}</button>
            <Dialog.Close class="btn btn-main">{msg.common_close}</Dialog.Close>
          {/if}
        </div>
      </Dialog.Content>
    </Dialog.Portal>
  </Dialog.Root>
{/if}
