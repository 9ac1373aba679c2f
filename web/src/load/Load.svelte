<script lang="ts">
  // What the truck must carry. A change shows its difference for a moment.
  import ChevronUp from '@lucide/svelte/icons/chevron-up'
  import { untrack } from 'svelte'
  import type { Totals } from '../gen/api'
  import { layout } from '../lib/layout.svelte'
  import type { Session } from '../lib/session.svelte'
  import { groups, whyOf, type Group } from '../lib/bill'
  import { bulk, small } from '../lib/tape'
  import { kindName } from '../lib/names'
  import Figure from '../parts/Figure.svelte'
  import Fraction from '../parts/Fraction.svelte'
  import Words from '../parts/Words.svelte'
  import { ofTotals } from '../lib/figure'
  import * as msg from '../gen/messages'

  let { session, hidden = false }: { session: Session; hidden?: boolean } = $props()
  const t = $derived(session.plan.totals)
  const units = $derived(session.units)
  let open = $state(false)

  // Differences are against the load as it was before the change began, and
  // fade a while after the last one.
  let settled = $state.raw<Totals | null>(null)
  let timer: ReturnType<typeof setTimeout> | undefined
  $effect(() => {
    const now = t
    untrack(() => {
      settled ??= now
      clearTimeout(timer)
      timer = setTimeout(() => (settled = now), 5000)
    })
    return () => clearTimeout(timer)
  })
  const signed = (n: number, unit = '') => (n > 0 ? '+' : '−') + Math.abs(n) + unit
  const posts = $derived(settled ? t.posts - settled.posts : 0)
  const bags = $derived(settled ? t.bags - settled.bags : 0)
  const gravel = $derived.by(() => {
    if (!settled) return ''
    const was = bulk(settled.gravelLoose, units)
    const is = bulk(t.gravelLoose, units)
    const diff = t.gravelLoose - settled.gravelLoose
    return was === is ? '' : (diff > 0 ? '+' : '−') + bulk(Math.abs(diff), units)
  })
  const spoken = $derived(
    [posts && signed(posts, ' posts'), bags && signed(bags, ' bags'), gravel && `${gravel} gravel`]
      .filter(Boolean)
      .join(', '),
  )
  const many = $derived(session.plan.runs.length > 1)
  const own = $derived(session.run.totals)
  /** What stands in large figures, live, at the head of a group. */
  const heads: Record<string, 'posts' | 'bags' | 'gravel' | undefined> = {
    post: 'posts',
    concrete: 'bags',
    gravel: 'gravel',
  }
  const head = (g: Group) => heads[g.lines[0]!.item.kind]
  const read = $derived(groups(session.bill.items))
</script>

