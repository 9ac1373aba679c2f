<script lang="ts">
  // The order in which the fence is put together, with the checks crews do.
  import { BuiltRun } from '../../lib/built.svelte'
  import type { Session } from '../../lib/session.svelte'
  import { short } from '../../lib/tape'
  import * as msg from '../../gen/messages'

  let { session }: { session: Session } = $props()
  // svelte-ignore state_referenced_locally
  const asked = new BuiltRun(session)
  const spacers = $derived(
    (asked.built?.parts ?? [])
      .filter((p) => p.gap !== undefined && p.gap > 0.5)
      .map((p) => `${p.part.name.toLowerCase()} ${short(p.gap!, session.units)}`)
      .join(', '),
  )
  const steps = $derived([
    ...(spacers ? [msg.build_cut_spacers({ list: spacers })] : []),
    ...(asked.built?.steps ?? []),
  ])
</script>

{#if asked.refused}<p class="text-stop">{asked.refused}</p>{/if}
{#if asked.built}
  {#if asked.built.type}<h2 class="font-bold">{asked.built.type}</h2>{:else}<p class="text-pencil">
      {msg.build_no_type}
    </p>{/if}
  <ol class="mt-1 grid max-w-3xl list-decimal gap-1.5 pl-7">
    {#each steps as s, i (i)}<li class="leading-snug">{s}</li>{/each}
  </ol>
{/if}
