<script lang="ts">
  // What finished jobs say of how the crew works, offered for this job with how many posts
  // each figure rests on. Nothing is taken over unless it is asked for.
  import type { Usual } from '../../gen/api'
  import { api } from '../../lib/api'
  import type { Change } from '../../lib/doc'
  import type { Session } from '../../lib/session.svelte'
  import * as msg from '../../gen/messages'

  let { session }: { session: Session } = $props()
  let usual = $state.raw<Usual | null>(null)
  let trouble = $state('')
  $effect(() => {
    api
      .usual()
      .then((u) => (usual = u))
      .catch((e) => (trouble = e instanceof Error ? e.message : String(e)))
  })
  const tenth = (v: number) => Math.round(v * 10) / 10
  const crew = $derived(session.value<{ hand?: number; auger?: number; setup?: number }>('/site/crew') ?? {})
  const rates = $derived(session.value<{ task: string; minutes: number }[]>('/days/rates') ?? [])
  const figures = $derived.by(() => {
    const u = usual
    if (!u) return []
    const out: { id: string; says: string; posts: number; changes: Change[]; name: string }[] = []
    if (u.crew)
      out.push({
        id: 'dig',
        says: msg.log_learned_dig({ percent: Math.round(u.dig.value * 100) }),
        posts: u.dig.posts,
        name: msg.log_learned_take_dig,
        changes: [{ path: '/site/crew', value: u.crew }],
      })
    if (u.set.posts)
      out.push({
        id: 'set',
        says: msg.log_learned_set({ minutes: tenth(u.set.value) }),
        posts: u.set.posts,
        name: msg.log_learned_take_set,
        changes: [
          {
            path: '/days/rates',
            value: [
              ...rates.filter((r) => r.task !== 'brace'),
              { task: 'brace', minutes: Math.max(0.01, tenth(u.set.value)) },
            ],
          },
        ],
      })
    if (u.bags.posts)
      out.push({
        id: 'bags',
        says: msg.log_learned_bags({ percent: Math.round(u.waste * 100) }),
        posts: u.bags.posts,
        name: msg.log_learned_take_bags,
        changes: [{ path: '/setting/waste', value: Math.round(u.waste * 100) / 100 }],
      })
    return out
  })
  const told = $derived(Object.keys(crew).length > 0)
</script>

<div class="grid max-w-3xl gap-3" data-testid="learned">
  <p class="text-pencil">{msg.log_learned_says}</p>
  {#if trouble}<p class="text-stop" role="alert">{trouble}</p>{/if}
  {#if usual && !figures.length}<p>{msg.log_learned_none}</p>{/if}
  {#if usual?.jobs}<p>
      {msg.log_learned_jobs({ count: usual.jobs })}{told ? ` ${msg.log_learned_own}` : ''}
    </p>{/if}
  {#each figures as f (f.id)}
    <div class="flex flex-wrap items-center gap-3 border border-line bg-sheet p-2" data-learned={f.id}>
      <p class="min-w-60 flex-1">
        {f.says} <span class="text-pencil">{msg.log_learned_rests({ count: f.posts })}</span>
      </p>
      <button class="btn" onclick={() => session.commit(f.changes, f.name)}>{msg.log_learned_take}</button>
    </div>
  {/each}
</div>
