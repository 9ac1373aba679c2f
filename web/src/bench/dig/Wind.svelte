<script lang="ts">
  // At what gust each footing reaches the published limit: as it is, one size
  // wider, one step deeper.
  import TriangleAlert from '@lucide/svelte/icons/triangle-alert'
  import type { View } from '../../drawing/view.svelte'
  import type { Session } from '../../lib/session.svelte'
  import { torque, weight, wind } from '../../lib/tape'
  import Figure from '../../parts/Figure.svelte'
  import Fraction from '../../parts/Fraction.svelte'
  import NumberEntry from '../../parts/NumberEntry.svelte'
  import PostTable from '../PostTable.svelte'
  import { ofPost } from '../../lib/figure'
  import { scrolls } from '../../lib/scrolls'
  import * as msg from '../../gen/messages'

  let { session, view }: { session: Session; view: View } = $props()
  const units = $derived(session.units)
  const soil = $derived.by(() => {
    const id = session.value<string>(session.at('/soil')) ?? session.own<string>('/site/soil')
    const known = session.catalogue.soils.find((s) => s.id === id)
    return known ? known.name.toLowerCase() : msg.wind_soil_that_is_not_known
  })
  const weakest = $derived(
    session.run.posts.reduce<number>(
      (w, p, i) => (p.wind && (w < 0 || p.wind.gust < session.run.posts[w]!.wind!.gust) ? i : w),
      -1,
    ),
  )
  const leaves = $derived(session.run.posts.filter((p) => p.wind?.leaf))
  const code = $derived(session.value<number>('/site/codeWind'))
  const perMass = $derived(units.system === 'metric' ? 1 : 0.45359237)
  const given = (path: string) => {
    const kg = session.value<number>(`${path}/weight`)
    return kg === undefined ? undefined : Math.round((kg / perMass) * 10) / 10
  }
</script>

<p class="flex max-w-4xl gap-2 bg-warn-wash px-3 py-2 leading-snug text-warn">
  <TriangleAlert size={18} class="mt-0.5 shrink-0" aria-hidden="true" />
  <span>{msg.wind_a_figure_for_comparing_footings}</span>
</p>
{#if weakest >= 0}
  {@const w = session.run.posts[weakest]!}
  <p class="mt-3 text-[1.05rem]">
    <span data-testid="code-wind"
      >{#if code === undefined}{msg.wind_what_wind_does_the_local}
        <strong>{msg.wind_ask_your_building_office}</strong>{:else}{msg.wind_the_local_code_asks}
        <strong>{wind(code, units)}</strong>.{/if}</span
    >
    {msg.wind_for_comparison_the_weakest_footing({ v1: session.run.name || session.run.id })}
    <strong>{w.label}</strong>{msg.wind_at_a_gust_of}
    <strong>{wind(w.wind!.gust, units)}</strong>{#if w.wind!.wider}{msg.wind_one_size_wider}
      <strong>{wind(w.wind!.wider.gust, units)}</strong>{/if}{#if w.wind!.deeper}{msg.wind_one_step_deeper}
      <strong>{wind(w.wind!.deeper.gust, units)}</strong>{/if}.
  </p>
{/if}
<p class="mt-1 text-pencil">
  {msg.wind_in_exposure_of_the_face({
    soil,
    choice: session.choice('/site/exposure'),
    round: Math.round(100 * session.run.solid),
  })}
  <button class="underline pointer-coarse:min-h-11" onclick={() => (session.nav.parts.dig = 'site')}
    >{msg.wind_change_that_under_frost_and}</button
  >
</p>
<PostTable
  {session}
  {view}
  caption={msg.wind_gust_at_the_footing_s}
  head={[msg.common_as_planned, msg.wind_one_size_wider_2, msg.wind_one_step_deeper_2]}
>
  {#snippet row(p)}
    {#if p.wind}
      <td class="text-[1.05rem] font-semibold"
        ><Figure why={ofPost(session.run, p, 'gust')} of={msg.common_gust({ label: p.label })}
          >{wind(p.wind.gust, units)}</Figure
        ></td
      >
      <td>
        {#if p.wind.wider}{wind(p.wind.wider.gust, units)}
          <span class="ml-2 text-pencil"><Fraction mm={p.wind.wider.size} {units} /> {msg.wind_wide}</span
          >{/if}
      </td>
      <td>
        {#if p.wind.deeper}{wind(p.wind.deeper.gust, units)}
          <span class="ml-2 text-pencil">{msg.wind_dug} <Fraction mm={p.wind.deeper.size} {units} /></span
          >{/if}
      </td>
    {:else}
      <td colspan="3" class="text-pencil">{p.stays ? msg.wind_old_post : msg.wind_dug_with_the_run_before}</td
      >
    {/if}
  {/snippet}
</PostTable>
{#if leaves.length}
  <div {@attach scrolls} class="relative mt-4 overflow-x-auto border border-line bg-sheet">
    <table class="sheet-table w-full">
      <caption class="px-2 pt-2 text-left font-bold">{msg.wind_what_the_leaves_do_to}</caption>
      <thead>
        <tr
          ><th scope="col">{msg.common_post}</th><th scope="col">{msg.wind_leaf}</th><th scope="col"
            >{msg.wind_pulls_with}</th
          ><th scope="col">{msg.wind_of_the_limit}</th><th scope="col">{msg.common_closed}</th><th scope="col"
            >{msg.common_open}</th
          ></tr
        >
      </thead>
      <tbody>
        {#each leaves as p (p.label)}
          {@const l = p.wind!.leaf!}
          <tr>
            <td class="font-bold">{p.label}</td>
            <td
              >{weight(l.mass, units)}{#if l.estimated}{msg.common_estimated}{/if}, <Fraction
                mm={l.width}
                {units}
              /></td
            >
            <td>{torque(l.moment, units)}</td>
            <td>{Math.round(100 * l.share)} %</td>
            <td>{wind(l.closed, units)}</td>
            <td>{wind(l.open, units)}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
  <div class="mt-3 grid max-w-3xl grid-cols-2 gap-3 sm:grid-cols-3">
    {#each session.run.gates as g (g.id)}
      <NumberEntry
        label={msg.wind_one_leaf_of({
          v1: g.name || g.id,
          v2: units.system === 'metric' ? msg.wind_kg : msg.common_lb,
        })}
        value={given(g.path)}
        hint={msg.common_left_empty_estimated}
        error={session.wrongAt(`${g.path}/weight`)}
        oncommit={(n) =>
          session.commit(
            [{ path: `${g.path}/weight`, value: n * perMass }],
            msg.wind_leaf_of({ v1: g.name || g.id, v2: n }),
          )}
        onclear={() =>
          session.commit(
            [{ path: `${g.path}/weight`, value: null }],
            msg.wind_leaf_of_estimated({ v1: g.name || g.id }),
          )}
      />
    {/each}
  </div>
{/if}
