<script lang="ts">
  // Two windows changed the same fields: each is shown with both values, and
  // nothing is chosen beforehand.
  import { AlertDialog } from 'bits-ui'
  import { go } from '../lib/router'
  import type { Clash } from '../gen/api'
  import { names } from '../lib/doc'
  import type { Session } from '../lib/session.svelte'
  import { short } from '../lib/tape'
  import * as msg from '../gen/messages'

  let { session }: { session: Session } = $props()
  const theirs = $derived(session.store.theirs)
  const when = new Intl.DateTimeFormat(undefined, { timeStyle: 'medium' })
  let chosen = $state<Record<string, 'mine' | 'theirs'>>({})
  const open = $derived(session.store.clashes.filter((c) => !chosen[c.path]).length)
  $effect(() => {
    if (!theirs) chosen = {}
  })

  /** A value as it is said: a number is a length, as nearly all of a job's are. */
  function shown(v: unknown): string {
    if (v === undefined || v === null) return msg.conflict_taken_away
    if (typeof v === 'number') return short(v, session.units)
    if (typeof v === 'string') return v
    if (typeof v === 'boolean') return v ? 'yes' : 'no'
    if (Array.isArray(v)) return `${v.length} entries`
    return 'changed'
  }
  const where = (c: Clash) => {
    const [lines, , runs, id] = names(c.path)
    const r = lines === 'lines' && runs === 'runs' && session.plan.runs.find((r) => r.id === id)
    return r ? `, ${r.name || r.id}` : ''
  }
</script>

<AlertDialog.Root open={theirs !== null}>
  <AlertDialog.Portal>
    <AlertDialog.Overlay class="fixed inset-0 z-40 bg-black/50" />
    <AlertDialog.Content
      escapeKeydownBehavior="ignore"
      class="fixed top-1/2 left-1/2 z-50 max-h-[90dvh] w-[min(38rem,calc(100vw-1.5rem))] -translate-x-1/2 -translate-y-1/2 overflow-auto border border-ink bg-sheet p-5 text-ink"
    >
      <AlertDialog.Title class="text-xl font-bold"
        >{msg.conflict_another_window_changed_the_same}</AlertDialog.Title
      >
      <AlertDialog.Description class="mt-2 leading-snug">
        {#if theirs}
          {msg.conflict_there_at({ v1: when.format(new Date(theirs.savedAt)) })}
          <strong>{theirs.what}</strong>{msg.conflict_everything_else_is_merged_nothing}
        {/if}
      </AlertDialog.Description>
      <div class="mt-4 grid gap-3" data-testid="clashes">
        {#each session.store.clashes as c (c.path)}
          <fieldset class="border border-line p-2">
            <legend class="px-1 font-semibold">{session.fieldName(c.path)}{where(c)}</legend>
            <div class="grid gap-2 sm:grid-cols-2">
              {#each [{ id: 'mine' as const, name: msg.conflict_here, value: c.mine }, { id: 'theirs' as const, name: msg.conflict_in_the_other_window, value: c.theirs }] as side (side.id)}
                <label class="flex min-h-11 items-center gap-2 border border-line px-2">
                  <input
                    type="radio"
                    name={c.path}
                    checked={chosen[c.path] === side.id}
                    onchange={() => (chosen[c.path] = side.id)}
                  />
                  <span>{side.name}: <strong>{shown(side.value)}</strong></span>
                </label>
              {/each}
            </div>
          </fieldset>
        {/each}
      </div>
      <div class="mt-4 grid gap-2">
        {#if session.store.clashes.length}
          <button
            class="btn btn-main"
            disabled={open > 0}
            onclick={() => session.store.keep(session.store.clashes.filter((c) => chosen[c.path] === 'mine'))}
            >{open ? msg.conflict_choose_more({ open }) : msg.conflict_save_what_is_chosen}</button
          >
        {/if}
        <button class="btn" onclick={() => session.store.takeTheirs()}
          >{msg.conflict_take_theirs_drop_my_change}</button
        >
        <button class="btn" onclick={async () => go(`/jobs/${await session.store.keepCopy()}`)}
          >{msg.conflict_keep_mine_as_a_job}</button
        >
      </div>
    </AlertDialog.Content>
  </AlertDialog.Portal>
</AlertDialog.Root>
