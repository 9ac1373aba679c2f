<script lang="ts">
  // What is marked on every post and cut for every bay: tops, faces, steps,
  // and the panels and rails as long as they lie on the slope.
  import type { View } from '../../drawing/view.svelte'
  import type { Session } from '../../lib/session.svelte'
  import { short } from '../../lib/tape'
  import Choice from '../../parts/Choice.svelte'
  import Figure from '../../parts/Figure.svelte'
  import Fraction from '../../parts/Fraction.svelte'
  import LengthField from '../LengthField.svelte'
  import PostTable from '../PostTable.svelte'
  import { ofBay, ofPost, ofTops } from '../../lib/figure'

  let { session, view }: { session: Session; view: View } = $props()
  const units = $derived(session.units)
  const run = $derived(session.run)
  const holes = $derived(run.posts.some((p) => p.holes))
  const cut = $derived(session.choice(session.at('/post/cut')))
  const seen = $derived(units.smallestMark / 2)
  const overlaps = $derived(run.posts.some((p) => Math.abs(p.step) >= seen))
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
  <PostTable
    {session}
    {view}
    caption="Posts: all heights above the ground at the post"
    head={[
      'Top',
      'Face before, after',
      'Reference mark',
      overlaps ? 'Step, overlap' : 'Break',
      'Post from',
      cut === 'first' ? 'Cut to' : 'Cut off',
      ...(holes ? ['Rail holes, middles'] : []),
    ]}
  >
    {#snippet row(p)}
      <td class="text-[1.05rem] font-semibold"
        ><Figure why={ofPost(session.run, p, 'top')} of="{p.label} top above ground"
          ><Fraction mm={p.reveal} {units} /></Figure
        ></td
      >
      <td
        >{#if Math.abs(p.revealBefore - p.revealAfter) >= seen}<Fraction mm={p.revealBefore} {units} />,
          <Fraction mm={p.revealAfter} {units} />{:else}alike{/if}</td
      >
      <td
        ><Figure why={ofTops(session.run)} of="{p.label} reference mark"
          ><Fraction mm={p.mark} {units} /></Figure
        ></td
      >
      <td
        >{#if Math.abs(p.step) >= seen}<strong
            >{p.step > 0 ? 'up' : 'down'} <Fraction mm={Math.abs(p.step)} {units} /></strong
          >, <Fraction mm={p.overlap} {units} />{:else if p.grade}grade post{/if}</td
      >
      <td
        ><Figure why={ofPost(session.run, p, 'stock')} of="{p.label} post length"
          >{#if p.stock !== undefined}<Fraction mm={p.stock} {units} />{:else}<span
              class="font-semibold text-stop">none long enough</span
            >{/if}</Figure
        ></td
      >
      <td
        >{#if cut === 'first'}<Fraction mm={p.needed} {units} />{:else if p.cutOff !== undefined}<Fraction
            mm={p.cutOff}
            {units}
          />{/if}</td
      >
      {#if holes}
        <td
          >{#each p.holes ?? [] as h, i (i)}{i ? ' · ' : ''}<Fraction
              mm={h.before ?? h.after ?? 0}
              {units}
            />{#if h.before !== undefined && h.after !== undefined && Math.abs(h.before - h.after) >= seen}<span
                class="text-pencil">/<Fraction mm={h.after} {units} /></span
              >{/if}{/each}</td
        >
      {/if}
    {/snippet}
  </PostTable>
  <PostTable
    {session}
    {view}
    caption="Bays: from each post to the next"
    head={[
      'Leans',
      'Angle',
      'Rail on the slope, face to face',
      'Centres, level',
      'On the ground',
      'Gap at the faces',
      'Gap, least',
      'most',
      'Ground',
    ]}
  >
    {#snippet row(p, b)}
      {#if b}
        <td
          >{#if Math.abs(b.lean) >= seen}<strong
              >{b.lean > 0 ? 'up' : 'down'} <Fraction mm={Math.abs(b.lean)} {units} /></strong
            >{:else}level{/if}{b.gate ? ', gate' : ''}</td
        >
        <td>{Math.abs(b.lean) >= seen ? `${Math.abs(b.angle).toFixed(1)}°` : ''}</td>
        <td class="text-[1.05rem] font-semibold"
          >{#if !b.gate}<Figure why={ofBay(session.run, b, 'lean')} of="{b.label} rail on the slope"
              ><Fraction mm={b.long} {units} /></Figure
            >{/if}</td
        >
        <td><Fraction mm={b.centreToCentre} {units} /></td>
        <td><Fraction mm={b.onGround} {units} /></td>
        <td><Fraction mm={b.faceStart} {units} />, <Fraction mm={b.faceEnd} {units} /></td>
        <td
          ><Figure why={ofBay(session.run, b, 'gap')} of="{b.label} gap"
            ><Fraction mm={b.gapLeast.gap} {units} /></Figure
          ></td
        >
        <td><Fraction mm={b.gapMost.gap} {units} /></td>
        <td class="font-semibold {b.infill ? '' : 'text-stop'}"
          >{#if b.cut}cut {short(b.cut.depth, units)}{/if}
          {#if b.infill}{b.infill.boards} {b.infill.boards === 1 ? 'board' : 'boards'}{:else if b.fill}fill {short(
              b.fill.depth,
              units,
            )}{/if}</td
        >
      {:else}<td colspan="9" class="text-pencil">{p.label} is the last post</td>{/if}
    {/snippet}
  </PostTable>
  <p class="mt-2 max-w-4xl text-pencil">
    Posts and pickets stay plumb on a slope; only rails and panels lean. A tape on the slope reads more than
    the level distance: set posts by the level one.
  </p>
  <p class="mt-2">
    <a
      class="underline"
      href="/api/jobs/{session.id}/export?{new URLSearchParams({ what: 'tops', run: session.run.id })}"
      download>All of it as CSV</a
    >, with what each way of setting tops measures from.
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
