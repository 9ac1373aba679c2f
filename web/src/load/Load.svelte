<script lang="ts">
  // What the truck must carry. A change shows its difference for a moment.
  import ChevronUp from '@lucide/svelte/icons/chevron-up'
  import { untrack } from 'svelte'
  import type { Totals } from '../gen/api'
  import type { Session } from '../lib/session.svelte'
  import { bulk, hours, small, weight } from '../lib/tape'
  import { kindName } from '../lib/names'
  import Figure from '../parts/Figure.svelte'
  import Fraction from '../parts/Fraction.svelte'
  import Words from '../parts/Words.svelte'
  import { ofTotals } from '../lib/figure'

  let { session }: { session: Session } = $props()
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
  /** Leaves to carry, those alike of one gate together. */
  const gates = $derived(
    session.plan.runs.flatMap((r) =>
      r.gates.map((g) => {
        const leaves: { name: string; count: number; width: number; height: number }[] = []
        const put = (width: number, height: number) => {
          const alike = leaves.find(
            (l) => Math.abs(l.width - width) < 0.5 && Math.abs(l.height - height) < 0.5,
          )
          if (alike) alike.count++
          else leaves.push({ name: `${width} ${height}`, count: 1, width, height })
        }
        for (const l of g.leaves) put(l.width, Math.max(l.height, l.tipHeight))
        if (g.runBack) put(g.runBack.past, g.leaf)
        return { key: r.id + '/' + g.id, name: g.name || g.id, leaves }
      }),
    ),
  )
  const isPost = (p: { what: string }) => p.what.endsWith('posts')
  const postParts = $derived(t.parts.filter(isPost))
  const pieces = $derived(t.parts.filter((p) => !isPost(p)))
  const waste = $derived(
    t.waste > 0
      ? `, with ${+(100 * t.waste).toFixed(1)}\u00a0% waste`
      : t.waste < 0
        ? ', with the waste that was given'
        : '',
  )
</script>

