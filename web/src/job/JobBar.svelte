<script lang="ts">
  import { Dialog, Popover } from 'bits-ui'
  import Download from '@lucide/svelte/icons/download'
  import Pin from '@lucide/svelte/icons/pin'
  import HistoryIcon from '@lucide/svelte/icons/history'
  import Redo2 from '@lucide/svelte/icons/redo-2'
  import Ruler from '@lucide/svelte/icons/ruler'
  import Undo2 from '@lucide/svelte/icons/undo-2'
  import type { RevisionSummary } from '../gen/api'
  import { api } from '../lib/api'
  import type { Session } from '../lib/session.svelte'
  import { short } from '../lib/tape'
  import Choice from '../parts/Choice.svelte'
  import Pick from '../parts/Pick.svelte'
  import PrintPanel from '../print/PrintPanel.svelte'

  let { session }: { session: Session } = $props()
  let history = $state.raw<RevisionSummary[] | null>(null)
  let showHistory = $state(false)
  const states = {
    looking: 'looking for newer changes',
    saved: 'saved',
    saving: 'saving',
    gone: 'not saved yet',
    conflict: 'not saved yet',
    invalid: 'not saved',
  }
  const when = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'medium' })

  async function openHistory() {
    showHistory = true
    history = null
    history = (await api.history(session.id).catch(() => null))?.revisions ?? []
  }

  async function pin(r: RevisionSummary) {
    history = (await api.pin(session.id, r.number, !r.pinned).catch(() => null))?.revisions ?? history
  }

  function rename(e: Event & { currentTarget: HTMLInputElement }) {
    const name = e.currentTarget.value.trim()
    if (!name) e.currentTarget.value = session.doc.name
    else if (name !== session.doc.name) session.commit([{ path: '/name', value: name }], `Named ${name}`)
  }

  function setSystem(system: string) {
    const smallestMark = session.catalogue.marks[system]![system === 'metric' ? 0 : 1]!
    session.commit(
      [{ path: '/units', value: { ...session.doc.units, system, smallestMark } }],
      `Printed in ${system}`,
    )
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
  class="px-1 text-[0.9rem] whitespace-nowrap max-sm:sr-only {session.saving === 'saved' ||
  session.saving === 'looking' ||
  session.saving === 'saving'
    ? 'text-pencil'
    : 'font-semibold text-stop'}"
  role="status"
  data-saving={session.saving}
  data-planned={session.caughtUp && session.advised}>{states[session.saving]}</span
>
<span class="flex-1 max-sm:hidden"></span>
<button
  class="btn btn-plain btn-icon"
  aria-label="Undo"
  disabled={!session.canUndo}
  onclick={() => session.undo()}><Undo2 size={20} /></button
>
<button
  class="btn btn-plain btn-icon"
  aria-label="Redo"
  disabled={!session.canRedo}
  onclick={() => session.redo()}><Redo2 size={20} /></button
>
<button class="btn btn-plain btn-icon" aria-label="History" onclick={openHistory}
  ><HistoryIcon size={20} /></button
>
<PrintPanel {session} />
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
      <Choice
        label="Printed in"
        value={session.doc.units.system}
        options={[
          { value: 'imperial', name: 'Feet and inches' },
          { value: 'metric', name: 'Metres' },
        ]}
        onpick={setSystem}
      />
      <Pick
        label="Smallest mark on the tape"
        value={String(session.doc.units.smallestMark)}
        options={(session.catalogue.marks[session.doc.units.system] ?? []).map((m) => ({
          value: String(m),
          name: short(m, { system: session.doc.units.system, smallestMark: m }),
        }))}
        onpick={(m) => session.commit([{ path: '/units/smallestMark', value: Number(m) }], 'Smallest mark')}
      />
      <p class="text-[0.9rem] text-pencil">
        Only printing changes. Every length is kept exactly, and either system can be typed at any time.
      </p>
    </Popover.Content>
  </Popover.Portal>
</Popover.Root>

<Dialog.Root bind:open={showHistory}>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-40 bg-black/50" />
    <Dialog.Content
      class="fixed top-1/2 left-1/2 z-50 flex max-h-[85dvh] w-[min(34rem,calc(100vw-1.5rem))] -translate-x-1/2 -translate-y-1/2 flex-col border border-ink bg-sheet text-ink"
    >
      <Dialog.Title class="px-5 pt-4 text-xl font-bold">History</Dialog.Title>
      <p class="px-5 pb-3 text-pencil">Going back adds a revision; nothing after it is lost.</p>
      <ol class="min-h-0 flex-1 overflow-auto border-y border-rule">
        {#if !history}<li class="p-5 text-pencil">Reading …</li>{/if}
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
              aria-label="Keep revision {r.number} however old it gets"
              title="Keep it however old it gets"
              onclick={() => pin(r)}><Pin size={18} fill={r.pinned ? 'currentColor' : 'none'} /></button
            >
            {#if r.current}
              <span class="font-semibold text-mallow">current</span>
            {:else}
              <button
                class="btn"
                onclick={() => {
                  showHistory = false
                  void session.restore(r.number)
                }}>Go back<span class="sr-only"> to revision {r.number}</span></button
              >
            {/if}
          </li>
        {/each}
      </ol>
      <div class="p-3 text-right"><Dialog.Close class="btn">Close</Dialog.Close></div>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
