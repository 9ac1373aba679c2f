<script lang="ts">
  // The parts of a stage's bench, one open at a time.
  import { Tabs } from 'bits-ui'
  import type { Snippet } from 'svelte'

  interface Props {
    label: string
    parts: readonly { id: string; name: string; note: string }[]
    value: string
    onpick: (id: string) => void
    children: Snippet
  }
  let { label, parts, value, onpick, children }: Props = $props()
</script>

<Tabs.Root bind:value={() => value, onpick} activationMode="automatic">
  <Tabs.List class="mb-4 flex flex-wrap gap-1.5" aria-label={label}>
    {#each parts as p (p.id)}
      <Tabs.Trigger
        value={p.id}
        class="min-h-11 border px-3 font-semibold data-[state=active]:border-ink data-[state=active]:bg-ink data-[state=active]:text-paper data-[state=inactive]:border-line data-[state=inactive]:bg-sheet"
        >{p.name}{#if p.note}<span class="ml-1.5 font-normal">{p.note}</span>{/if}</Tabs.Trigger
      >
    {/each}
  </Tabs.List>
  {@render children()}
</Tabs.Root>
