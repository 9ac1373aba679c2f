<script lang="ts">
  // All parts of the run: how many, how long, why; each can be changed for this
  // run, left out or taken in.
  import type { BuiltPart } from '../../gen/api'
  import { BuiltRun } from '../../lib/built.svelte'
  import { at } from '../../lib/doc'
  import { ofPart } from '../../lib/figure'
  import type { Session } from '../../lib/session.svelte'
  import { tape } from '../../lib/tape'
  import Figure from '../../parts/Figure.svelte'
  import Fraction from '../../parts/Fraction.svelte'
  import PartFields from './PartFields.svelte'
  import * as msg from '../../gen/messages'

  let { session }: { session: Session } = $props()
  // svelte-ignore state_referenced_locally
  const asked = new BuiltRun(session)
  const units = $derived(session.units)
  const parts = $derived(asked.built?.parts ?? [])
  let open = $state('')
  const groups = $derived(
    [
      { name: msg.build_of_fence, parts: parts.filter((p) => !p.gates && !p.part.off) },
      { name: msg.build_of_gates, parts: parts.filter((p) => p.gates) },
      { name: msg.build_left_out, parts: parts.filter((p) => p.part.off) },
    ].filter((g) => g.parts.length),
  )
  const path = (id: string) => at(session.at('/parts'), id)
  const area = (m2: number) =>
    units.system === 'metric' ? `${m2.toFixed(1)} m²` : `${(m2 / 0.09290304).toFixed(1)} ft²`

  function set(p: BuiltPart, off: boolean) {
    const rest = { ...p.part }
    delete rest.off
    open = ''
    session.commit(
      [{ path: path(p.part.id), value: off ? { ...rest, off: true } : rest }],
      off ? msg.build_is_left_out({ part: p.part.name }) : msg.build_taken_in({ part: p.part.name }),
    )
  }
</script>

{#if asked.refused}<p class="text-stop">{asked.refused}</p>{/if}
{#if asked.built && !parts.length}<p class="text-pencil">{msg.build_no_type}</p>
{:else if !asked.built}<p class="text-pencil" aria-live="polite">{msg.build_asking}</p>{/if}
{#each groups as g (g.name)}
  <h2 class="mt-4 font-bold first:mt-0">{g.name}</h2>
  <ul class="mt-1 border-t border-rule">
    {#each g.parts as p (p.part.id)}
      <li class="border-b border-rule py-1.5" data-part={p.part.id}>
        <div
          class="grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-3 sm:grid-cols-[7rem_minmax(0,1fr)_auto]"
        >
          <span class="text-[1.25rem] font-bold max-sm:order-2 max-sm:text-right">
            {#if p.part.off}<span class="text-pencil">–</span>
            {:else if p.laid}<Figure why={ofPart(session.run, p.part)} of={p.part.name}
                ><span class="text-[1.05rem] whitespace-nowrap">{tape(p.laid, units)}</span></Figure
              >
            {:else if p.area}<Figure why={ofPart(session.run, p.part)} of={p.part.name}
                ><span class="text-[1.05rem]">{area(p.area)}</span></Figure
              >
            {:else if p.count}<Figure why={ofPart(session.run, p.part)} of={p.part.name}>{p.count}</Figure>
            {:else}<span class="text-pencil">0</span>{/if}
          </span>
          <div class="min-w-0">
            <span class="font-semibold">{p.part.name}</span>
            <span class="text-pencil">
              {#if p.part.thick && p.part.width}<Fraction mm={p.part.thick} {units} /> ×
              {/if}{#if p.width || p.part.width}<Fraction mm={p.width || p.part.width!} {units} />{/if}
              {[p.part.material, p.part.finish].filter(Boolean).join(', ')}
            </span>
            {#if p.own}<span class="ml-1 border border-warn bg-warn-wash px-1.5 text-[0.85rem] text-warn"
                >{msg.build_own}</span
              >{/if}
            {#if !p.fits}<span class="ml-1 font-semibold text-warn">{msg.build_does_not_fit}</span>{/if}
            {#if p.lengths?.length}
              <p class="text-[0.95rem]">
                {#each p.lengths as l, i (i)}{i ? ', ' : ''}<span class="whitespace-nowrap"
                    >{l.count} × <Fraction mm={l.long} {units} />{#if l.wide}
                      ({msg.build_ripped_to({ length: '' })}<Fraction mm={l.wide} {units} />){/if}</span
                  >{/each}{#if p.more}, {msg.build_more_lengths({ count: p.more })}{/if}
              </p>
            {/if}
            {#if p.part.says}<p class="text-[0.95rem] leading-snug text-pencil">{p.part.says}</p>{/if}
          </div>
          {#if !p.gates && p.part.id !== 'gravel-board'}
            <div class="flex flex-wrap justify-end gap-1 max-sm:order-3 max-sm:col-span-2">
              {#if p.part.off}
                <button class="btn" onclick={() => set(p, false)}>{msg.build_take_in}</button>
              {:else}
                <button
                  class="btn btn-plain"
                  aria-expanded={open === p.part.id}
                  onclick={() => (open = open === p.part.id ? '' : p.part.id)}
                  >{open === p.part.id ? msg.build_done : msg.build_change}</button
                >
              {/if}
            </div>
          {/if}
        </div>
        {#if open === p.part.id && !p.part.off}
          <PartFields {session} part={p.part} path={path(p.part.id)} />
          <div class="mt-2 flex flex-wrap gap-2">
            <button class="btn" onclick={() => set(p, true)}>{msg.build_leave_out}</button>
            {#if p.own}<button
                class="btn"
                onclick={() =>
                  session.commit(
                    [{ path: path(p.part.id), value: null }],
                    msg.build_is_changed({ part: p.part.name }),
                  )}>{msg.build_as_type}</button
              >{/if}
          </div>
        {/if}
      </li>
    {/each}
  </ul>
{/each}
