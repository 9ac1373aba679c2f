<script lang="ts">
  // What each stage is for, what the words mean, and the keys that there are.
  import { Dialog } from 'bits-ui'
  import X from '@lucide/svelte/icons/x'
  import { api } from '../lib/api'
  import type { Help } from '../gen/api'
  import { layout } from '../lib/layout.svelte'
  import type { Session } from '../lib/session.svelte'
  import { stages } from '../lib/stages'
  import * as msg from '../gen/messages'

  let { session }: { session: Session } = $props()
  const groups: { name: string; keys: [key: string, does: string][] }[] = [
    {
      name: msg.keys_anywhere_while_nothing_is_typed,
      keys: [
        [`1 to ${stages.length}`, stages.map((s) => s.name).join(', ')],
        [', and .', msg.keys_drawing_lower_higher],
        ['f', 'findings'],
        [msg.keys_ctrl_z_ctrl_y, msg.keys_undo_redo],
        ['?', msg.keys_this_page],
      ],
    },
    {
      name: msg.keys_in_the_drawing_from_the,
      keys: [
        ['← →', msg.keys_post_before_next_post],
        ['Home, End', msg.keys_first_post_last_post],
        ['+ and −', 'zoom'],
      ],
    },
    {
      name: msg.keys_on_what_can_be_dragged,
      keys: [
        ['arrows', msg.keys_one_tape_mark],
        [msg.keys_shift_and_arrows, msg.keys_sixteen_tape_marks],
        [msg.keys_esc, msg.keys_give_the_drag_up],
      ],
    },
    {
      name: msg.keys_in_an_entry,
      keys: [
        ['↑ ↓', msg.keys_one_tape_mark_more_less],
        ['Enter', msg.keys_take_it],
        [msg.keys_esc, msg.keys_leave_it_as_it_was],
      ],
    },
    {
      name: msg.keys_on_the_site_map,
      keys: [
        ['← →', msg.keys_run_before_next_run],
        ['+ − 0', msg.keys_zoom_fit],
      ],
    },
  ]
  let help = $state.raw<Help | null>(null)
  $effect(() => {
    api.help().then(
      (h) => (help = h),
      () => undefined, // the keys are here all the same
    )
  })
  /** The stage that is worked on comes first. */
  const about = $derived(
    help
      ? [...help.stages].sort(
          (a, b) => Number(b.id === session.nav.stage) - Number(a.id === session.nav.stage),
        )
      : [],
  )
  let sought = $state('')
  const words = $derived(
    (help?.terms ?? []).filter((t) =>
      `${t.term} ${t.means}`.toLowerCase().includes(sought.trim().toLowerCase()),
    ),
  )
</script>

<Dialog.Root bind:open={session.nav.keys}>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-40 bg-black/40" />
    <Dialog.Content
      class="fixed inset-2 z-50 m-auto h-fit max-h-[calc(100dvh-1rem)] max-w-2xl overflow-auto border border-ink bg-paper p-4 text-ink shadow-lg"
    >
      <div class="flex items-center justify-between">
        <Dialog.Title class="text-[1.15rem] font-bold">{msg.help_and_keys}</Dialog.Title>
        <Dialog.Close class="btn btn-plain btn-icon" aria-label={msg.common_close}
          ><X size={20} /></Dialog.Close
        >
      </div>
      {#each about.slice(0, 1) as s (s.id)}
        <h3 class="mt-2 font-semibold">{s.name}</h3>
        <p class="max-w-prose">{s.about}</p>
      {/each}
      {#if help}
        <details class="mt-3 border-t border-rule pt-2">
          <summary class="min-h-11 cursor-pointer py-2 font-semibold">{msg.help_stages}</summary>
          <dl>
            {#each about.slice(1) as s (s.id)}
              <dt class="mt-2 font-semibold">{s.name}</dt>
              <dd class="max-w-prose">{s.about}</dd>
            {/each}
          </dl>
        </details>
        <details class="border-t border-rule pt-2">
          <summary class="min-h-11 cursor-pointer py-2 font-semibold">{msg.help_words}</summary>
          <input
            type="search"
            class="field max-w-xs"
            placeholder={msg.help_find_a_word}
            aria-label={msg.help_find_a_word}
            bind:value={sought}
          />
          {#if !words.length}<p class="mt-2 text-pencil">{msg.help_no_such_word}</p>{/if}
          <dl>
            {#each words as t (t.term)}
              <dt class="mt-2 font-semibold">{t.term}</dt>
              <dd class="max-w-prose">{t.means}</dd>
            {/each}
          </dl>
        </details>
      {/if}
      {#each groups as g (g.name)}
        <h3 class="mt-3 font-semibold">{g.name}</h3>
        <dl class="mt-1 grid grid-cols-[10rem_1fr] gap-x-4 gap-y-1">
          {#each g.keys as [key, does] (key)}
            <dt class="font-bold">{key}</dt>
            <dd>{does}</dd>
          {/each}
        </dl>
      {/each}
      <label class="mt-4 flex min-h-11 items-center gap-2 border-t border-rule pt-2">
        <input
          type="checkbox"
          class="size-5 accent-(--mallow)"
          checked={layout.keys}
          onchange={(e) => layout.set({ keys: e.currentTarget.checked })}
        />
        {msg.keys_single_letters_and_digits_are}
      </label>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
