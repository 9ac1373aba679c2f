<script lang="ts">
  // Every post at which something is to be decided.
  import type { View } from '../../drawing/view.svelte'
  import type { Log } from '../../gen/api'
  import { goTo } from '../../lib/log'
  import type { Session } from '../../lib/session.svelte'
  import Words from '../../parts/Words.svelte'
  import WaysAt from './WaysAt.svelte'
  import * as msg from '../../gen/messages'

  let { session, view, log }: { session: Session; view: View; log: Log } = $props()
  const units = $derived(session.units)
  const waiting = $derived(log.posts.filter((p) => p.deviations.some((d) => d.state === 'open')))
  let opened = $state('')

  const go = (run: string, post: string) => goTo(session, view, run, post)
</script>

<div class="grid max-w-3xl gap-3" data-testid="deciding">
  {#each log.findings.filter((f) => f.rule !== 'record-off') as f, i (i)}
    <p class="border-l-4 border-l-warn bg-sheet px-3 py-1.5"><Words says={f.says} {units} /></p>
  {/each}
  {#if !waiting.length}<p class="text-pencil">{msg.log_nothing_open}</p>{/if}
  {#each waiting as p (p.id)}
    <section class="grid gap-1.5 border-t border-rule pt-2" aria-label={p.label}>
      <div class="flex items-start gap-3">
        <button class="btn min-w-14 text-[1.2rem] font-bold" onclick={() => go(p.run, p.id)}>{p.label}</button
        >
        <div class="flex-1">
          {#each p.deviations.filter((d) => d.state === 'open') as d (d.fact)}<p>
              <Words says={d.says} {units} />
            </p>{/each}
        </div>
        <button
          class="btn"
          aria-expanded={opened === p.id}
          onclick={() => (opened = opened === p.id ? '' : p.id)}>{msg.log_what_to_do}</button
        >
      </div>
      {#if opened === p.id}<WaysAt {session} post={p.id} says />{/if}
    </section>
  {/each}
</div>
