<script lang="ts">
  // What was found of a day, with its ways out one tap each.
  import type { Finding, Remedy } from '../gen/api'
  import { take } from '../lib/answer.svelte'
  import { tone } from '../lib/findings'
  import type { Session } from '../lib/session.svelte'
  import { say } from '../lib/say'
  import Words from '../parts/Words.svelte'

  // Ways out of another state of the job than the one that stands wait for those of this one.
  let { session, findings, fresh }: { session: Session; findings: Finding[]; fresh: boolean } = $props()
  const units = $derived(session.units)
  const words = (r: Remedy) => r.says.map((p) => say(p, units)).join('')
  const pick = (f: Finding, r: Remedy) =>
    take(
      session,
      () => fresh,
      () =>
        findings
          .filter((o) => o.rule === f.rule)
          .flatMap((o) => o.remedies ?? [])
          .find((o) => words(o) === words(r)),
      words(r),
    )
</script>

{#each findings as f, i (f.rule + i)}
  <div class="mt-2 border-l-4 px-3 py-2 {tone[f.severity]}" data-finding={f.rule}>
    <Words says={f.says} {units} />
    {#if f.remedies?.length}
      <div class="mt-1.5 flex flex-wrap gap-2">
        {#each f.remedies as r, k (k)}
          <button class="btn" onclick={() => pick(f, r)}><Words says={r.says} {units} /></button>
        {/each}
      </div>
    {/if}
  </div>
{/each}
