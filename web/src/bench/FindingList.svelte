<script lang="ts">
  // The one place for what does not fit: one line each, opened to say the rest
  // with its ways out. What is to be checked on this run and stage comes first,
  // then where there is more.
  import { take } from '../lib/answer.svelte'
  import ChevronDown from '@lucide/svelte/icons/chevron-down'
  import X from '@lucide/svelte/icons/x'
  import type { Finding, Remedy } from '../gen/api'
  import type { Session } from '../lib/session.svelte'
  import { stages, type Stage } from '../lib/stages'
  import { isHere, keyOf, tone } from '../lib/findings'
  import { layout } from '../lib/layout.svelte'
  import { costs } from '../lib/cost'
  import { bulk } from '../lib/tape'
  import { say } from '../lib/say'
  import Words from '../parts/Words.svelte'
  import * as msg from '../gen/messages'

  let { session, stage }: { session: Session; stage: Stage } = $props()
  const all = $derived(session.findings.filter((f) => f.severity !== 'missing'))
  const found = $derived(all.filter((f) => f.stage === stage && isHere(session, f)))
  /** The other runs, and lines as a whole, on which something of this stage is to be checked. */
  const elsewhere = $derived.by(() => {
    const rest = all.filter((f) => f.stage === stage && f.severity !== 'note' && !isHere(session, f))
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
  const others = $derived(
    stages
      .map((s) => ({ ...s, n: all.filter((f) => f.stage === s.id && f.severity !== 'note').length }))
      .filter((s) => s.n && s.id !== stage),
  )
  const t = $derived(session.plan.totals)
  const word = $derived({
    missing: '',
    cannot: stage === 'walk' ? msg.finding_list_likely_mistake : msg.finding_list_cannot_be_built,
    check:
      stage === 'grade' || stage === 'space' || stage === 'dig'
        ? msg.finding_list_check_before_digging
        : msg.finding_list_check_first,
    note: 'Note',
  })
  const open = (f: Finding) => layout.details || session.nav.finding === keyOf(f)
  const toggle = (f: Finding) => {
    if (layout.details) {
      layout.set({ details: false })
      session.nav.finding = ''
    } else session.nav.finding = open(f) ? '' : keyOf(f)
  }

  const says = (r: Remedy) => r.says.map((p) => say(p, session.units)).join('')
  /** A way out that is tapped while a change is still being planned is taken as
   *  it comes out then: what it says stays, what it sets may not. */
  const pick = (f: Finding, r: Remedy) => {
    const same = (g: Finding) => g.rule === f.rule && JSON.stringify(g.place) === JSON.stringify(f.place)
    return take(
      session,
      () => session.advised,
      () => session.findings.find(same)?.remedies?.find((o) => says(o) === says(r)),
      says(r).split(':')[0]!,
    )
  }
</script>

<section
  class="flex min-h-0 flex-col border-ink bg-paper max-lg:fixed max-lg:inset-x-0 max-lg:bottom-0 max-lg:z-30 max-lg:max-h-[75dvh] max-lg:border-t-2 lg:w-96 lg:flex-none lg:border-l-2"
  aria-label={msg.common_findings}
  data-testid="findings"
>
  <div class="flex min-h-12 flex-none items-center gap-1 border-b border-line pl-3">
    <h2 class="flex-1 font-bold" tabindex="-1" id="findings-title">
      {msg.finding_list_findings({
        v1: stages.find((s) => s.id === stage)!.name,
        v2: session.run.name || session.run.id,
      })}
    </h2>
    <button
      class="btn btn-plain px-2"
      aria-pressed={layout.details}
      onclick={() => layout.set({ details: !layout.details })}
      >{layout.details ? msg.finding_list_close_all : msg.finding_list_open_all}</button
    >
    <button
      class="btn btn-plain btn-icon"
      aria-label={msg.finding_list_close_the_findings}
      onclick={() => layout.set({ findings: false })}><X size={20} /></button
    >
  </div>
  <div class="relative min-h-0 flex-1 overflow-auto p-2">
    {#each found as f, n (keyOf(f) + n)}
      <div class="mb-1.5 border-l-4 {tone[f.severity]}" data-finding={f.rule}>
        <button
          class="flex min-h-11 w-full items-center gap-2 px-2 py-1 text-left leading-snug"
          aria-expanded={open(f)}
          onclick={() => toggle(f)}
        >
          <span class="min-w-0 flex-1 {open(f) ? '' : 'relative truncate'}"
            ><strong>{word[f.severity]}.</strong>
            <Words says={f.says} units={session.units} /></span
          >
          <ChevronDown size={18} class="shrink-0 {open(f) ? 'rotate-180' : ''}" aria-hidden="true" />
        </button>
        {#if open(f) && f.remedies?.length}
          <div class="flex flex-wrap gap-1.5 px-2 pb-2" data-ways>
            {#each f.remedies as r, i (says(r) + i)}
              <button class="btn py-1 text-left" aria-busy={!session.advised} onclick={() => pick(f, r)}
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
    {:else}
      <p class="px-1 py-2 text-pencil">{msg.finding_list_nothing_to_check_here}</p>
    {/each}
    {#if elsewhere.length || others.length}
      <p class="mt-2 flex flex-wrap items-center gap-1.5 px-1">
        <span class="w-full font-semibold">{msg.finding_list_more_to_check}</span>
        {#each elsewhere as e (e.name + e.run)}
          <button class="btn" onclick={() => session.pickRun(e.run)}>{e.name}: {e.n}</button>
        {/each}
        {#each others as s (s.id)}
          <button class="btn" onclick={() => (session.nav.stage = s.id)}>{s.name}: {s.n}</button>
        {/each}
      </p>
    {/if}
  </div>
  <!-- The load is never quite out of sight. -->
  <button
    class="flex min-h-11 flex-none items-center justify-between gap-2 border-t border-line px-3 text-left font-semibold max-lg:hidden"
    onclick={() => layout.set({ load: true, findings: false })}
    ><span
      >{msg.finding_list_posts_bags_gravel({
        posts: t.posts,
        bags: t.bags,
        bulk: bulk(t.gravelLoose, session.units),
      })}</span
    ><span class="font-normal underline">{msg.finding_list_the_load}</span></button
  >
</section>