{#snippet change(text: string)}
  {#if text}<span class="ml-1.5 bg-mallow px-1.5 text-[0.9rem] font-bold text-on-mallow">{text}</span>{/if}
{/snippet}

<aside
  class="border-line bg-paper max-lg:sticky max-lg:bottom-0 max-lg:z-20 max-lg:border-t lg:relative lg:w-64 lg:flex-none lg:overflow-auto lg:border-l {hidden
    ? 'lg:hidden'
    : ''}"
  aria-labelledby="load-title"
>
  <button
    class="flex min-h-13 w-full items-center justify-between gap-2 px-3 text-left lg:hidden"
    aria-expanded={open}
    onclick={() => (open = !open)}
  >
    <span class="font-semibold"
      >{msg.load_posts({ posts: t.posts })}{@render change(posts ? signed(posts) : '')}
      {msg.load_bags({ bags: t.bags })}{@render change(bags ? signed(bags) : '')}
      {msg.load_gravel({ bulk: bulk(t.gravelLoose, units) })}</span
    >
    <ChevronUp size={20} class={open ? 'rotate-180' : ''} aria-hidden="true" />
  </button>
  <div class="px-3 pb-3 lg:block lg:py-1 {open ? 'max-h-[60dvh] overflow-auto' : 'hidden'}">
    <div class="flex items-center justify-between">
      <h2 id="load-title" class="text-[1.05rem] font-bold">
        {msg.load_the_load({ v1: many ? msg.load_whole_job : '' })}
      </h2>
      <button
        class="btn btn-plain -mr-2 px-2 max-lg:hidden"
        aria-label={msg.common_fold_the_load}
        onclick={() => layout.set({ load: false })}>{msg.load_fold}</button
      >
    </div>
    {#if !read.length}<p class="text-pencil">{msg.load_nothing_yet}</p>{/if}
    <dl class="mt-1" data-testid="load">
      {#each read as g (g.name)}
        <div class="border-t border-rule py-2" data-group={g.lines[0]!.item.kind}>
          <dt class="label">{g.name}</dt>
          {#if head(g) === 'posts'}
            <dd class="text-[1.35rem] font-bold" data-load="posts">
              {t.posts}{@render change(posts ? signed(posts) : '')}
            </dd>
            <dd class="text-[0.95rem]">{t.kinds.map((k) => `${k.count} ${kindName[k.kind]}`).join(', ')}</dd>
          {:else if head(g) === 'bags'}
            <dd class="text-[1.35rem] font-bold" data-load="bags">
              <Figure
                why={ofTotals(undefined, 'concrete')}
                of={msg.load_concrete_for_the({ v1: many ? msg.load_job : msg.load_run })}
                >{t.bagKinds.length ? msg.load_bags_2({ bags: t.bags }) : msg.load_no_bag_chosen}</Figure
              >{@render change(bags ? signed(bags) : '')}
            </dd>
            <dd class="text-[1.05rem]">
              {bulk(t.concreteToBuy, units)} = {units.system === 'metric'
                ? msg.load_yd({ v1: (t.concreteToBuy / 0.764554857984).toFixed(2) })
                : `${t.concreteToBuy.toFixed(2)} m³`}
            </dd>
          {:else if head(g) === 'gravel'}
            <dd class="text-[1.35rem] font-bold" data-load="gravel">
              <Figure
                why={ofTotals(undefined, 'gravel')}
                of={msg.load_gravel_for_the({ v1: many ? msg.load_job : msg.load_run })}
                >{bulk(t.gravelLoose, units)}</Figure
              >{@render change(gravel)}
            </dd>
          {/if}
          {#each g.lines as l (l.item.id + l.buy.by)}
            {@const why = whyOf(l.item)}
            <dd class={l.or ? 'text-[0.95rem]' : 'text-[1.05rem]'} data-bill={l.or ? l.buy.by : l.item.id}>
              {#if l.item.unit === 'pieces'}
                <Words says={l.buy.many} {units} /> × <Words says={l.buy.of ?? []} {units} />
                <span class="text-[0.95rem] text-pencil">{l.item.what.toLowerCase()}</span>
              {:else if head(g) === 'gravel' && !l.or}
                <span class="text-pencil"><Words says={l.buy.of ?? []} {units} /></span>
              {:else}
                {#if l.or || !head(g)}<span class="text-pencil">{l.buy.what}</span>{/if}
                {#if why && !l.or && !head(g)}<Figure why={ofTotals(undefined, why)} of={l.item.what}
                    ><Words says={l.buy.many} {units} /></Figure
                  >{:else}<Words says={l.buy.many} {units} />{/if}
                {#if l.buy.of?.length}<span class="text-pencil"><Words says={l.buy.of} {units} /></span>{/if}
              {/if}
            </dd>
          {/each}
          {#if head(g) === 'posts'}
            {#if t.elsewhere}
              <dd class="text-[0.95rem] text-pencil">
                {msg.load_corner_counted_once_in_the({
                  elsewhere: t.elsewhere,
                  v2: t.elsewhere === 1 ? msg.load_post_is : msg.load_posts_are,
                })}
              </dd>
            {/if}
            {#if t.reused}
              <dd class="text-[0.95rem] text-pencil">
                {msg.load_old_built_onto({
                  reused: t.reused,
                  v2: t.reused === 1 ? msg.load_post_is : msg.load_posts_are,
                })}
              </dd>
            {/if}
            {#if t.stockShort}<dd class="font-medium text-stop">
                {msg.load_longer_than_any_stock({ stockShort: t.stockShort })}
              </dd>{/if}
          {/if}
        </div>
      {/each}
      {#if t.holes.length}
        <div class="border-t border-rule py-2">
          <dt class="label">{msg.common_holes}</dt>
          {#each t.holes as h (`${h.width}/${h.depth}/${h.square}`)}
            <dd class="text-[1.05rem]">
              {h.count} × <Fraction mm={h.width} {units} />{h.square ? msg.load_square : msg.load_wide}, <Fraction
                mm={h.depth}
                {units}
              />
              {msg.load_deep}
            </dd>
          {/each}
        </div>
      {/if}
    </dl>
    {#if many}
      <div class="border-t-2 border-ink pt-2" data-testid="run-load">
        <h3 class="font-bold">{msg.load_alone({ v1: session.run.name || session.run.id })}</h3>
        <p class="text-[1.02rem]">
          <Figure why={ofTotals(session.run, 'concrete')} of={msg.load_concrete_for_the_run}
            >{msg.load_posts_bags({ posts: own.posts, bags: own.bags })}</Figure
          >
        </p>
        <p class="text-[0.95rem] text-pencil">
          {msg.load_concrete_gravel({
            small: small(own.concreteToBuy, units),
            bulk: bulk(own.gravelLoose, units),
          })}{#if own.elsewhere}{msg.load_of_its_posts_counted_in({ elsewhere: own.elsewhere })}{/if}
        </p>
      </div>
    {/if}
    <p class="sr-only" aria-live="polite">{spoken}</p>
  </div>
</aside>
