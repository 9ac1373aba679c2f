<script lang="ts">
  // The card of the picked post's hole: all that is needed to dig and fill it.
  import type { View } from '../../drawing/view.svelte'
  import type { Session } from '../../lib/session.svelte'
  import { small } from '../../lib/tape'
  import Figure from '../../parts/Figure.svelte'
  import Fraction from '../../parts/Fraction.svelte'
  import Words from '../../parts/Words.svelte'
  import HolePicture from './HolePicture.svelte'
  import Stopped from './Stopped.svelte'
  import { ofPost } from '../../lib/figure'
  import * as msg from '../../gen/messages'

  let { session, view }: { session: Session; view: View } = $props()
  const units = $derived(session.units)
  const p = $derived(session.run.posts[session.post]!)
  const card = $derived(session.run.cards[p.card])
  const alike = $derived(session.run.posts.filter((q) => q.card === p.card && !q.shared).map((q) => q.label))
  const dugWith = $derived(p.shared ? session.plan.runs.find((r) => r.id === p.shared) : undefined)

  function there() {
    const run = dugWith!
    session.pickRun(run.id)
    session.post = run.posts.length - 1
    view.show(run.length)
  }
</script>

{#if !card}
  <p class="max-w-prose">{msg.hole_card_an_old_post_stands_here}</p>
{:else}
  <article
    class="grid max-w-6xl gap-x-8 gap-y-4 lg:grid-cols-[minmax(0,1.1fr)_minmax(0,1fr)]"
    aria-label={msg.hole_card_hole_card_of({ label: p.label })}
    data-testid="hole-card"
  >
    <div class="self-start border border-line bg-sheet p-2 lg:sticky lg:top-0">
      <HolePicture {session} {card} wanted={p.stopped?.wanted} />
    </div>
    <div class="grid min-w-0 grid-cols-1 content-start gap-4">
      {#if dugWith}
        <p class="border-l-4 border-l-line bg-sheet px-3 py-2">
          {msg.hole_card_is_the_corner_post_of({ label: p.label, v2: dugWith.name || dugWith.id })}
          <button class="btn ml-2" onclick={there}>{msg.hole_card_go_there}</button>
        </p>
      {/if}
      <section aria-labelledby="card-steps">
        <h2 id="card-steps" class="font-bold">
          {msg.hole_card_dig_and_fill({ label: p.label })}{#if card.method !== 'driven'}, <Fraction
              mm={card.width}
              {units}
            /> × <Fraction mm={card.depth} {units} />{/if}
        </h2>
        {#if p.hand?.length}
          <p class="mt-1 bg-stop-wash px-2 py-1 font-medium text-stop">
            {msg.hole_card_by_hand_only_within_the({
              v1: p.hand.map((id) => session.run.inTheWay.find((o) => o.id === id)?.name ?? id).join(', '),
            })}
          </p>
        {/if}
        <ol class="mt-1 grid list-decimal gap-1 pl-6 leading-snug marker:font-bold">
          {#each card.steps as s, i (i)}<li class="pl-1"><Words says={s} {units} /></li>{/each}
        </ol>
      </section>
      <dl class="flex flex-wrap gap-x-6 gap-y-1 border-t border-rule pt-2">
        {#snippet sum(name: string, words: string)}
          <div>
            <dt class="text-[0.88rem] text-pencil">{name}</dt>
            <dd class="text-[1.1rem] font-bold">{words}</dd>
          </div>
        {/snippet}
        {#if card.bag && card.concrete > 0}
          <div>
            <dt class="text-[0.88rem] text-pencil">{card.bag}s</dt>
            <dd class="text-[1.1rem] font-bold">
              <Figure why={ofPost(session.run, p, 'concrete')} of={msg.common_bags({ label: p.label })}
                >{card.bags.toFixed(1)}</Figure
              >
            </dd>
          </div>
        {/if}
        {#if card.concrete > 0}{@render sum(msg.common_concrete, small(card.concrete, units))}{/if}
        {#if card.stone > 0}{@render sum(msg.hole_card_stone, small(card.stone, units))}{/if}
        {#if card.gravel > 0}{@render sum(msg.common_gravel_tamped, small(card.gravel, units))}{/if}
        {@render sum(msg.hole_card_dug, small(card.dug, units))}
        {@render sum(msg.hole_card_away_loose, small(card.spoil, units))}
      </dl>
      {#if alike.length > 1}
        <p class="text-pencil">
          {msg.hole_card_the_same_card_for_posts({
            count: alike.length,
            v2: alike.slice(0, 12).join(', '),
            v3: alike.length > 12 ? ' …' : '',
          })}
        </p>
      {/if}
      {#if !p.shared}{#key p.label + session.run.id}<Stopped {session} post={p} />{/key}{/if}
    </div>
  </article>
{/if}
