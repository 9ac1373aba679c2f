<script lang="ts">
  // What is marked on every post and cut for every bay: tops, faces, steps,
  // and the panels and rails as long as they lie on the slope.
  import type { View } from '../../drawing/view.svelte'
  import type { Session } from '../../lib/session.svelte'
  import Choice from '../../parts/Choice.svelte'
  import Fraction from '../../parts/Fraction.svelte'
  import LengthField from '../LengthField.svelte'
  import ReportTable from '../ReportTable.svelte'
  import FileLink from '../../parts/FileLink.svelte'
  import * as msg from '../../gen/messages'

  let { session, view }: { session: Session; view: View } = $props()
  const units = $derived(session.units)
  const run = $derived(session.run)
  const cut = $derived(session.choice(session.at('/post/cut')))
  const seen = $derived(units.smallestMark / 2)
  const infills = $derived(run.bays.filter((b) => b.infill))
</script>

{#if !run.posts.length}
  <p class="text-pencil">{msg.common_first_how_long_is_the}</p>
{:else}
  <div class="grid max-w-5xl gap-x-8 gap-y-3 md:grid-cols-2">
    <Choice
      label={msg.tops_when_tops_are_cut}
      value={cut}
      options={session.catalogue.choices['post/cut']!}
      onpick={(v) =>
        session.commit(
          [{ path: session.at('/post/cut'), value: v }],
          v === 'first' ? msg.tops_tops_cut_first : msg.tops_tops_cut_after,
        )}
    />
    <div class="grid grid-cols-2 content-start gap-3">
      <LengthField
        {session}
        path={session.at('/string/mark')}
        label={msg.tops_reference_mark_below_the_top}
      />
      <LengthField
        {session}
        path={session.at('/post/mark')}
        label={msg.tops_maker_s_grade_mark_below}
        optional
      />
    </div>
  </div>
  <ReportTable {session} {view} table="posts" caption={msg.tops_posts_all_heights_above_the} />
  <ReportTable {session} {view} table="bays" caption={msg.tops_bays_from_each_post_to} />
  <p class="mt-2 max-w-4xl text-pencil">
    {msg.tops_posts_and_pickets_stay_plumb}
  </p>
  <p class="mt-2">
    <FileLink {session} what="posts" run={session.run.id}>{msg.tops_the_posts_as_csv}</FileLink
    >{msg.tops_with_what_each_way_of}
    <FileLink {session} what="bays" run={session.run.id}>{msg.tops_the_bays}</FileLink>.
  </p>
  {#if infills.length}
    <h3 class="mt-5 font-bold">{msg.tops_under_the_panels}</h3>
    <ul class="mt-1 grid max-w-4xl gap-1.5" data-testid="infills">
      {#each infills as b (b.label)}
        {@const f = b.infill!}
        <li class="border border-line bg-sheet px-3 py-2">
          <strong>{b.label}</strong>, <Fraction mm={f.long} {units} />
          {msg.tops_between_the_faces}
          {#if f.kind === 'gravel boards'}
            {msg.tops_of({
              boards: f.boards,
              v2: f.boards === 1 ? msg.tops_gravel_board : msg.tops_gravel_boards,
            })}
            <Fraction mm={f.board} {units} />{#if f.let > seen}{msg.tops_let}
              <Fraction mm={f.let} {units} />
              {msg.tops_into_the_high_ground}{/if}.
          {:else}
            {msg.tops_of({ boards: f.boards, v2: f.boards === 1 ? msg.tops_board : msg.tops_boards })}
            <Fraction mm={f.board} {units} />{msg.tops_cut_from}
            <Fraction mm={f.start} {units} />
            {msg.tops_high_at_to({ from: b.from })}
            <Fraction mm={f.end} {units} />
            {msg.tops_at({ to: b.to })}{#if f.marks.length > 2}{msg.tops_over}
              {#each f.marks.slice(1, -1) as k, i (i)}{i ? ', ' : ''}<Fraction mm={k.under} {units} />
                {msg.common_at_2}
                <Fraction mm={k.at} {units} />{/each}{/if}.
          {/if}
        </li>
      {/each}
    </ul>
  {/if}
{/if}
