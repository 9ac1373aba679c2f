<script lang="ts">
  // The day of the pour: when, with whom, in which loads; what does not go; what to
  // order; when the posts may be loaded.
  import type { Day } from '../../gen/api'
  import { Answer } from '../../lib/answer.svelte'
  import { api } from '../../lib/api'
  import { clock, date, when } from '../../lib/clock'
  import type { View } from '../../drawing/view.svelte'
  import type { Session } from '../../lib/session.svelte'
  import { bulk, short, water, weight } from '../../lib/tape'
  import Choice from '../../parts/Choice.svelte'
  import NumberEntry from '../../parts/NumberEntry.svelte'
  import Words from '../../parts/Words.svelte'
  import DayClock from './DayClock.svelte'
  import Later from '../../parts/Later.svelte'
  import Found from '../Found.svelte'
  import * as msg from '../../gen/messages'

  let { session, view }: { session: Session; view: View } = $props()
  // svelte-ignore state_referenced_locally
  const asked = new Answer<Day>(
    session,
    () => '',
    (doc, signal) => api.pour(doc, signal),
  )
  const day = $derived(asked.value)
  const units = $derived(session.units)
  const set = (field: string, value: unknown, what: string) =>
    session.commit([{ path: `/pour/${field}`, value }], what)
  const many = $derived(session.plan.runs.length > 1)
  const name = (run: string) => session.plan.runs.find((r) => r.id === run)?.name || run
  const ways = [
    { value: 'truck', name: msg.pour_by_truck, costs: msg.pour_by_truck_costs },
    { value: 'bags', name: msg.pour_by_bags, costs: msg.pour_by_bags_costs },
    { value: 'site', name: msg.pour_by_site, costs: msg.pour_by_site_costs },
  ]
  const times = [
    { field: 'from', name: msg.pour_from },
    { field: 'to', name: msg.pour_to },
    { field: 'lunch', name: msg.pour_lunch },
  ] as const
  /** What is set, in its order: posts, and each run's curb after its own. */
  const rows = $derived.by(() => {
    if (!day) return []
    const posts = day.posts.map((p) => ({ ...p, name: p.post, curb: false }))
    const curb = day.curb.map((c) => ({ ...c, name: msg.pour_curb_at({ bay: c.bay }), curb: true }))
    const runs = [...new Set(day.posts.map((p) => p.run))]
    type Row = (typeof posts)[number] | (typeof curb)[number]
    return runs.flatMap((r): Row[] => [
      ...posts.filter((p) => p.run === r),
      ...curb.filter((c) => c.run === r),
    ])
  })
  /** The first and the last of a load, with their runs where there are several. */
  function ends(load: number) {
    const of = rows.filter((p) => p.load === load)
    const called = (p: (typeof rows)[number]) => (many ? `${name(p.run)} ${p.name}` : p.name)
    return { first: called(of[0]!), last: called(of[of.length - 1]!) }
  }
  const first = $derived(rows.find((p) => p.at))
  const last = $derived(rows.reduce((a, p) => ((p.done ?? '') > a ? p.done! : a), ''))
</script>

