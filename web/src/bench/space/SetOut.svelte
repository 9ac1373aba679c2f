<script lang="ts">
  // The marks in taping order, as running distances from one end: chained
  // from post to post, every reading's error would add up.
  import type { View } from '../../drawing/view.svelte'
  import type { Session } from '../../lib/session.svelte'
  import Fraction from '../../parts/Fraction.svelte'
  import ReportTable from '../ReportTable.svelte'
  import FileLink from '../../parts/FileLink.svelte'
  import * as msg from '../../gen/messages'

  let { session, view }: { session: Session; view: View } = $props()
  const units = $derived(session.units)
  const out = $derived(session.run.setOut)
</script>

{#if !out}
  <p class="text-pencil">{msg.common_first_how_long_is_the}</p>
{:else}
  <div class="grid max-w-5xl gap-x-8 gap-y-3 md:grid-cols-2">
    <section>
      <h2 class="font-bold">{msg.set_out_spacer_sticks}</h2>
      <p class="text-pencil">
        {msg.set_out_cut_to_the_clear_opening}
      </p>
      <ul class="mt-1 grid gap-1" data-testid="sticks">
        {#each out.sticks.slice(0, 4) as s (s.first)}
          <li>
            <strong class="text-[1.15rem]"><Fraction mm={s.length} {units} /></strong>
            <span class="text-pencil"
              >{msg.set_out_for({
                bays: s.bays,
                v2:
                  s.bays === 1
                    ? msg.set_out_bay({ first: s.first })
                    : msg.set_out_bays_the_first({ first: s.first }),
              })}</span
            >
          </li>
        {/each}
        {#if out.sticks.length > 4}<li class="text-pencil">
            {msg.set_out_and_more_lengths_tape_those({ v1: out.sticks.length - 4 })}
          </li>{/if}
      </ul>
    </section>
    <section>
      <h2 class="font-bold">{msg.set_out_to_be_sure}</h2>
      <ul class="mt-1 grid list-disc gap-1 pl-5">
        <li>
          {msg.set_out_the_last_mark_reads} <strong><Fraction mm={out.check} {units} long /></strong>
          {msg.set_out_from_the_first_post_measured}
        </li>
        {#if out.offset}
          <li>
            {msg.set_out_every_post_s_middle_is} <strong><Fraction mm={out.offset} {units} /></strong>
            {msg.set_out_from_the_string}
          </li>
        {/if}
        <li>
          <FileLink {session} what="setout" run={session.run.id}>{msg.set_out_the_marks_as_csv}</FileLink
          >{msg.set_out_with_each_post_s_place}
        </li>
        {#each out.pins as p, i (i)}
          <li>
            {msg.set_out_pin_at({ v1: i + 1 })}
            <strong><Fraction mm={p.at} {units} long /></strong>{msg.set_out_the_tape_of({
              v1: p.post ? msg.set_out_at({ post: p.post }) : '',
            })}
            <Fraction mm={out.tape} {units} long />
            {msg.set_out_ends_there_and_is_pulled}
          </li>
        {/each}
      </ul>
    </section>
  </div>
  <ReportTable
    {session}
    {view}
    table="setout"
    caption={msg.set_out_marks_all_from({ v1: out.marks[0]!.post })}
  />
{/if}
