<script lang="ts">
  import { Popover } from 'bits-ui'
  import Download from '@lucide/svelte/icons/download'
  import Printer from '@lucide/svelte/icons/printer'
  import HistoryIcon from '@lucide/svelte/icons/history'
  import Redo2 from '@lucide/svelte/icons/redo-2'
  import Ruler from '@lucide/svelte/icons/ruler'
  import Hand from '@lucide/svelte/icons/hand'
  import Keyboard from '@lucide/svelte/icons/keyboard'
  import Menu from '@lucide/svelte/icons/menu'
  import Moon from '@lucide/svelte/icons/moon'
  import Shovel from '@lucide/svelte/icons/shovel'
  import Sun from '@lucide/svelte/icons/sun'
  import Undo2 from '@lucide/svelte/icons/undo-2'
  import { layout } from '../lib/layout.svelte'
  import { theme } from '../lib/theme.svelte'
  import type { Session } from '../lib/session.svelte'
  import Later from '../parts/Later.svelte'
  import RunBar from './RunBar.svelte'
  import * as msg from '../gen/messages'

  let { session }: { session: Session } = $props()
  let showHistory = $state(false)
  let more = $state(false)
  const open = $derived(session.plan.before.checks.filter((c) => !c.done))
  /** The menu has been used: it closes. */
  function then(act: () => unknown) {
    more = false
    void act()
  }
  const states = {
    looking: msg.job_bar_looking_for_newer_changes,
    saved: 'saved',
    saving: 'saving',
    gone: msg.job_bar_not_saved_yet,
    conflict: msg.job_bar_not_saved_yet,
    invalid: msg.job_bar_not_saved,
  }
  function rename(e: Event & { currentTarget: HTMLInputElement }) {
    const name = e.currentTarget.value.trim()
    if (!name) e.currentTarget.value = session.doc.name
    else if (name !== session.doc.name)
      session.commit([{ path: '/name', value: name }], msg.job_bar_named({ name }))
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
  class="min-h-11 min-w-28 flex-1 truncate border border-transparent bg-transparent px-1 text-[1.05rem] font-semibold hover:border-line lg:min-w-40 lg:max-w-60 lg:px-2"
  aria-label={msg.common_name_of_the_job}
  maxlength="120"
  value={session.doc.name}
  onchange={rename}
  onkeydown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
/>
{#if session.plan.runs.length > 1}<div class="min-w-0 max-lg:hidden"><RunBar {session} /></div>{/if}
<span class="flex-1 max-lg:hidden"></span>
{#if !session.plan.before.ready}
  <button
    class="flex min-h-11 flex-none items-center gap-1.5 border-2 border-stop bg-stop-wash px-2 text-[0.92rem] leading-tight font-bold text-stop"
    data-testid="not-cleared"
    aria-label={msg.job_bar_not_cleared_to_dig_to({ count: open.length })}
    title={msg.job_bar_not_cleared_to_dig_still({ v1: open.map((c) => c.name.toLowerCase()).join(', ') })}
    onclick={() => {
      session.nav.parts.walk = 'before'
      session.nav.stage = 'walk'
      layout.makeRoom()
    }}
    ><Shovel size={18} aria-hidden="true" /><span class="max-sm:hidden">{msg.job_bar_not_cleared_to_dig}</span
    ></button
  >
{/if}
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
<button
  class="btn btn-plain btn-icon"
  aria-label={msg.common_undo}
  disabled={!session.store.canUndo}
  onclick={() => session.store.undo()}><Undo2 size={20} /></button
>
<button
  class="btn btn-plain btn-icon max-sm:hidden"
  aria-label={msg.job_bar_redo}
  disabled={!session.store.canRedo}
  onclick={() => session.store.redo()}><Redo2 size={20} /></button
>
<button
  class="btn btn-plain btn-icon max-sm:hidden"
  aria-label={msg.common_print_and_files}
  onclick={() => (session.nav.printing = true)}><Printer size={20} /></button
>
<button
  class="btn btn-plain btn-icon max-xl:hidden"
  aria-label={msg.common_history}
  onclick={() => (showHistory = true)}><HistoryIcon size={20} /></button
>
<button
  class="btn btn-plain btn-icon max-xl:hidden"
  aria-label={msg.job_bar_save_the_job_document_as}
  onclick={save}><Download size={20} /></button
>
<Popover.Root>
  <Popover.Trigger class="btn btn-plain btn-icon max-xl:hidden" aria-label={msg.job_bar_tape_and_units}
    ><Ruler size={20} /></Popover.Trigger
  >
  <Popover.Portal>
    <Popover.Content
      class="z-40 grid w-80 max-w-[calc(100vw-1rem)] gap-4 border border-ink bg-sheet p-4 text-ink shadow-lg"
      sideOffset={6}
      collisionPadding={8}
      role="dialog"
      aria-label={msg.job_bar_tape_and_units}
    >
      <Later load={() => import('./Tape.svelte')} name={msg.job_bar_tape_and_units} props={{ session }} />
    </Popover.Content>
  </Popover.Portal>
</Popover.Root>
<Popover.Root bind:open={more}>
  <Popover.Trigger class="btn btn-plain btn-icon" aria-label={msg.job_bar_more}
    ><Menu size={22} /></Popover.Trigger
  >
  <Popover.Portal>
    <Popover.Content
      class="z-40 grid max-h-[min(85dvh,var(--bits-popover-content-available-height))] w-80 max-w-[calc(100vw-1rem)] gap-1.5 overflow-auto border border-ink bg-sheet p-3 text-ink shadow-lg"
      sideOffset={6}
      collisionPadding={8}
      role="dialog"
      aria-label={msg.job_bar_more}
    >
      <button class="btn justify-start" onclick={() => then(() => (session.nav.printing = true))}
        ><Printer size={18} />{msg.common_print_and_files}</button
      >
      <button
        class="btn justify-start sm:hidden"
        disabled={!session.store.canRedo}
        onclick={() => then(() => session.store.redo())}><Redo2 size={18} />{msg.job_bar_redo}</button
      >
      <button class="btn justify-start" onclick={() => then(() => (showHistory = true))}
        ><HistoryIcon size={18} />{msg.common_history}</button
      >
      <button class="btn justify-start" onclick={() => then(save)}
        ><Download size={18} />{msg.job_bar_save_the_job_as_a}</button
      >
      <button
        class="btn justify-start"
        aria-pressed={layout.site}
        onclick={() => layout.set({ site: !layout.site })}
        ><Hand size={18} />{msg.job_bar_gloves_and_sun({
          v1: layout.site ? msg.job_bar_on : msg.job_bar_off,
        })}</button
      >
      <button class="btn justify-start" onclick={() => theme.toggle()}
        >{#if theme.current === 'dark'}<Sun size={18} />{msg.common_light_colors}{:else}<Moon
            size={18}
          />{msg.common_dark_colors}{/if}</button
      >
      <button class="btn justify-start" onclick={() => then(() => (session.nav.keys = true))}
        ><Keyboard size={18} />{msg.help_and_keys}</button
      >
      <div class="grid gap-3 border-t border-rule pt-2">
        <Later load={() => import('./Tape.svelte')} name={msg.job_bar_tape_and_units} props={{ session }} />
      </div>
    </Popover.Content>
  </Popover.Portal>
</Popover.Root>
<!-- What is opened now and then is loaded when it is first opened. -->
{#if session.nav.printing}
  <Later load={() => import('../print/PrintPanel.svelte')} name={msg.job_bar_printing} props={{ session }} />
{/if}
{#if showHistory}
  <Later
    load={() => import('./History.svelte')}
    name={msg.job_bar_what_was_saved}
    props={{ session, onclose: () => (showHistory = false) }}
  />
{/if}
