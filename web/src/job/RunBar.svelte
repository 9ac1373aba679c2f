<script lang="ts">
  // The runs of the job, so that any is one tap away at every stage.
  import type { Session } from '../lib/session.svelte'
  import * as msg from '../gen/messages'

  let { session }: { session: Session } = $props()
  const shown = $derived(
    session.plan.runs.map((r) => ({
      r,
      line:
        session.plan.lines.length > 1 &&
        session.plan.lines.some((l) => session.plan.runs[l.first]?.id === r.id)
          ? session.plan.lines.find((l) => l.id === r.line)!.name || r.line
          : '',
    })),
  )
</script>

<nav
  class="flex items-center gap-1 overflow-x-auto bg-paper max-lg:border-b max-lg:border-line max-lg:px-2 max-lg:py-0.5"
  aria-label={msg.run_bar_runs}
>
  {#each shown as { r, line } (r.id)}
    {#if line}<span class="px-1 text-[0.9rem] whitespace-nowrap text-pencil">{line}:</span>{/if}
    <button
      class="min-h-11 flex-none border px-2 text-[0.95rem] font-semibold whitespace-nowrap lg:min-h-9 {r.id ===
      session.run.id
        ? 'border-mallow bg-mallow-wash text-ink'
        : 'border-transparent text-pencil hover:border-line'}"
      aria-pressed={r.id === session.run.id}
      onclick={() => session.pickRun(r.id)}>{r.name || r.id}</button
    >
  {/each}
</nav>