{#snippet change(text: string)}
  {#if text}<span class="ml-1.5 bg-mallow px-1.5 text-[0.9rem] font-bold text-on-mallow">{text}</span>{/if}
{/snippet}

<aside
  class="border-line bg-paper max-lg:sticky max-lg:bottom-0 max-lg:z-20 max-lg:border-t lg:relative lg:w-72 lg:flex-none lg:overflow-auto lg:border-l"
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
  <div class="px-3 pb-3 lg:block lg:py-3 {open ? 'max-h-[60dvh] overflow-auto' : 'hidden'}">
    <h2 id="load-title" class="text-[1.05rem] font-bold">The load{many ? ', whole job' : ''}</h2>
    <dl class="mt-1" data-testid="load">
      <div class="border-t border-rule py-2">
        <dt class="label">Posts</dt>
        <dd class="text-[1.35rem] font-bold" data-load="posts">
          {t.posts}{@render change(posts ? signed(posts) : '')}
        </dd>
        <dd class="text-[0.95rem]">{t.kinds.map((k) => `${k.count} ${kindName[k.kind]}`).join(', ')}</dd>
        {#each postParts as p, i (i)}
          <dd class="text-[1.05rem]">
            {p.count} × <Words says={p.says} {units} />
            <span class="text-[0.95rem] text-pencil"
              >{p.what === 'terminal posts' ? 'terminals' : 'line posts'}</span
            >
          </dd>
        {/each}
        {#if t.elsewhere}
          <dd class="text-[0.95rem] text-pencil">
            {t.elsewhere} corner {t.elsewhere === 1 ? 'post is' : 'posts are'} counted once, in the run that ends
            there
          </dd>
        {/if}
        {#if t.reused}
          <dd class="text-[0.95rem] text-pencil">
            {t.reused} old {t.reused === 1 ? 'post is' : 'posts are'} built onto
          </dd>
        {/if}
        {#if t.stockShort}<dd class="font-medium text-stop">{t.stockShort} longer than any stock</dd>{/if}
      </div>
      {#if pieces.length || t.infillBoards}
        <div class="border-t border-rule py-2" data-load="pieces">
          <dt class="label">Panels, rails and boards</dt>
          {#each pieces as p, i (i)}
            <dd class="text-[1.05rem]">
              {p.count}
              {p.what}, <Words says={p.says} {units} />{#if p.cut}<span class="text-pencil"
                  >, {p.cut} cut</span
                >{/if}
            </dd>
          {/each}
          {#if t.infillBoards && !pieces.some((p) => p.what === 'gravel boards')}
            <dd class="text-[1.05rem]" data-load="infill">
              {t.infillBoards} infill {t.infillBoards === 1 ? 'board' : 'boards'} under panels
            </dd>
          {/if}
        </div>
      {/if}
      <div class="border-t border-rule py-2">
        <dt class="label">Concrete</dt>
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
        <dd class="text-[0.95rem] text-pencil">
          {small(t.concreteToBuy, units)}{#each t.bagKinds as b (b.bag)}, {weight(b.mass, units)} in {many &&
            t.bagKinds.length > 1
              ? `${b.count} × ${b.bag}`
              : `${b.bag}s`}{/each}{waste}
        </dd>
        {#if t.concreteToBuy > 0}
          <dd class="text-[0.95rem]" data-load="truck">
            or a truck of {bulk(t.truck.order, units)}{t.truck.short ? ', a short load' : ''}
          </dd>
          <dd class="text-[0.95rem]" data-load="mix">
            or mixed: {t.mix.bags.toFixed(1)} × {t.mix.bag} of cement, {bulk(t.mix.sand, units)} sand, {bulk(
              t.mix.stone,
              units,
            )} stone, {small(t.mix.water, units)} water
          </dd>
        {/if}
      </div>
      <div class="border-t border-rule py-2">
        <dt class="label">Gravel, loose</dt>
        <dd class="text-[1.35rem] font-bold" data-load="gravel">
          <Figure why={ofTotals(undefined, 'gravel')} of="Gravel for the {many ? 'job' : 'run'}"
            >{bulk(t.gravelLoose, units)}</Figure
          >{@render change(gravel)}
        </dd>
        <dd class="text-[0.95rem] text-pencil">
          {weight(t.gravelMass, units)}{#if t.gravelLoose > 0}: {t.gravelBags.count} × {t.gravelBags.name}, or {t
              .gravelBulk.count} × {t.gravelBulk.name}{/if}
        </dd>
      </div>
      {#if gates.length}
        <div class="border-t border-rule py-2" data-load="gates">
          <dt class="label">Gates</dt>
          {#each gates as g (g.key)}
            {#each g.leaves as l (l.name)}
              <dd class="text-[1.05rem]">
                {l.count} × <Fraction mm={l.width} {units} /> × <Fraction mm={l.height} {units} />
                <span class="text-[0.95rem] text-pencil">{g.name}</span>
              </dd>
            {/each}
          {/each}
        </div>
      {/if}
      {#if t.stone > 0}
        <div class="border-t border-rule py-2" data-load="stone">
          <dt class="label">Stone and rocks, loose</dt>
          <dd class="text-[1.35rem] font-bold">{bulk(t.stoneLoose, units)}</dd>
          <dd class="text-[0.95rem] text-pencil">{weight(t.stoneMass, units)}</dd>
        </div>
      {/if}
      {#if t.cut > 1e-6 || t.fill > 1e-6}
        <div class="border-t border-rule py-2" data-load="soil">
          <dt class="label">Soil along the fence</dt>
          {#if t.fill > 1e-6}<dd class="text-[1.05rem]">{bulk(t.fill, units)} to fill, tamped</dd>{/if}
          {#if t.cut > 1e-6}<dd class="text-[1.05rem]">{bulk(t.cut, units)} to cut</dd>{/if}
        </div>
      {/if}
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
        <dd class="text-[0.95rem]" data-load="hours">
          <Figure why={ofTotals(undefined, 'hours')} of="Hours to dig"
            >{hours(t.hours.byHand)} by hand, {hours(t.hours.byAuger)} with the auger</Figure
          >
        </dd>
        <dd class="text-[0.95rem]" data-load="spoil">
          <Figure why={ofTotals(undefined, 'spoil')} of="Soil to carry away"
            >{bulk(t.spoil, units)} of loose soil away</Figure
          >
        </dd>
      </div>
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
