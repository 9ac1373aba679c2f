<script lang="ts">
  // What does not fit, in the words of the trade, with the ways out.
  import type { Finding, Remedy } from '../gen/api'
  import type { Session } from '../lib/session.svelte'
  import type { Stage } from '../lib/stages'
  import { costs } from '../lib/cost'
  import { say } from '../lib/say'
  import Words from '../parts/Words.svelte'

  let { session, stage }: { session: Session; stage: Stage } = $props()
  const all = $derived(session.findings.filter((f) => f.stage === stage && f.severity !== 'missing'))
  const here = (f: Finding) =>
    f.place.run ? f.place.run === session.run.id : !f.place.line || f.place.line === session.line.id
  const found = $derived(all.filter(here))
  /** The other runs, and lines as a whole, on which something is to be looked at. */
  const elsewhere = $derived.by(() => {
    const rest = all.filter((f) => f.severity !== 'note' && !here(f))
    return [
      ...session.plan.lines.map((l) => ({
        name: l.name || l.id,
        run: session.plan.runs[l.first]!.id,
        n: rest.filter((f) => !f.place.run && f.place.line === l.id).length,
      })),
      ...session.plan.runs.map((r) => ({
        name: r.name || r.id,
        run: r.id,
        n: rest.filter((f) => f.place.run === r.id).length,
      })),
    ].filter((e) => e.n > 0)
  })
  const tone = {
    missing: '',
    cannot: 'border-l-stop bg-stop-wash',
    check: 'border-l-warn bg-warn-wash',
    note: 'border-l-line bg-sheet',
  }
  const word = $derived({
    missing: '',
    cannot: stage === 'walk' ? 'This cannot be' : 'Cannot be built so',
    check:
      stage === 'walk'
        ? 'Look again'
        : stage === 'string' || stage === 'gates'
          ? 'Look first'
          : 'Look before you dig',
    note: 'Note',
  })

  const says = (r: Remedy) => r.says.map((p) => say(p, session.units)).join('')
  /** How long a tap waits for ways out that are being worked out again, in tenths of a second. */
  const PATIENCE = 50
  /** A way out that is tapped while a change is still being planned is taken as
   *  it comes out then: what it says stays, what it sets may not. */
  async function take(f: Finding, r: Remedy) {
    const same = (g: Finding) => g.rule === f.rule && JSON.stringify(g.place) === JSON.stringify(f.place)
    for (let k = 0; !session.advised && k < PATIENCE; k++) await new Promise((go) => setTimeout(go, 100))
    const now = session.findings.find(same)?.remedies?.find((o) => says(o) === says(r))
    if (!session.advised || !now) {
      session.store.notice = `${says(r)}: no longer a way out. Look at those that are offered now.`
      return
    }
    session.commit(now.edits, says(now).split(':')[0]!)
  }
</script>

{#each found as f, n (f.rule + (f.place.bay ?? '') + (f.place.post ?? '') + (f.place.gate ?? '') + (f.field ?? n))}
  <div
    class="mb-2 flex max-w-5xl flex-wrap items-center gap-x-3 gap-y-1.5 border-l-4 px-3 py-1.5 {tone[
      f.severity
    ]}"
    data-finding={f.rule}
  >
    <p class="min-w-60 flex-1 leading-snug">
      <strong>{word[f.severity]}.</strong>
      <Words says={f.says} units={session.units} />
    </p>
    {#if f.remedies?.length}
      <div class="flex flex-wrap gap-1.5">
        {#each f.remedies as r, i (says(r) + i)}
          <button class="btn py-1 text-left" aria-busy={!session.advised} onclick={() => take(f, r)}
            ><span
              ><Words says={r.says} units={session.units} />{#if r.cost}<span
                  class="block text-[0.9rem] font-normal text-pencil"
                  >{costs(r.cost, session.units).join(' · ')}</span
                >{/if}</span
            ></button
          >
        {/each}
      </div>
    {/if}
  </div>
{/each}

{#if elsewhere.length}
  <p class="mb-3 flex flex-wrap items-center gap-1.5">
    <span class="text-pencil">To look at on</span>
    {#each elsewhere as e (e.name + e.run)}
      <button class="btn min-h-9 px-2 py-0.5 pointer-coarse:min-h-11" onclick={() => session.pickRun(e.run)}
        >{e.name}: {e.n}</button
      >
    {/each}
  </p>
{/if}
