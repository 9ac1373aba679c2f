<script lang="ts">
  import { Popover } from 'bits-ui'
  import Download from '@lucide/svelte/icons/download'
  import Printer from '@lucide/svelte/icons/printer'
  import HistoryIcon from '@lucide/svelte/icons/history'
  import Redo2 from '@lucide/svelte/icons/redo-2'
  import Ruler from '@lucide/svelte/icons/ruler'
  import Undo2 from '@lucide/svelte/icons/undo-2'
  import type { Session } from '../lib/session.svelte'
  import Later from '../parts/Later.svelte'

  let { session }: { session: Session } = $props()
  let showHistory = $state(false)
  const states = {
    looking: 'looking for newer changes',
    saved: 'saved',
    saving: 'saving',
    gone: 'not saved yet',
    conflict: 'not saved yet',
    invalid: 'not saved',
  }
  function rename(e: Event & { currentTarget: HTMLInputElement }) {
    const name = e.currentTarget.value.trim()
    if (!name) e.currentTarget.value = session.doc.name
    else if (name !== session.doc.name) session.commit([{ path: '/name', value: name }], `Named ${name}`)
  }

  /** The job document as a file, as it stands here. */
  function save() {
    const file = new Blob([JSON.stringify(session.doc, null, 2) + '\n'], { type: 'application/json' })
    const a = document.createElement('a')
    a.href = URL.createObjectURL(file)
    a.download = `${session.doc.name.replace(/[^\p{L}\p{N}]+/gu, '-').replace(/^-|-$/g, '') || 'job'}.json`
    a.click()
    URL.revokeObjectURL(a.href)
  }
</script>

<h1 class="sr-only">{session.doc.name}</h1>
<input
  class="min-h-11 min-w-16 flex-1 truncate border border-transparent bg-transparent px-2 text-[1.05rem] font-semibold hover:border-line sm:max-w-96"
  aria-label="Name of the job"
  maxlength="120"
  value={session.doc.name}
  onchange={rename}
  onkeydown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
/>
<span
  class="px-1 text-[0.9rem] whitespace-nowrap max-sm:sr-only {session.store.saving === 'saved' ||
  session.store.saving === 'looking' ||
  session.store.saving === 'saving'
    ? 'text-pencil'
    : 'font-semibold text-stop'}"
  role="status"
  data-saving={session.store.saving}
  data-planned={session.caughtUp && session.advised}
  data-drawn={session.drawings.settled}>{states[session.store.saving]}</span
>
<span class="flex-1 max-sm:hidden"></span>
<button
  class="btn btn-plain btn-icon"
  aria-label="Undo"
  disabled={!session.store.canUndo}
  onclick={() => session.store.undo()}><Undo2 size={20} /></button
>
<button
  class="btn btn-plain btn-icon"
  aria-label="Redo"
  disabled={!session.store.canRedo}
  onclick={() => session.store.redo()}><Redo2 size={20} /></button
>
<button class="btn btn-plain btn-icon" aria-label="History" onclick={() => (showHistory = true)}
  ><HistoryIcon size={20} /></button
>
<button
  class="btn btn-plain btn-icon"
  aria-label="Print and files"
  onclick={() => (session.nav.printing = true)}><Printer size={20} /></button
>
<button
  class="btn btn-plain btn-icon max-sm:hidden"
  aria-label="Save the job document as a file"
  onclick={save}><Download size={20} /></button
>
<Popover.Root>
  <Popover.Trigger class="btn btn-plain btn-icon" aria-label="Tape and units"
    ><Ruler size={20} /></Popover.Trigger
  >
  <Popover.Portal>
    <Popover.Content
      class="z-40 grid w-80 max-w-[calc(100vw-1rem)] gap-4 border border-ink bg-sheet p-4 text-ink shadow-lg"
      sideOffset={6}
      collisionPadding={8}
      role="dialog"
      aria-label="Tape and units"
    >
      <Later load={() => import('./Tape.svelte')} name="Tape and units" props={{ session }} />
    </Popover.Content>
  </Popover.Portal>
</Popover.Root>
<!-- What is opened now and then is loaded when it is first opened. -->
{#if session.nav.printing}
  <Later load={() => import('../print/PrintPanel.svelte')} name="Printing" props={{ session }} />
{/if}
{#if showHistory}
  <Later
    load={() => import('./History.svelte')}
    name="What was saved"
    props={{ session, onclose: () => (showHistory = false) }}
  />
{/if}
