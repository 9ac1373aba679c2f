<script lang="ts">
  // What does not fit, in the words of the trade, with the ways out.
  import type { Remedy } from '../gen/api'
  import type { Session } from '../lib/session.svelte'
  import type { Stage } from '../lib/stages'
  import { bulk, number, short, small, tape } from '../lib/tape'
  import Words from '../parts/Words.svelte'

  let { session, stage }: { session: Session; stage: Stage } = $props()
  const found = $derived(session.plan.findings.filter((f) => f.stage === stage && f.severity !== 'missing'))
  const tone = {
    missing: '',
    cannot: 'border-l-stop bg-stop-wash',
    check: 'border-l-warn bg-warn-wash',
    note: 'border-l-line bg-sheet',
  }
  const word = { missing: '', cannot: 'Cannot be built so', check: 'Look before you dig', note: 'Note' }

  function says(r: Remedy): string {
    const u = session.units
    const print = { length: short, tape, small, bulk, number: (n: number) => number(n), text: () => '' }
    return r.says.map((p) => (p.kind === 'text' ? p.text : print[p.kind](p.value ?? 0, u))).join('')
  }
  const take = (r: Remedy) => session.commit(r.edits, says(r).split(':')[0]!)
</script>

{#each found as f (f.rule + (f.place.bay ?? '') + (f.place.post ?? '') + (f.place.gate ?? ''))}
  <div class="mb-3 max-w-4xl border-l-4 px-3 py-2 {tone[f.severity]}" data-finding={f.rule}>
    <p class="leading-snug">
      <strong>{word[f.severity]}.</strong>
      <Words says={f.says} units={session.units} />
    </p>
    {#if f.remedies?.length}
      <div class="mt-1.5 flex flex-wrap gap-1.5">
        {#each f.remedies as r, i (i)}
          <button class="btn py-1 text-left" onclick={() => take(r)}
            ><span><Words says={r.says} units={session.units} /></span></button
          >
        {/each}
      </div>
    {/if}
  </div>
{/each}
