<script lang="ts">
  // The gates that can be put into the run, and where each would go.
  import { Popover } from 'bits-ui'
  import Plus from '@lucide/svelte/icons/plus'
  import type { Session } from '../../lib/session.svelte'
  import { fresh } from '../../lib/answer.svelte'
  import Words from '../../parts/Words.svelte'
  import * as msg from '../../gen/messages'

  let { session, onadded }: { session: Session; onadded: (id: string) => void } = $props()
  let open = $state(false)
  const offers = $derived(session.run.addGate)
  let added = $state('')
  // The gate is picked once the plan knows it.
  $effect(() => {
    if (added && session.run.gates.some((g) => g.id === added)) {
      onadded(added)
      added = ''
    }
  })
  /** One that is asked for while the last one is being planned is put where there is room then. */
  async function add(id: string) {
    open = false
    const there = await fresh(() => session.worded)
    const o = offers.find((g) => g.id === id)
    if (!there || !o || o.refused) return
    added = o.gate
    session.commit(o.edits, `${o.name} added`)
  }
</script>

<Popover.Root bind:open>
  <Popover.Trigger class="btn min-h-11" disabled={!offers.length}
    ><Plus size={18} aria-hidden="true" />{msg.add_gate_put_in_a_gate}</Popover.Trigger
  >
  <Popover.Portal>
    <Popover.Content
      sideOffset={4}
      collisionPadding={8}
      class="z-50 grid max-h-[min(70dvh,var(--bits-popover-content-available-height))] w-96 max-w-[92vw] gap-1.5 overflow-auto border border-ink bg-paper p-2 shadow-lg"
      aria-label={msg.add_gate_put_in_a_gate}
    >
      {#each offers as o (o.id)}
        <button
          class="min-h-11 border border-line bg-sheet px-2.5 py-1.5 text-left leading-tight disabled:opacity-70"
          disabled={!!o.refused}
          onclick={() => add(o.id)}
          ><span class="font-semibold">{o.name}</span><span class="mt-0.5 block text-[0.9rem] text-pencil"
            >{#if o.refused}{msg.add_gate_not_here({ refused: o.refused })}{:else}<Words
                says={o.says}
                units={session.units}
              />{/if}</span
          ></button
        >
      {/each}
    </Popover.Content>
  </Popover.Portal>
</Popover.Root>
