<script lang="ts">
  // The run in every look, drawn true and small, with what each takes.
  import Silhouette from '../../jobs/Silhouette.svelte'
  import type { LookChoice } from '../../gen/api'
  import { api } from '../../lib/api'
  import { costs } from '../../lib/cost'
  import type { Session } from '../../lib/session.svelte'
  import { SideBySide } from '../../lib/sidebyside.svelte'
  import { bulk } from '../../lib/tape'
  import Fraction from '../../parts/Fraction.svelte'
  import Words from '../../parts/Words.svelte'

  let { session }: { session: Session } = $props()
  // svelte-ignore state_referenced_locally
  const asked = new SideBySide(session, async (doc, run) => (await api.looks({ doc, run })).looks)
  const units = $derived(session.units)

  const same = (l: LookChoice) => costs(l.cost, units).length === 1 && !l.cost.posts && !l.cost.bags

  interface Fact {
    name: string
    words?: string
    mm?: number
    bad?: boolean
  }
  function facts(l: LookChoice): Fact[] {
    const soil = (v: number) => (v > 1e-6 ? bulk(v, units) : 'none')
    const out: Fact[] = [
      { name: 'Cut', words: soil(l.cut) },
      { name: 'Fill', words: soil(l.fill) },
      l.deepest > 0.01 ? { name: 'Deepest', mm: l.deepest } : { name: 'Deepest', words: 'none' },
      l.stockShort
        ? { name: 'Longest post', words: `${l.stockShort} too long`, bad: true }
        : { name: 'Longest post', mm: l.longest },
      { name: 'Breaks', words: String(l.breaks) },
    ]
    if (l.mostStep > 0.5) out.push({ name: 'Most step', mm: l.mostStep })
    if (l.racked) out.push({ name: 'Over the rack', words: String(l.racked), bad: true })
    if (l.boards) out.push({ name: 'Boards', words: String(l.boards) })
    return out
  }
</script>

<h2 class="font-bold">{session.run.name || session.run.id} in every look, side by side</h2>
<p class="text-pencil">
  One scale for length and height, nothing stretched. Heights held by hand are let go; posts stay.
</p>
{#if asked.refused}<p class="mt-2 text-stop">{asked.refused}</p>{/if}
{#if !session.run.posts.length}<p class="mt-2 text-pencil">First, how long is the run?</p>{/if}
{#if asked.waiting && !asked.rows.length}<p class="mt-2 text-pencil" aria-live="polite">Trying looks…</p>{/if}
<ul class="mt-3 grid gap-4 xl:grid-cols-2" aria-busy={asked.waiting}>
  {#each asked.rows as l (l.id)}
    <li
      class="grid content-start border bg-sheet {l.now ? 'border-2 border-ink' : 'border-line'}"
      data-look={l.id}
    >
      <div class="border-b border-rule bg-paper px-2 pt-2"><Silhouette outline={l.drawing} /></div>
      <div class="grid gap-2 p-3">
        <div>
          <h3 class="font-bold">{l.name}</h3>
          <p class="text-pencil"><Words says={l.says} {units} /></p>
        </div>
        <dl class="flex flex-wrap gap-x-5 gap-y-1">
          {#each facts(l) as f (f.name)}
            <div>
              <dt class="text-[0.88rem] text-pencil">{f.name}</dt>
              <dd class="text-[1.1rem] font-bold {f.bad ? 'text-stop' : ''}">
                {#if f.mm !== undefined}<Fraction mm={f.mm} {units} />{:else}{f.words}{/if}
              </dd>
            </div>
          {/each}
        </dl>
        <p>
          <span class="text-pencil">Posts from</span>
          {#each l.stock as s, i (s.length)}{i ? ', ' : ''}<strong class="whitespace-nowrap"
              >{s.count} × <Fraction mm={s.length} {units} /></strong
            >{/each}
        </p>
        <div class="flex flex-wrap items-center justify-between gap-2 border-t border-rule pt-2">
          {#if l.now}
            <strong>As planned now</strong>
          {:else}
            <span class="font-medium"
              >{same(l) ? 'as many posts and bags' : costs(l.cost, units).join(' · ')}</span
            >
            <button class="btn" onclick={() => session.commit(l.edits, l.name)}>Take it</button>
          {/if}
        </div>
      </div>
    </li>
  {/each}
</ul>
