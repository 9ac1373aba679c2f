<script lang="ts">
  // The panels, boards or rails that set the bays: which are whole, which are
  // cut, and where every rail breaks.
  import type { Session } from '../../lib/session.svelte'
  import Fraction from '../../parts/Fraction.svelte'

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
    The bays are equal and no piece of a length sets them: panels, boards and rails are cut to the clear
    opening.
  </p>
{:else if run.way === 'stock rails'}
  <h2 class="font-bold">Every rail, from joint to joint</h2>
  <p class="text-pencil">
    Rails of <Fraction mm={full} {units} long /> break on posts only; no post carries a joint in every rail where
    that can be had. {run.totals.pieces} pieces, {run.totals.cutPieces} of them cut.
  </p>
  {#each run.rails as row (row.row)}
    <h3 class="mt-3 font-semibold">Rail {row.row}{row.row === 1 ? ', the lowest' : ''}</h3>
    <ol class="mt-1 flex flex-wrap gap-1" data-rail={row.row}>
      {#each row.pieces as p (p.from)}
        <li
          class="border px-2 py-1 {p.cut ? 'border-warn bg-warn-wash' : 'border-line bg-sheet'}"
          style:flex="{p.length} 0 auto"
        >
          <span class="text-pencil">{p.from}–{p.to}</span>
          <strong><Fraction mm={p.length} {units} long /></strong>{#if p.cut}<span class="ml-1 font-medium"
              >cut</span
            >{/if}
        </li>
      {/each}
    </ol>
  {/each}
{:else}
  <h2 class="font-bold">{whole} whole {what}, {cut.length} cut</h2>
  <p class="text-pencil">
    A whole one is <Fraction mm={full} {units} />{#if play}, with <Fraction mm={play} {units} /> play at each joint{/if}.
  </p>
  {#if cut.length}
    <table class="sheet-table mt-3 border border-line bg-sheet">
      <caption class="px-2 pt-2 text-left font-bold">To cut</caption>
      <thead
        ><tr
          ><th scope="col">Bay</th><th scope="col">Between</th><th scope="col">Cut to</th><th scope="col"
            >Off</th
          ></tr
        ></thead
      >
      <tbody>
        {#each cut as b (b.label)}
          <tr
            ><td class="font-bold">{b.label}</td><td>{b.from} and {b.to}</td><td
              class="text-[1.05rem] font-semibold"><Fraction mm={b.piece ?? 0} {units} /></td
            ><td><Fraction mm={full - (b.piece ?? 0)} {units} /></td></tr
          >
        {/each}
      </tbody>
    </table>
  {/if}
  {#each run.bays.filter((b) => b.lead || b.trail) as b (b.label)}
    <p class="mt-2">
      <strong>At the corner {b.lead ? b.from : b.to}:</strong> the panel of {b.label} begins
      <strong><Fraction mm={(b.lead || b.trail)!} {units} /></strong> from the post's middle, where the two
      panels {session.value(session.at('/spacing/turning')) === 'overlapping' ? 'overlap' : 'meet'}.
    </p>
  {/each}
  {#if trimmed.length}
    <p class="mt-3">
      <strong>Tongues to trim:</strong>
      {trimmed.map((b) => `${b.label}${b.trims! > 1 ? ' at both ends' : ''}`).join(', ')}: ends, corners and
      gate posts are morticed half as deep.
    </p>
  {/if}
{/if}
