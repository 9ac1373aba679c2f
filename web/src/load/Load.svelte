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
      >{t.posts} posts{@render change(posts ? signed(posts) : '')} · {t.bags} bags{@render change(
        bags ? signed(bags) : '',
      )} · {bulk(t.gravelLoose, units)} gravel</span
    >
    <ChevronUp size={20} class={open ? 'rotate-180' : ''} aria-hidden="true" />
  </button>
  <div class="px-3 pb-3 lg:block lg:py-1 {open ? 'max-h-[60dvh] overflow-auto' : 'hidden'}">
    <div class="flex items-center justify-between">
      <h2 id="load-title" class="text-[1.05rem] font-bold">The load{many ? ', whole job' : ''}</h2>
      <button
        class="btn btn-plain -mr-2 px-2 max-lg:hidden"
        aria-label="Fold the load"
        onclick={() => layout.set({ load: false })}>Fold</button
      >
    </div>
    {#if !read.length}<p class="text-pencil">Nothing yet.</p>{/if}
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
              <Figure why={ofTotals(undefined, 'concrete')} of="Concrete for the {many ? 'job' : 'run'}"
                >{t.bagKinds.length ? `${t.bags} bags` : 'no bag chosen'}</Figure
              >{@render change(bags ? signed(bags) : '')}
            </dd>
            <dd class="text-[1.05rem]">
              {bulk(t.concreteToBuy, units)} = {units.system === 'metric'
                ? `${(t.concreteToBuy / 0.764554857984).toFixed(2)} yd³`
                : `${t.concreteToBuy.toFixed(2)} m³`}
            </dd>
          {:else if head(g) === 'gravel'}
            <dd class="text-[1.35rem] font-bold" data-load="gravel">
              <Figure why={ofTotals(undefined, 'gravel')} of="Gravel for the {many ? 'job' : 'run'}"
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
                {t.elsewhere} corner {t.elsewhere === 1 ? 'post is' : 'posts are'} counted once, in the run that
                ends there
              </dd>
            {/if}
            {#if t.reused}
              <dd class="text-[0.95rem] text-pencil">
                {t.reused} old {t.reused === 1 ? 'post is' : 'posts are'} built onto
              </dd>
            {/if}
            {#if t.stockShort}<dd class="font-medium text-stop">{t.stockShort} longer than any stock</dd>{/if}
          {/if}
        </div>
      {/each}
      {#if t.holes.length}
        <div class="border-t border-rule py-2">
          <dt class="label">Holes</dt>
          {#each t.holes as h (`${h.width}/${h.depth}/${h.square}`)}
            <dd class="text-[1.05rem]">
              {h.count} × <Fraction mm={h.width} {units} />{h.square ? ' square' : ' wide'}, <Fraction
                mm={h.depth}
                {units}
              /> deep
            </dd>
          {/each}
        </div>
      {/if}
    </dl>
    {#if many}
      <div class="border-t-2 border-ink pt-2" data-testid="run-load">
        <h3 class="font-bold">{session.run.name || session.run.id} alone</h3>
        <p class="text-[1.02rem]">
          <Figure why={ofTotals(session.run, 'concrete')} of="Concrete for the run"
            >{own.posts} posts, {own.bags} bags</Figure
          >
        </p>
        <p class="text-[0.95rem] text-pencil">
          {small(own.concreteToBuy, units)} concrete, {bulk(own.gravelLoose, units)} gravel{#if own.elsewhere};
            {own.elsewhere} of its posts counted in the run before{/if}
        </p>
      </div>
    {/if}
    <p class="sr-only" aria-live="polite">{spoken}</p>
  </div>
</aside>
