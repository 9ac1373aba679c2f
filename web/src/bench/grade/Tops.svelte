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

  let { session, view }: { session: Session; view: View } = $props()
  const units = $derived(session.units)
  const run = $derived(session.run)
  const cut = $derived(session.choice(session.at('/post/cut')))
  const seen = $derived(units.smallestMark / 2)
  const infills = $derived(run.bays.filter((b) => b.infill))
</script>

{#if !run.posts.length}
  <p class="text-pencil">First, how long is the run?</p>
{:else}
  <div class="grid max-w-5xl gap-x-8 gap-y-3 md:grid-cols-2">
    <Choice
      label="When tops are cut"
      value={cut}
      options={session.catalogue.choices['post/cut']!}
      onpick={(v) =>
        session.commit(
          [{ path: session.at('/post/cut'), value: v }],
          v === 'first' ? 'Tops cut first' : 'Tops cut after',
        )}
    />
    <div class="grid grid-cols-2 content-start gap-3">
      <LengthField {session} path={session.at('/string/mark')} label="Reference mark below the top" />
      <LengthField {session} path={session.at('/post/mark')} label="Maker's grade mark below it" optional />
    </div>
  </div>
  <ReportTable {session} {view} table="posts" caption="Posts: all heights above the ground at the post" />
  <ReportTable {session} {view} table="bays" caption="Bays: from each post to the next" />
  <p class="mt-2 max-w-4xl text-pencil">
    Posts and pickets stay plumb on a slope; only rails and panels lean. A tape on the slope reads more than
    the level distance: set posts by the level one.
  </p>
  <p class="mt-2">
    <FileLink {session} what="posts" run={session.run.id}>The posts as CSV</FileLink>, with what each way of
    setting tops measures from;
    <FileLink {session} what="bays" run={session.run.id}>the bays</FileLink>.
  </p>
  {#if infills.length}
    <h3 class="mt-5 font-bold">Under the panels</h3>
    <ul class="mt-1 grid max-w-4xl gap-1.5" data-testid="infills">
      {#each infills as b (b.label)}
        {@const f = b.infill!}
        <li class="border border-line bg-sheet px-3 py-2">
          <strong>{b.label}</strong>, <Fraction mm={f.long} {units} /> between the faces:
          {#if f.kind === 'gravel boards'}
            {f.boards}
            {f.boards === 1 ? 'gravel board' : 'gravel boards'} of <Fraction
              mm={f.board}
              {units}
            />{#if f.let > seen}, let <Fraction mm={f.let} {units} /> into the high ground{/if}.
          {:else}
            {f.boards}
            {f.boards === 1 ? 'board' : 'boards'} of <Fraction mm={f.board} {units} />, cut from
            <Fraction mm={f.start} {units} /> high at {b.from} to <Fraction mm={f.end} {units} /> at {b.to}{#if f.marks.length > 2},
              over
              {#each f.marks.slice(1, -1) as k, i (i)}{i ? ', ' : ''}<Fraction mm={k.under} {units} /> at
                <Fraction mm={k.at} {units} />{/each}{/if}.
          {/if}
        </li>
      {/each}
    </ul>
  {/if}
{/if}
