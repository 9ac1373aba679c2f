<script lang="ts">
  // What was found of a day, with its ways out one tap each.
  import type { Finding, Remedy } from '../gen/api'
  import { fresh as whenFresh } from '../lib/answer.svelte'
  import { tone } from '../lib/findings'
  import type { Session } from '../lib/session.svelte'
  import { say } from '../lib/say'
  import Words from '../parts/Words.svelte'
  import * as msg from '../gen/messages'

  // Ways out of another state of the job than the one that stands wait for those of this one.
  let { session, findings, fresh }: { session: Session; findings: Finding[]; fresh: boolean } = $props()
  const units = $derived(session.units)
  const words = (r: Remedy) => r.says.map((p) => say(p, units)).join('')
  async function take(f: Finding, r: Remedy) {
    const says = words(r)
    const there = await whenFresh(() => fresh)
    const now = findings
      .filter((o) => o.rule === f.rule)
      .flatMap((o) => o.remedies ?? [])
      .find((o) => words(o) === says)
    if (there && now) session.commit(now.edits, says)
    else session.store.notice = msg.finding_list_no_longer_a_way_out({ says })
  }
</script>

{#each findings as f, i (f.rule + i)}
  <div class="mt-2 border-l-4 px-3 py-2 {tone[f.severity]}" data-finding={f.rule}>
    <Words says={f.says} {units} />
    {#if f.remedies?.length}
      <div class="mt-1.5 flex flex-wrap gap-2">
        {#each f.remedies as r, k (k)}
          <button class="btn" onclick={() => take(f, r)}><Words says={r.says} {units} /></button>
        {/each}
      </div>
    {/if}
  </div>
{/each}
