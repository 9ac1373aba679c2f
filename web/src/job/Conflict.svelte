<script lang="ts">
  import { AlertDialog } from 'bits-ui'
  import { push } from 'svelte-spa-router'
  import type { Session } from '../lib/session.svelte'

  let { session }: { session: Session } = $props()
  const theirs = $derived(session.theirs)
  const when = new Intl.DateTimeFormat(undefined, { timeStyle: 'medium' })
</script>

<AlertDialog.Root open={theirs !== null}>
  <AlertDialog.Portal>
    <AlertDialog.Overlay class="fixed inset-0 z-40 bg-black/50" />
    <AlertDialog.Content
      escapeKeydownBehavior="ignore"
      class="fixed top-1/2 left-1/2 z-50 w-[min(34rem,calc(100vw-1.5rem))] -translate-x-1/2 -translate-y-1/2 border border-ink bg-sheet p-5 text-ink"
    >
      <AlertDialog.Title class="text-xl font-bold">This job was saved in another window</AlertDialog.Title>
      <AlertDialog.Description class="mt-2 leading-snug">
        {#if theirs}
          There, at {when.format(new Date(theirs.savedAt))}: <strong>{theirs.what}</strong>. Your change here
          is kept but not saved. Taking theirs drops it; either of the other two keeps it, and theirs stays in
          the history.
        {/if}
      </AlertDialog.Description>
      <div class="mt-4 grid gap-2">
        <button class="btn btn-main" onclick={() => session.keepMine()}>Save mine on top of theirs</button>
        <button class="btn" onclick={() => session.takeTheirs()}>Take theirs, drop my change</button>
        <button class="btn" onclick={async () => push(`/jobs/${await session.keepCopy()}`)}
          >Keep mine as a job of its own</button
        >
      </div>
    </AlertDialog.Content>
  </AlertDialog.Portal>
</AlertDialog.Root>
