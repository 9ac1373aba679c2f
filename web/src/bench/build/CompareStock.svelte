<script lang="ts">
  // Other bays, lengths and heights against their waste, each one tap away.
  import type { StockChoice } from '../../gen/api'
  import { api } from '../../lib/api'
  import type { Session } from '../../lib/session.svelte'
  import { SideBySide } from '../../lib/sidebyside.svelte'
  import { say } from '../../lib/say'
  import { tape } from '../../lib/tape'
  import Words from '../../parts/Words.svelte'
  import * as msg from '../../gen/messages'

  let { session }: { session: Session } = $props()
  // svelte-ignore state_referenced_locally
  const asked = new SideBySide(session, async (doc, run) => (await api.compare({ doc, run })).choices)
  const units = $derived(session.units)
  const name = (c: StockChoice) => c.name.map((p) => say(p, units)).join('')
  const percent = (v: number) => `${(v * 100).toFixed(1)} %`
</script>

<p class="text-pencil">{msg.build_compare_says({ run: session.run.name || session.run.id })}</p>
{#if asked.refused}<p class="mt-2 text-stop">{asked.refused}</p>{/if}
{#if asked.waiting && !asked.rows.length}<p class="mt-2 text-pencil" aria-live="polite">
    {msg.build_trying}
  </p>{/if}
{#if asked.rows.length === 1}<p class="mt-2 text-pencil">{msg.build_nothing_to_compare}</p>{/if}
<ul class="mt-2 border-t border-rule" aria-busy={asked.waiting}>
  {#each asked.rows as c (c.id)}
    <li
      class="grid grid-cols-[5.5rem_minmax(0,1fr)_auto] items-center gap-x-3 border-b border-rule py-2 {c.now
        ? 'bg-mallow-wash'
        : ''}"
      data-choice={c.id}
    >
      <strong class="text-[1.2rem] whitespace-nowrap">{percent(c.waste)}</strong>
      <div class="min-w-0">
        <span class="font-semibold"><Words says={c.name} {units} /></span>
        <p class="text-[0.95rem] text-pencil">
          {msg.build_bought({ length: tape(c.bought, units) })}, {msg.build_posts_bays({
            posts: c.posts,
            bays: c.bays,
            pieces: c.pieces,
          })}
        </p>
      </div>
      {#if c.now}<strong class="pr-2">{msg.common_as_planned_now}</strong>{:else}
        <button class="btn" onclick={() => asked.take((o) => o.id === c.id, name(c))}
          >{msg.common_take_it}</button
        >
      {/if}
    </li>
  {/each}
</ul>