{#snippet time(t: (typeof times)[number])}
  <div>
    <label class="label mb-1" for="pour-{t.field}">{t.name}</label>
    <input
      id="pour-{t.field}"
      type="time"
      class="field"
      value={day?.clock[t.field] ?? ''}
      onchange={(e) =>
        e.currentTarget.value && set(t.field, e.currentTarget.value, `${t.name} ${e.currentTarget.value}`)}
    />
  </div>
{/snippet}
<div class="flex flex-wrap items-start gap-x-3 gap-y-2">
  <div>
    <label class="label mb-1" for="pour-date">{msg.pour_date}</label>
    <input
      id="pour-date"
      type="date"
      class="field"
      value={session.value<string>('/pour/date') ?? ''}
      onchange={(e) =>
        set('date', e.currentTarget.value || null, msg.pour_on({ date: e.currentTarget.value }))}
    />
  </div>
  {@render time(times[0]!)}
  <div class="w-24">
    <NumberEntry
      label={msg.pour_hands}
      value={day?.people}
      error={session.wrongAt('/pour/people')}
      oncommit={(n) => set('people', n, msg.pour_with_hands({ n }))}
    />
  </div>
</div>

{#if asked.refused}<p class="mt-3 font-medium text-stop">{asked.refused}</p>{/if}
{#if day && !day.posts.length}
  <p class="mt-4 text-pencil">{msg.pour_no_concrete}</p>
{:else if day}
  <p class="mt-4 text-[1.15rem]" data-testid="pour-sum">
    <strong>{msg.pour_posts_an_hour({ posts: day.posts.length, rate: day.perHour.toFixed(1) })}</strong>
    {#if day.date && first}
      {#if day.loads.length}{msg.pour_in_loads({
          loads: day.loads.length,
          order: bulk(day.order.volume, units),
        })}{/if}
      {(day.curb.length ? msg.pour_from_all_in : msg.pour_from_to)({
        from: when(first.at, day.date),
        to: when(last, day.date),
      })}
    {/if}
  </p>
  {#each day.asks as a (a.field)}
    <p class="mt-2 border-l-4 border-l-warn bg-warn-wash px-3 py-2" data-ask={a.field}>
      <strong>{msg.pour_enter}</strong>
      <Words says={a.says} {units} />
      {#if a.field === '/weather'}
        <button
          class="ml-2 underline pointer-coarse:min-h-11"
          onclick={() => (session.nav.parts.pour = 'weather')}>{msg.pour_weather}</button
        >{/if}
    </p>
  {/each}
  {#if day.date && (day.curve.length || first)}
    <div class="mt-3"><DayClock {session} {day} /></div>
    {#if first}<Later load={() => import('./SetHours.svelte')} props={{ session, view, day }} />{/if}
  {/if}
  <Found {session} findings={day.findings} fresh={asked.fresh} />

  <div class="mt-5 grid items-start gap-x-8 gap-y-5 xl:grid-cols-2">
    {#if day.loads.length}
      <section aria-labelledby="loads-title" data-testid="loads">
        <h2 id="loads-title" class="font-bold">{msg.pour_loads}</h2>
        <ol class="mt-1 border-t border-rule">
          {#each day.loads as l, i (l.comes)}
            <li class="grid grid-cols-[2rem_1fr_auto] gap-x-2 border-b border-rule py-2">
              <strong class="text-[1.2rem]">{i + 1}</strong>
              <div>
                <strong>{when(l.comes, day.date)}</strong>
                {l.curb.length
                  ? msg.pour_load_of(ends(i + 1))
                  : msg.pour_load_posts({ ...ends(i + 1), count: l.posts.length })}
                <p class="text-[0.95rem] text-pencil">
                  {msg.pour_last_post_in({ done: clock(l.done), worked: clock(l.worked) })}
                </p>
              </div>
              <strong class="text-[1.2rem] whitespace-nowrap">{bulk(l.order, units)}</strong>
            </li>
          {/each}
        </ol>
        {#if day.left.length}<p class="mt-1 font-medium text-stop">
            {msg.pour_left({ list: day.left.slice(0, 12).join(', '), count: day.left.length })}
          </p>{/if}
      </section>
    {/if}
    <section aria-labelledby="order-title" data-testid="order">
      <h2 id="order-title" class="font-bold">{msg.pour_order}</h2>
      <dl class="mt-1 grid grid-cols-[auto_1fr] gap-x-4 gap-y-1 border-t border-rule pt-2">
        {#if day.order.volume}
          <dt class="text-pencil">{msg.pour_volume}</dt>
          <dd class="font-semibold">{bulk(day.order.volume, units)}</dd>
          <dt class="text-pencil">{msg.pour_slump}</dt>
          <dd>{short(day.order.slumpLeast ?? 0, units)}–{short(day.order.slumpMost ?? 0, units)}</dd>
          <dt class="text-pencil">{msg.pour_stone}</dt>
          <dd>{msg.pour_stone_to({ size: short(day.order.stone ?? 0, units) })}</dd>
          <dt class="text-pencil">{msg.pour_call}</dt>
          <dd class="border-b border-rule">&nbsp;</dd>
        {/if}
        {#each day.order.bags as b (b.bag)}
          <dt class="text-pencil">{b.bag}</dt>
          <dd>
            <strong>{b.count}</strong>, {msg.pour_bags_more({
              weight: weight(b.mass, units),
              pallets: b.pallets,
              water: water(b.water, units),
            })}
          </dd>
        {/each}
        {#if day.order.bagsPerHour}
          <dt class="text-pencil">{msg.pour_mixer}</dt>
          <dd>{msg.pour_bags_an_hour({ n: Math.round(day.order.bagsPerHour) })}</dd>
        {/if}
        {#if day.order.cement}
          <dt class="text-pencil">{msg.pour_cement}</dt>
          <dd>{day.order.cement}</dd>
          <dt class="text-pencil">{msg.pour_sand_stone}</dt>
          <dd>{bulk(day.order.sand ?? 0, units)}, {bulk(day.order.gravel ?? 0, units)}</dd>
        {/if}
      </dl>
      {#each day.mixes as m (m.id)}<p class="mt-2 text-[0.95rem] text-pencil">
          <strong>{m.name}.</strong>
          {m.says}
        </p>{/each}
    </section>
    {#if day.waits.length}
      <section aria-labelledby="waits-title" data-testid="waits">
        <h2 id="waits-title" class="font-bold">{msg.pour_waits}</h2>
        <ul class="mt-1 border-t border-rule">
          {#each day.waits as w (w.id)}
            <li class="grid grid-cols-[1fr_auto] gap-x-3 border-b border-rule py-2" data-wait={w.id}>
              <span class="font-semibold">{w.name}</span>
              <strong>{w.at ? `${date(w.at)}, ${clock(w.at)}` : msg.pour_not_known}</strong>
              <p class="col-span-2 text-[0.95rem] text-pencil">
                {w.at ? msg.pour_after_hours({ hours: Math.round(w.hours ?? 0) }) : msg.pour_weather_ends}
                {msg.pour_usual_hours({ from: w.usual[0]!, to: w.usual[1]! })}
              </p>
            </li>
          {/each}
        </ul>
      </section>
    {/if}
    <section aria-labelledby="how-title">
      <h2 id="how-title" class="font-bold">{msg.pour_how}</h2>
      <div class="mt-1">
        <Choice
          label={msg.pour_comes}
          value={day.by}
          options={ways}
          onpick={(v) => set('by', v, ways.find((w) => w.value === v)!.name)}
        />
      </div>
      <div class="mt-2 flex flex-wrap items-start gap-x-3 gap-y-2">
        {@render time(times[1]!)}
        {@render time(times[2]!)}
        {#if day.by === 'truck'}
          <div class="w-32">
            <NumberEntry
              label={msg.pour_transit}
              value={day.clock.transit}
              error={session.wrongAt('/pour/transit')}
              oncommit={(n) => set('transit', n, msg.pour_transit_of({ n }))}
            />
          </div>
        {/if}
      </div>
      {#if day.rates.length}<Later load={() => import('./Rates.svelte')} props={{ session, day }} />{/if}
      <div class="mt-2 flex flex-wrap gap-x-5 gap-y-1">
        {#each [{ f: 'dryBed', n: msg.pour_dry_bed }, { f: 'covered', n: msg.pour_covered }, { f: 'warm', n: msg.pour_warm }] as o (o.f)}
          <label class="flex min-h-11 items-center gap-2"
            ><input
              type="checkbox"
              class="size-6 accent-(--mallow)"
              checked={session.value<boolean>(`/pour/${o.f}`) ?? false}
              onchange={(e) => set(o.f, e.currentTarget.checked || null, o.n)}
            />{o.n}</label
          >
        {/each}
      </div>
    </section>
  </div>
  {#if day.posts.length}
    <section class="mt-5" aria-labelledby="order-posts">
      <h2 id="order-posts" class="font-bold">{msg.pour_post_by_post}</h2>
      <ol class="mt-1 border-t border-rule" data-testid="pour-posts">
        {#each rows.slice(0, 200) as p (p.run + p.name)}
          <li
            class="grid {p.curb
              ? 'grid-cols-[8rem_5.5rem_minmax(0,1fr)]'
              : 'grid-cols-[4rem_5.5rem_minmax(0,1fr)]'} items-baseline gap-x-2 border-b border-rule py-1.5"
            data-post={p.name}
          >
            <strong class="text-[1.1rem]">{p.name}</strong>
            <span>{p.at ? when(p.at, day.date) : '–'}</span>
            <span class="text-[0.95rem]">
              {#if many}<span class="text-pencil">{name(p.run)}. </span>{/if}
              {#if 'fill' in p && p.fill}{msg.pour_fill_to({
                  fill: short(p.fill, units),
                  rises: short(p.rises ?? 0, units),
                })}{/if}
              {#if p.bags}{msg.pour_bags_of({
                  bags: p.bags.toFixed(1),
                  water: water(p.water ?? 0, units),
                })}{/if}
              {#if 'back' in p && p.back}{msg.pour_back_at({ back: clock(p.back) })}{/if}
              {#if p.curb && p.at}{msg.pour_curb_placed}{/if}
              {#if p.finish}{p.curb
                  ? msg.pour_curb_finish({ finish: when(p.finish, day.date) })
                  : msg.pour_finish_at({ finish: when(p.finish, day.date) })}{/if}
            </span>
          </li>
        {/each}
      </ol>
    </section>
  {/if}
{/if}
