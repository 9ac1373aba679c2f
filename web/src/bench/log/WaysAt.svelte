<script lang="ts">
  // What can be done about what differs at a post, the cheapest sound way first.
  import type { Amended, Way } from '../../gen/api'
  import { Answer, take } from '../../lib/answer.svelte'
  import { api } from '../../lib/api'
  import { costs } from '../../lib/cost'
  import { taken } from '../../lib/observed'
  import { say } from '../../lib/say'
  import type { Session } from '../../lib/session.svelte'
  import Words from '../../parts/Words.svelte'
  import * as msg from '../../gen/messages'

  let { session, post, says = false }: { session: Session; post: string; says?: boolean } = $props()
  const units = $derived(session.units)
  // svelte-ignore state_referenced_locally
  const asked = new Answer<Amended>(
    session,
    () => post,
    (doc, signal) => api.amend({ doc, post }, signal),
  )
  /** More than the first few are shown when they are asked for. */
  let all = $state(false)
  const FEW = 3

  const pick = (fact: string, w: Way) =>
    take(
      session,
      () => asked.fresh,
      () => asked.value?.deviations.find((d) => d.fact === fact)?.ways.find((o) => o.id === w.id),
      (w.name ?? []).map((p) => say(p, units)).join(''),
      (edits) => taken(session, edits),
    )
</script>

{#if asked.refused}<p class="font-medium text-stop">{asked.refused}</p>{/if}
{#each asked.value?.deviations ?? [] as d (d.fact)}
  <div class="grid gap-1.5" data-testid="ways">
    {#if says}<p class="font-medium"><Words says={d.says} {units} /></p>{/if}
    {#each all ? d.ways : d.ways.slice(0, FEW) as w, i (w.id)}
      <button
        class="btn h-auto min-h-14 flex-col items-start gap-0.5 px-3 py-2 text-left {i === 0
          ? 'border-2 border-mallow'
          : ''}"
        data-way={w.id}
        onclick={() => pick(d.fact, w)}
      >
        <strong class="text-[1.05rem] leading-snug"><Words says={w.name} {units} /></strong>
        <span class="text-[0.95rem] leading-snug font-normal text-pencil">
          <Words says={w.says} {units} />
          {w.minutes >= 1 ? msg.log_minutes({ n: Math.round(w.minutes) }) : msg.log_no_time}{w.cost
            ? `, ${costs(w.cost, units).join(', ')}`
            : ''}
        </span>
      </button>
    {/each}
    {#if d.ways.length > FEW && !all}<button class="btn" onclick={() => (all = true)}
        >{msg.log_more_ways({ count: d.ways.length - FEW })}</button
      >{/if}
  </div>
{/each}
