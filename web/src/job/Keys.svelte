<script lang="ts">
  // The keys that there are, and the pointer's ways besides.
  import { Dialog } from 'bits-ui'
  import X from '@lucide/svelte/icons/x'
  import { layout } from '../lib/layout.svelte'
  import type { Session } from '../lib/session.svelte'
  import { stages } from '../lib/stages'

  let { session }: { session: Session } = $props()
  const groups: { name: string; keys: [key: string, does: string][] }[] = [
    {
      name: 'Anywhere, while nothing is typed',
      keys: [
        [`1 to ${stages.length}`, stages.map((s) => s.name).join(', ')],
        [', and .', 'drawing lower, higher'],
        ['f', 'findings'],
        ['Ctrl Z, Ctrl Y', 'undo, redo'],
        ['?', 'this page'],
      ],
    },
    {
      name: 'In the drawing from the side',
      keys: [
        ['← →', 'post before, next post'],
        ['Home, End', 'first post, last post'],
        ['+ and −', 'zoom'],
      ],
    },
    {
      name: 'On what can be dragged: a gate, a post, the string, the ground, a corner',
      keys: [
        ['arrows', 'one tape mark'],
        ['Shift and arrows', 'sixteen tape marks'],
        ['Esc', 'give the drag up'],
      ],
    },
    {
      name: 'In an entry',
      keys: [
        ['↑ ↓', 'one tape mark more, less'],
        ['Enter', 'take it'],
        ['Esc', 'leave it as it was'],
      ],
    },
    {
      name: 'On the site map',
      keys: [
        ['← →', 'run before, next run'],
        ['+ − 0', 'zoom, fit'],
      ],
    },
  ]
</script>

<Dialog.Root bind:open={session.nav.keys}>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-40 bg-black/40" />
    <Dialog.Content
      class="fixed inset-2 z-50 m-auto h-fit max-h-[calc(100dvh-1rem)] max-w-2xl overflow-auto border border-ink bg-paper p-4 text-ink shadow-lg"
    >
      <div class="flex items-center justify-between">
        <Dialog.Title class="text-[1.15rem] font-bold">Keys</Dialog.Title>
        <Dialog.Close class="btn btn-plain btn-icon" aria-label="Close"><X size={20} /></Dialog.Close>
      </div>
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
        Single letters and digits are keys. Turn this off if you speak to your device or press keys by mistake.
      </label>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
