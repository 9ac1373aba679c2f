<script lang="ts">
  // The layouts worth having, drawn true and small, with what each takes.
  import Silhouette from '../../jobs/Silhouette.svelte'
  import { api } from '../../lib/api'
  import { costs } from '../../lib/cost'
  import type { Session } from '../../lib/session.svelte'
  import { SideBySide } from '../../lib/sidebyside.svelte'
  import Words from '../../parts/Words.svelte'

  let { session }: { session: Session } = $props()
  // svelte-ignore state_referenced_locally
  const asked = new SideBySide(session, async (doc, run) => (await api.alternatives({ doc, run })).layouts)
  const layouts = $derived(asked.rows)
  const waiting = $derived(asked.waiting)
</script>

<h2 class="font-bold">Layouts of {session.run.name || session.run.id}, side by side</h2>
<p class="text-pencil">
  All miss the obstructions and keep what is fixed. Short bays and cut pieces are hatched.
</p>
{#if asked.refused}<p class="mt-2 text-stop">{asked.refused}</p>{/if}
{#if !session.run.posts.length}<p class="mt-2 text-pencil">First, how long is the run?</p>{/if}
{#if waiting && !layouts.length}<p class="mt-2 text-pencil" aria-live="polite">Trying layouts…</p>{/if}
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
          {#each [['Posts', l.posts], ['Bags', l.bags], ['Odd bays', l.odd], ['Cut', l.cut]] as [name, n] (name)}
            <div>
              <dt class="text-[0.88rem] text-pencil">{name}</dt>
              <dd class="text-[1.3rem] font-bold">{n}</dd>
            </div>
          {/each}
        </dl>
        {#if l.edits.length}
          <div class="flex w-full flex-wrap items-center justify-between gap-2 border-t border-rule pt-2">
            <span class="font-medium">{costs(l.cost, session.units).join(' · ')}</span>
            <button class="btn" onclick={() => session.commit(l.edits, l.name)}>Take it</button>
          </div>
        {:else}
          <p class="w-full border-t border-rule pt-2 font-medium">
            As planned now{#if l.clashes}; <strong class="text-stop">{l.clashes} not met</strong>{/if}
          </p>
        {/if}
      </div>
    </li>
  {/each}
</ul>
{#if !waiting && layouts.length === 1}
  <p class="mt-2 text-pencil">
    No other layout is worth having here: every other one costs more and gives nothing.
  </p>
{/if}
