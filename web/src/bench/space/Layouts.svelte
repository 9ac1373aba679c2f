<script lang="ts">
  // The layouts worth having, drawn true and small, with what each takes.
  import Silhouette from '../../jobs/Silhouette.svelte'
  import { api } from '../../lib/api'
  import { costs } from '../../lib/cost'
  import type { Session } from '../../lib/session.svelte'
  import { SideBySide } from '../../lib/sidebyside.svelte'
  import Words from '../../parts/Words.svelte'
  import * as msg from '../../gen/messages'

  let { session }: { session: Session } = $props()
  // svelte-ignore state_referenced_locally
  const asked = new SideBySide(session, async (doc, run) => (await api.alternatives({ doc, run })).layouts)
  const layouts = $derived(asked.rows)
  const waiting = $derived(asked.waiting)
</script>

<h2 class="font-bold">{msg.layouts_layouts_of_side_by_side({ v1: session.run.name || session.run.id })}</h2>
<p class="text-pencil">
  {msg.layouts_all_miss_the_obstructions_and}
</p>
{#if asked.refused}<p class="mt-2 text-stop">{asked.refused}</p>{/if}
{#if !session.run.posts.length}<p class="mt-2 text-pencil">{msg.common_first_how_long_is_the}</p>{/if}
{#if waiting && !layouts.length}<p class="mt-2 text-pencil" aria-live="polite">
    {msg.layouts_trying_layouts}
  </p>{/if}
<ul class="mt-3 grid gap-4 xl:grid-cols-2" aria-busy={waiting}>
  {#each layouts as l (l.id)}
    <li class="grid content-start border border-line bg-sheet" data-layout={l.id}>
      <div class="border-b border-rule bg-paper px-2 pt-2"><Silhouette outline={l.drawing} /></div>
      <div class="flex flex-wrap items-start justify-between gap-x-4 gap-y-2 p-3">
        <div class="min-w-52 flex-1">
          <h3 class="font-bold">{l.name}</h3>
          <p class="text-pencil"><Words says={l.says} units={session.units} /></p>
        </div>
        <dl class="flex gap-4">
          {#each [[msg.common_posts, l.posts], [msg.common_bags_2, l.bags], [msg.layouts_odd_bays, l.odd], [msg.common_cut, l.cut]] as [name, n] (name)}
            <div>
              <dt class="text-[0.88rem] text-pencil">{name}</dt>
              <dd class="text-[1.3rem] font-bold">{n}</dd>
            </div>
          {/each}
        </dl>
        {#if l.edits.length}
          <div class="flex w-full flex-wrap items-center justify-between gap-2 border-t border-rule pt-2">
            <span class="font-medium">{costs(l.cost, session.units).join(' · ')}</span>
            <button class="btn" onclick={() => asked.take((o) => o.id === l.id, l.name)}
              >{msg.common_take_it}</button
            >
          </div>
        {:else}
          <p class="w-full border-t border-rule pt-2 font-medium">
            {msg.common_as_planned_now}{#if l.clashes}; <strong class="text-stop"
                >{msg.layouts_not_met({ clashes: l.clashes })}</strong
              >{/if}
          </p>
        {/if}
      </div>
    </li>
  {/each}
</ul>
{#if !waiting && layouts.length === 1}
  <p class="mt-2 text-pencil">
    {msg.layouts_no_other_layout_is_worth}
  </p>
{/if}
