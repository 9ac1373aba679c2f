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
  import * as msg from '../../gen/messages'

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
      { name: msg.common_cut, words: soil(l.cut) },
      { name: msg.common_fill, words: soil(l.fill) },
      l.deepest > 0.01
        ? { name: msg.compare_deepest, mm: l.deepest }
        : { name: msg.compare_deepest, words: 'none' },
      l.stockShort
        ? {
            name: msg.compare_longest_post,
            words: msg.compare_too_long({ stockShort: l.stockShort }),
            bad: true,
          }
        : { name: msg.compare_longest_post, mm: l.longest },
      { name: msg.compare_breaks, words: String(l.breaks) },
    ]
    if (l.mostStep > 0.5) out.push({ name: msg.compare_most_step, mm: l.mostStep })
    if (l.racked) out.push({ name: msg.compare_over_the_rack, words: String(l.racked), bad: true })
    if (l.boards) out.push({ name: msg.compare_boards, words: String(l.boards) })
    return out
  }
</script>

<h2 class="font-bold">{msg.compare_in_every_look_side_by({ v1: session.run.name || session.run.id })}</h2>
<p class="text-pencil">
  {msg.compare_one_scale_for_length_and}
</p>
{#if asked.refused}<p class="mt-2 text-stop">{asked.refused}</p>{/if}
{#if !session.run.posts.length}<p class="mt-2 text-pencil">{msg.common_first_how_long_is_the}</p>{/if}
{#if asked.waiting && !asked.rows.length}<p class="mt-2 text-pencil" aria-live="polite">
    {msg.compare_trying_looks}
  </p>{/if}
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
          <span class="text-pencil">{msg.compare_posts_from}</span>
          {#each l.stock as s, i (s.length)}{i ? ', ' : ''}<strong class="whitespace-nowrap"
              >{s.count} × <Fraction mm={s.length} {units} /></strong
            >{/each}
        </p>
        <div class="flex flex-wrap items-center justify-between gap-2 border-t border-rule pt-2">
          {#if l.now}
            <strong>{msg.common_as_planned_now}</strong>
          {:else}
            <span class="font-medium"
              >{same(l) ? msg.compare_as_many_posts_and_bags : costs(l.cost, units).join(' · ')}</span
            >
            <button class="btn" onclick={() => asked.take((o) => o.id === l.id, l.name)}
              >{msg.common_take_it}</button
            >
          {/if}
        </div>
      </div>
    </li>
  {/each}
</ul>
