<script lang="ts">
  // The parts of a stage's bench, one open at a time: a column beside the work,
  // or on a narrow screen a row that scrolls.
  import { Tabs } from 'bits-ui'
  import { MediaQuery } from 'svelte/reactivity'
  import type { Snippet } from 'svelte'
  import { layout } from '../lib/layout.svelte'

  interface Props {
    label: string
    parts: readonly { id: string; name: string; note: string }[]
    value: string
    onpick: (id: string) => void
    /** What stands over the work whichever part is open. */
    head?: Snippet
    children: Snippet
  }
  let { label, parts, value, onpick, head, children }: Props = $props()
  const wide = new MediaQuery('(min-width: 64rem)')
  let work = $state<HTMLElement>()

  function pick(id: string) {
    layout.makeRoom()
    onpick(id)
    // What was clicked shows its beginning.
    work?.closest('[data-bench]')?.scrollTo({ top: 0 })
  }
</script>

<Tabs.Root
  bind:value={() => value, pick}
  activationMode="automatic"
  orientation={wide.current ? 'vertical' : 'horizontal'}
  class="lg:grid lg:grid-cols-[9.5rem_minmax(0,1fr)]"
>
  <div class="cue min-w-0">
    <Tabs.List
      class="flex overflow-x-auto border-line max-lg:border-b lg:sticky lg:top-0 lg:h-full lg:flex-col lg:border-r"
      aria-label={label}
    >
      {#each parts as p (p.id)}
        <Tabs.Trigger
          value={p.id}
          class="min-h-11 flex-none px-3 text-left leading-tight font-semibold whitespace-nowrap data-[state=active]:bg-ink data-[state=active]:text-paper data-[state=inactive]:hover:bg-sheet max-lg:data-[state=inactive]:text-pencil lg:py-1.5 lg:whitespace-normal"
          >{p.name}{#if p.note}<span class="font-normal max-lg:ml-1.5 lg:block">{p.note}</span
            >{/if}</Tabs.Trigger
        >
      {/each}
    </Tabs.List>
  </div>
  <div class="min-w-0 p-3 sm:p-4 lg:py-3" bind:this={work} data-open-part={value}>
    {@render head?.()}
    {@render children()}
  </div>
</Tabs.Root>
