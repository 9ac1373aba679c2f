<script lang="ts">
  // What is bought in lengths, and what is cut from each: of the whole job, or of
  // the run by itself.
  import { BuiltRun } from '../../lib/built.svelte'
  import type { Session } from '../../lib/session.svelte'
  import Choice from '../../parts/Choice.svelte'
  import Fraction from '../../parts/Fraction.svelte'
  import Words from '../../parts/Words.svelte'
  import Sawing from './Sawing.svelte'
  import * as msg from '../../gen/messages'

  let { session }: { session: Session } = $props()
  const many = $derived(session.plan.runs.length > 1)
  let alone = $state(false)
  // svelte-ignore state_referenced_locally
  const asked = new BuiltRun(session, () => alone)
  const units = $derived(session.units)
  const lists = $derived(asked.built?.cuts ?? [])
</script>

{#if asked.refused}<p class="text-stop">{asked.refused}</p>{/if}
{#if many}
  <div class="max-w-md">
    <Choice
      label={msg.build_cut_for}
      value={alone ? 'run' : 'job'}
      options={[
        { value: 'job', name: msg.build_whole_job },
        { value: 'run', name: msg.build_this_run({ run: session.run.name || session.run.id }) },
      ]}
      onpick={(v) => (alone = v === 'run')}
    />
  </div>
{/if}
{#if asked.built && !lists.length}<p class="mt-2 text-pencil">{msg.build_nothing_to_cut}</p>
{:else if !asked.built}<p class="mt-2 text-pencil" aria-live="polite">{msg.build_asking}</p>{/if}
{#each lists as l (l.id)}
  <section class="mt-4" data-cut={l.id}>
    <h2 class="font-bold"><Words says={l.name} {units} /></h2>
    <p class="text-pencil"><Words says={l.says} {units} /></p>
    <ol class="mt-2 grid gap-2">
      {#each l.bars as b, i (i)}
        <li class="grid gap-x-3 gap-y-0.5 sm:grid-cols-[8.5rem_minmax(0,1fr)]">
          <strong class="text-[1.15rem] whitespace-nowrap"
            >{b.count} × <Fraction mm={b.length} {units} />{#if b.offcut}<span
                class="block text-[0.88rem] font-medium text-pencil">{msg.build_offcut}</span
              >{/if}</strong
          >
          <div class="min-w-0">
            <div class="flex border border-timber-edge bg-paper" style:max-width="46rem">
              {#each b.cuts as c, k (k)}
                {#each [...Array(Math.min(c.each, 40)).keys()] as n (n)}
                  <span
                    class="min-w-0 overflow-hidden border-r-2 border-ink bg-timber px-1 py-0.5 text-center font-semibold whitespace-nowrap text-ink"
                    style:flex="{c.long} 0 0"><Fraction mm={c.long} {units} /></span
                  >
                {/each}
              {/each}
              {#if b.left > 0.5}<span
                  class="min-w-0 overflow-hidden px-1 py-0.5 text-center text-[0.88rem] whitespace-nowrap {b.keep
                    ? 'bg-mallow-wash'
                    : 'text-pencil'}"
                  style:flex="{b.left} 0 0"><Fraction mm={b.left} {units} /></span
                >{/if}
            </div>
            <ul class="text-[0.95rem] leading-snug">
              {#each b.cuts as c, k (k)}
                <li class="line-clamp-3">
                  <span class="whitespace-nowrap">{c.each} × <Fraction mm={c.long} {units} /></span
                  >{#if c.wide},
                    {msg.build_ripped_to({ length: '' })}<Fraction mm={c.wide} {units} />{/if}
                  <span class="text-pencil">{c.where}</span>
                </li>
              {/each}
            </ul>
          </div>
        </li>
      {/each}
    </ol>
  </section>
{/each}
{#if asked.built}<Sawing {session} built={asked.built} />{/if}
