<script lang="ts">
  // What goes into the holes, one row for all that are alike, and the picked
  // post's hole layer by layer, in the order that it is filled.
  import type { HoleCard, HoleLayer } from '../../gen/api'
  import type { View } from '../../drawing/view.svelte'
  import type { Session } from '../../lib/session.svelte'
  import { ofPost } from '../../lib/figure'
  import { small } from '../../lib/tape'
  import Figure from '../../parts/Figure.svelte'
  import Fraction from '../../parts/Fraction.svelte'
  import HolePicture from '../dig/HolePicture.svelte'
  import { scrolls } from '../../lib/scrolls'
  import * as msg from '../../gen/messages'

  let { session, view }: { session: Session; view: View } = $props()
  const units = $derived(session.units)
  const p = $derived(session.run.posts[session.post]!)
  const card = $derived<HoleCard | undefined>(session.run.cards[p.card])
  const rows = $derived(
    session.run.cards
      .map((c, i) => {
        const posts = session.run.posts.filter((q) => q.card === i && !q.shared)
        return { c, i, posts, bags: posts.reduce((n, q) => n + q.bags, 0) }
      })
      .filter((r) => r.posts.length),
  )
  const names: Record<HoleLayer['kind'], string> = {
    gravel: msg.common_gravel_tamped,
    concrete: msg.common_concrete,
    'rocks in slurry': msg.by_hole_stone_in_slurry,
    'large stone': msg.by_hole_large_stone,
    'middle stone': msg.by_hole_middle_stone,
    'small stone': msg.by_hole_small_stone,
    soil: msg.by_hole_soil_over_it,
    mound: msg.by_hole_soil_mounded_at_the_post,
    crown: msg.by_hole_crown_sloped_to_shed_water,
    'inside the post': msg.by_hole_inside_the_post,
  }
  /** From the bottom up, as it is filled. */
  const layers = $derived([...(card?.layers ?? [])].sort((a, b) => b.to - a.to))
  function pick(label: string) {
    session.post = session.run.posts.findIndex((q) => q.label === label)
    view.show(session.drawn.posts[session.drawnPost]!.station)
  }
  const list = (labels: string[]) =>
    labels.length > 8
      ? msg.by_hole_and_more({ v1: labels.slice(0, 7).join(', '), v2: labels.length - 7 })
      : labels.join(', ')
</script>

<div class="grid max-w-6xl items-start gap-x-6 gap-y-4 md:grid-cols-[13rem_minmax(0,1fr)]">
  {#if card}
    <div class="border border-line bg-sheet p-1"><HolePicture {session} {card} bare /></div>
    <section aria-labelledby="by-layer">
      <h2 id="by-layer" class="font-bold">{msg.by_hole_from_the_bottom_up({ label: p.label })}</h2>
      <ol class="mt-1" data-testid="layers">
        {#each layers as l (l.kind + l.to)}
          <li class="flex flex-wrap items-baseline gap-x-3 border-t border-rule py-1">
            <strong class="min-w-44">{names[l.kind]}</strong>
            <span class="min-w-16 text-[1.1rem] font-bold"><Fraction mm={l.to - l.from} {units} /></span>
            <span class="text-pencil">{small(l.volume, units)}</span>
          </li>
        {/each}
      </ol>
      <p class="mt-2 text-[1.1rem]">
        {#if card.bag && card.concrete > 0}<strong
            ><Figure why={ofPost(session.run, p, 'concrete')} of={msg.common_bags({ label: p.label })}
              >{card.bags.toFixed(1)}</Figure
            >
            {card.bag}s</strong
          >{:else if !card.concrete}{msg.by_hole_no_concrete}{/if}
      </p>
    </section>
  {:else}
    <p class="max-w-prose">{msg.by_hole_an_old_post_stands_here}</p>
  {/if}
</div>
<div {@attach scrolls} class="mt-4 overflow-x-auto border border-line bg-sheet">
  <table class="sheet-table w-full" data-testid="pours">
    <caption class="px-2 pt-2 text-left font-bold">{msg.by_hole_holes_that_are_filled_alike}</caption>
    <thead>
      <tr>
        <th scope="col">{msg.common_posts}</th>
        {#each [msg.common_how_many, msg.common_hole, msg.common_gravel, msg.common_concrete, msg.by_hole_bags_each, msg.common_bags_2] as h (h)}<th
            scope="col"
            class="text-right!">{h}</th
          >{/each}
      </tr>
    </thead>
    <tbody>
      {#each rows as r (r.i)}
        <tr class={r.i === p.card ? 'bg-mallow-wash' : ''}>
          <td class="whitespace-normal!"
            ><button
              class="min-h-9 text-left font-bold {r.i === p.card ? 'text-mallow' : ''}"
              aria-pressed={r.i === p.card}
              onclick={() => pick(r.posts[0]!.label)}>{list(r.posts.map((q) => q.label))}</button
            ></td
          >
          <td class="text-right">{r.posts.length}</td>
          <td class="text-right"><Fraction mm={r.c.width} {units} /> × <Fraction mm={r.c.depth} {units} /></td
          >
          <td class="text-right">{r.c.gravel > 0 ? small(r.c.gravel, units) : '—'}</td>
          <td class="text-right">{r.c.concrete > 0 ? small(r.c.concrete, units) : '—'}</td>
          <td class="text-right">{r.c.bags > 0 ? r.c.bags.toFixed(1) : '—'}</td>
          <td class="text-right text-[1.05rem] font-semibold">{r.bags > 0 ? r.bags.toFixed(1) : '—'}</td>
        </tr>
      {/each}
    </tbody>
  </table>
</div>
<p class="mt-2 text-pencil">{msg.by_hole_pour_by_the_tenths_here}</p>
