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

  let { session, view }: { session: Session; view: View } = $props()
  const units = $derived(session.units)
  const soil = $derived.by(() => {
    const id = session.value<string>(session.at('/soil')) ?? session.own<string>('/site/soil')
    const known = session.catalogue.soils.find((s) => s.id === id)
    return known ? known.name.toLowerCase() : 'soil that is not known, taken as clay'
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
  <span
    >A figure for comparing footings by a published formula, never an approval. Posts, rails and fixings may
    give way first; an engineer decides where wind matters.</span
  >
</p>
{#if weakest >= 0}
  {@const w = session.run.posts[weakest]!}
  <p class="mt-3 text-[1.05rem]">
    <span data-testid="code-wind"
      >{#if code === undefined}What wind does the local code ask?
        <strong>Ask your building office.</strong>{:else}The local code asks
        <strong>{wind(code, units)}</strong>.{/if}</span
    >
    For comparison: the weakest footing of {session.run.name || session.run.id} is <strong>{w.label}</strong>,
    at a gust of <strong>{wind(w.wind!.gust, units)}</strong>{#if w.wind!.wider}; one size wider <strong
        >{wind(w.wind!.wider.gust, units)}</strong
      >{/if}{#if w.wind!.deeper}, one step deeper <strong>{wind(w.wind!.deeper.gust, units)}</strong>{/if}.
  </p>
{/if}
<p class="mt-1 text-pencil">
  In {soil}, exposure {session.choice('/site/exposure')}, {Math.round(100 * session.run.solid)} % of the face solid.
  <button class="underline pointer-coarse:min-h-11" onclick={() => (session.nav.parts.dig = 'site')}
    >Change that under Frost and soil</button
  >
</p>
<PostTable
  {session}
  {view}
  caption="Gust at the footing's limit, to compare"
  head={['As planned', 'One size wider', 'One step deeper']}
>
  {#snippet row(p)}
    {#if p.wind}
      <td class="text-[1.05rem] font-semibold"
        ><Figure why={ofPost(session.run, p, 'gust')} of="{p.label} gust">{wind(p.wind.gust, units)}</Figure
        ></td
      >
      <td>
        {#if p.wind.wider}{wind(p.wind.wider.gust, units)}
          <span class="ml-2 text-pencil"><Fraction mm={p.wind.wider.size} {units} /> wide</span>{/if}
      </td>
      <td>
        {#if p.wind.deeper}{wind(p.wind.deeper.gust, units)}
          <span class="ml-2 text-pencil">dug <Fraction mm={p.wind.deeper.size} {units} /></span>{/if}
      </td>
    {:else}
      <td colspan="3" class="text-pencil">{p.stays ? 'old post' : 'dug with the run before'}</td>
    {/if}
  {/snippet}
</PostTable>
{#if leaves.length}
  <div {@attach scrolls} class="relative mt-4 overflow-x-auto border border-line bg-sheet">
    <table class="sheet-table w-full">
      <caption class="px-2 pt-2 text-left font-bold"
        >What the leaves do to the posts that they hang on</caption
      >
      <thead>
        <tr
          ><th scope="col">Post</th><th scope="col">Leaf</th><th scope="col">Pulls with</th><th scope="col"
            >of the limit</th
          ><th scope="col">Closed</th><th scope="col">Open</th></tr
        >
      </thead>
      <tbody>
        {#each leaves as p (p.label)}
          {@const l = p.wind!.leaf!}
          <tr>
            <td class="font-bold">{p.label}</td>
            <td
              >{weight(l.mass, units)}{#if l.estimated}, estimated{/if}, <Fraction mm={l.width} {units} /></td
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
        label="One leaf of {g.name || g.id}, {units.system === 'metric' ? 'kg' : 'lb'}"
        value={given(g.path)}
        hint="left empty: estimated"
        error={session.wrongAt(`${g.path}/weight`)}
        oncommit={(n) =>
          session.commit(
            [{ path: `${g.path}/weight`, value: n * perMass }],
            `Leaf of ${g.name || g.id}: ${n}`,
          )}
        onclear={() =>
          session.commit([{ path: `${g.path}/weight`, value: null }], `Leaf of ${g.name || g.id} estimated`)}
      />
    {/each}
  </div>
{/if}
