<script lang="ts">
  // The panels, boards or rails that set the bays: which are whole, which are
  // cut, and where every rail breaks.
  import type { Session } from '../../lib/session.svelte'
  import Fraction from '../../parts/Fraction.svelte'
  import * as msg from '../../gen/messages'

  let { session }: { session: Session } = $props()
  const units = $derived(session.units)
  const run = $derived(session.run)
  const cut = $derived(run.bays.filter((b) => b.pieceCut))
  const trimmed = $derived(run.bays.filter((b) => b.trims))
  const whole = $derived(run.bays.filter((b) => b.piece && !b.pieceCut).length)
  const full = $derived(session.value<number>(session.at('/spacing/piece')) ?? 0)
  const play = $derived(session.value<number>(session.at('/spacing/play')) ?? 0)
  const what = $derived(
    {
      'panels between': 'panels',
      'panels on faces': 'panels',
      module: 'boards',
      'stock rails': 'rails',
      'overlapping rails': 'rails',
      equal: '',
    }[run.way],
  )
</script>

{#if !run.posts.length || run.way === 'equal'}
  <p class="text-pencil">
    {msg.pieces_the_bays_are_equal_and}
  </p>
{:else if run.way === 'stock rails'}
  <h2 class="font-bold">{msg.pieces_every_rail_from_joint_to}</h2>
  <p class="text-pencil">
    {msg.pieces_rails_of}
    <Fraction mm={full} {units} long />
    {msg.pieces_break_on_posts_only_no({ pieces: run.totals.pieces, cutPieces: run.totals.cutPieces })}
  </p>
  {#each run.rails as row (row.row)}
    <h3 class="mt-3 font-semibold">
      {msg.pieces_rail({ row: row.row, v2: row.row === 1 ? msg.pieces_the_lowest : '' })}
    </h3>
    <ol class="mt-1 flex flex-wrap gap-1" data-rail={row.row}>
      {#each row.pieces as p (p.from)}
        <li
          class="border px-2 py-1 {p.cut ? 'border-warn bg-warn-wash' : 'border-line bg-sheet'}"
          style:flex="{p.length} 0 auto"
        >
          <span class="text-pencil">{p.from}–{p.to}</span>
          <strong><Fraction mm={p.length} {units} long /></strong>{#if p.cut}<span class="ml-1 font-medium"
              >{msg.pieces_cut}</span
            >{/if}
        </li>
      {/each}
    </ol>
  {/each}
{:else}
  <h2 class="font-bold">{msg.pieces_whole_cut({ whole, what, count: cut.length })}</h2>
  <p class="text-pencil">
    {msg.pieces_a_whole_one_is}
    <Fraction mm={full} {units} />{#if play}{msg.pieces_with}
      <Fraction mm={play} {units} />
      {msg.pieces_play_at_each_joint}{/if}.
  </p>
  {#if cut.length}
    <table class="sheet-table mt-3 border border-line bg-sheet">
      <caption class="px-2 pt-2 text-left font-bold">{msg.pieces_to_cut}</caption>
      <thead
        ><tr
          ><th scope="col">{msg.pieces_bay}</th><th scope="col">{msg.pieces_between}</th><th scope="col"
            >{msg.pieces_cut_to}</th
          ><th scope="col">{msg.pieces_off}</th></tr
        ></thead
      >
      <tbody>
        {#each cut as b (b.label)}
          <tr
            ><td class="font-bold">{b.label}</td><td>{msg.pieces_and({ from: b.from, to: b.to })}</td><td
              class="text-[1.05rem] font-semibold"><Fraction mm={b.piece ?? 0} {units} /></td
            ><td><Fraction mm={full - (b.piece ?? 0)} {units} /></td></tr
          >
        {/each}
      </tbody>
    </table>
  {/if}
  {#each run.bays.filter((b) => b.lead || b.trail) as b (b.label)}
    <p class="mt-2">
      <strong>{msg.pieces_at_the_corner({ v1: b.lead ? b.from : b.to })}</strong>
      {msg.pieces_the_panel_of_begins({ label: b.label })}
      <strong><Fraction mm={(b.lead || b.trail)!} {units} /></strong>
      {msg.pieces_from_the_post_s_middle({
        v1:
          session.value(session.at('/spacing/turning')) === 'overlapping'
            ? msg.pieces_overlap
            : msg.pieces_meet,
      })}
    </p>
  {/each}
  {#if trimmed.length}
    <p class="mt-3">
      <strong>{msg.pieces_tongues_to_trim}</strong>
      {msg.pieces_ends_corners_and_gate_posts({
        v1: trimmed.map((b) => `${b.label}${b.trims! > 1 ? msg.pieces_at_both_ends : ''}`).join(', '),
      })}
    </p>
  {/if}
{/if}
