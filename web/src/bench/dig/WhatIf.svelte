<script lang="ts">
  // Hole width and depth, cover and bag as sliders, against the load and the
  // gust: what three inches of auger cost. Nothing is changed until it is
  // taken.
  import type { Plan, Totals } from '../../gen/api'
  import { api } from '../../lib/api'
  import { change, type Change } from '../../lib/doc'
  import { levelOf, say } from '../../lib/rules'
  import type { Session } from '../../lib/session.svelte'
  import { bulk, hours, perHour, short, wind } from '../../lib/tape'
  import Fraction from '../../parts/Fraction.svelte'
  import Pick from '../../parts/Pick.svelte'
  import { scrolls } from '../../lib/scrolls'
  import * as msg from '../../gen/messages'

  let { session }: { session: Session } = $props()
  const units = $derived(session.units)
  const metric = $derived(units.system === 'metric')
  const step = $derived(metric ? 25 : 25.4)
  let whom = $state<'line' | 'run'>('line')
  const level = $derived(levelOf(session, whom))
  /** The post that the sliders start from: the first that they are for. */
  const post = $derived(
    session.run.posts.find(
      (p) => p.card >= 0 && !p.driven && !p.stopped && (whom === 'run' || p.kind === 'line'),
    ) ?? session.run.posts.find((p) => p.card >= 0),
  )
  const augers = $derived([...(level.rules.values['hole/augers'] as number[])].sort((a, b) => a - b))
  const fitting = $derived(augers.filter((a) => !post || a >= session.run.cards[post.card]!.holds))

  let width = $state<number | null>(null)
  let depth = $state<number | null>(null)
  let cover = $state<number | null>(null)
  let bag = $state<string | null>(null)
  const now = $derived({
    width: post?.holeWidth ?? 0,
    depth: post?.foot ?? 0,
    cover: level.rules.values['setting/cover'] as number,
    bag: session.run.levels[0]!.values['setting/bag'] as string,
  })
  const changed = $derived(width !== null || depth !== null || cover !== null || bag !== null)

  const changes = $derived.by<Change[]>(() => {
    const own: Record<string, unknown> = {}
    if (width !== null) own['hole/width'] = width
    if (depth !== null) own['hole/depth'] = depth
    if (cover !== null) own['setting/cover'] = cover
    return [
      ...(Object.keys(own).length ? say(level, own) : []),
      ...(bag !== null ? say(levelOf(session, 'run'), { 'setting/bag': bag }) : []),
    ]
  })

  let tried = $state.raw<Plan | null>(null)
  let refused = $state('')
  let asking = 0
  $effect(() => {
    const list = changes
    const doc = session.doc
    if (!list.length) {
      tried = null
      refused = ''
      return
    }
    const mine = ++asking
    const timer = setTimeout(async () => {
      try {
        const { plan } = await api.plan(change(doc, list), [])
        if (mine === asking) {
          tried = plan
          refused = ''
        }
      } catch (e) {
        if (mine === asking) refused = e instanceof Error ? e.message : String(e)
      }
    }, 40)
    return () => clearTimeout(timer)
  })

  function back() {
    width = depth = cover = bag = null
  }
  function take() {
    const what = [
      width !== null ? `${short(width, units)} wide` : '',
      depth !== null ? msg.what_if_foot_at({ short: short(depth, units) }) : '',
      cover !== null ? `cover ${short(cover, units)}` : '',
      bag ?? '',
    ].filter(Boolean)
    session.commit(changes, msg.what_if_holes_of({ level: level.name, join: what.join(', ') }))
    back()
  }
  // Another run, or others of its posts, start again.
  $effect(() => {
    void session.run.id
    void whom
    back()
  })

  const gust = (plan: Plan, kinds: string[]) => {
    const posts = plan.runs[session.runIndex]?.posts.filter((p) => p.wind && kinds.includes(p.kind)) ?? []
    return posts.length ? Math.min(...posts.map((p) => p.wind!.gust)) : undefined
  }
  interface Row {
    name: string
    now: string
    then: string
    diff: string
    worse?: boolean
  }
  /** A figure as it is shown: a whole number of steps of its unit, so that differences agree with what is read. */
  interface Shown {
    step: number
    say: (v: number) => string
  }
  const yard = $derived(metric ? 0.01 : 0.00764554857984)
  const volume = $derived<Shown>({ step: yard, say: (v) => bulk(v, units) })
  const speed = $derived<Shown>({ step: 1 / perHour(units).per, say: (v) => wind(v, units) })
  const time: Shown = { step: 0.25, say: hours }
  const count: Shown = { step: 1, say: (v) => String(Math.round(v)) }
  function row(name: string, x: number, y: number, shown: Shown): Row {
    const steps = Math.round(y / shown.step) - Math.round(x / shown.step)
    const diff = steps ? (steps > 0 ? '+' : '−') + shown.say(Math.abs(steps) * shown.step) : '—'
    return { name, now: shown.say(x), then: shown.say(y), diff }
  }
  const load = (a: Totals, b: Totals): Row[] => [
    row(msg.common_bags_2, a.bags, b.bags, count),
    row(msg.common_concrete, a.concreteToBuy, b.concreteToBuy, volume),
    row(msg.what_if_gravel_loose, a.gravelLoose, b.gravelLoose, volume),
    row(msg.what_if_soil_away, a.spoil, b.spoil, volume),
    row(msg.what_if_hours_by_auger, a.hours.byAuger, b.hours.byAuger, time),
    row(msg.what_if_hours_by_hand, a.hours.byHand, b.hours.byHand, time),
  ]
  const gusts = $derived.by<Row[]>(() => {
    const out: Row[] = []
    const groups = [
      { name: msg.what_if_weakest_line_post, kinds: ['line'] },
      { name: msg.what_if_weakest_end_or_corner, kinds: ['end', 'corner'] },
      { name: msg.what_if_weakest_gate_post, kinds: ['gate'] },
    ]
    for (const g of groups) {
      const [x, y] = [gust(session.plan, g.kinds), gust(tried ?? session.plan, g.kinds)]
      if (x !== undefined && y !== undefined) out.push({ ...row(g.name, x, y, speed), worse: y < x - 1e-9 })
    }
    return out
  })
  const own = $derived(load(session.run.totals, (tried ?? session.plan).runs[session.runIndex]!.totals))
  const whole = $derived(load(session.plan.totals, (tried ?? session.plan).totals))
  const longest = $derived.by(() => {
    const of = (plan: Plan) =>
      plan.runs[session.runIndex]!.totals.stock.map((s) => `${s.count} × ${short(s.length, units)}`).join(
        ', ',
      )
    return { now: of(session.plan), then: of(tried ?? session.plan) }
  })
  const least = $derived(metric ? 300 : 304.8)
  const most = $derived(metric ? 1800 : 72 * 25.4)
</script>

{#if !post}
  <p class="text-pencil">{msg.common_first_how_long_is_the}</p>
{:else}
  <div class="grid max-w-6xl gap-x-10 gap-y-5 lg:grid-cols-[minmax(0,1fr)_minmax(0,1.3fr)]">
    <div class="grid min-w-0 grid-cols-1 content-start gap-4">
      <div class="flex flex-wrap gap-1.5" role="group" aria-label={msg.what_if_what_if_for}>
        {#each [{ id: 'line', name: msg.common_line_posts }, { id: 'run', name: msg.what_if_all_of_the_run }] as const as w (w.id)}
          <button
            class="min-h-11 border px-3 font-semibold {whom === w.id
              ? 'border-mallow bg-mallow-wash shadow-[inset_0_0_0_1px_var(--mallow)]'
              : 'border-line bg-sheet'}"
            aria-pressed={whom === w.id}
            onclick={() => (whom = w.id)}>{w.name}</button
          >
        {/each}
      </div>
      {#snippet slider(
        label: string,
        at: number,
        shown: string,
        min: number,
        max: number,
        by: number,
        set: (v: number) => void,
      )}
        <label class="grid gap-0.5">
          <span class="flex justify-between"
            ><span class="label">{label}</span><strong class="text-[1.1rem]">{shown}</strong></span
          >
          <input
            type="range"
            class="h-11 w-full accent-(--mallow)"
            {min}
            {max}
            step={by}
            value={at}
            aria-valuetext={shown}
            oninput={(e) => set(e.currentTarget.valueAsNumber)}
          />
        </label>
      {/snippet}
      {@render slider(
        msg.what_if_hole_width_by_the_augers,
        Math.max(
          0,
          fitting.findIndex((a) => a >= (width ?? now.width) - 0.01),
        ),
        short(width ?? now.width, units),
        0,
        fitting.length - 1,
        1,
        (i) => (width = fitting[i]!),
      )}
      {@render slider(
        msg.what_if_bottom_of_post_below_ground,
        Math.round((depth ?? now.depth) / step),
        short(depth ?? now.depth, units),
        Math.round(least / step),
        Math.round(most / step),
        1,
        (n) => (depth = n * step),
      )}
      {@render slider(
        msg.what_if_soil_over_the_concrete,
        Math.round((cover ?? now.cover) / step),
        short(cover ?? now.cover, units),
        0,
        12,
        1,
        (n) => (cover = n * step),
      )}
      <Pick
        label={msg.what_if_bag_for_the_run}
        value={bag ?? now.bag}
        options={session.catalogue.bags.map((b) => ({ value: b.id, name: b.name }))}
        onpick={(v) => (bag = v)}
      />
      <div class="flex flex-wrap gap-2">
        <button class="btn btn-main" disabled={!changed || !!refused || !tried} onclick={take}
          >{msg.common_take_it}</button
        >
        <button class="btn" disabled={!changed} onclick={back}>{msg.what_if_put_it_back}</button>
      </div>
      {#if refused}<p class="text-stop">{refused}</p>{/if}
      {#if depth !== null && session.run.frost !== undefined && depth < session.run.frost}
        <p class="bg-warn-wash px-3 py-2 text-warn">
          <Fraction mm={depth} {units} />
          {msg.what_if_stays_above_the_frost_depth}
          <Fraction mm={session.run.frost} {units} />{msg.what_if_frost_can_lift_it}
        </p>
      {/if}
    </div>
    <div
      {@attach scrolls}
      class="relative overflow-x-auto border border-line bg-sheet"
      aria-live="polite"
      data-testid="what-if"
    >
      <table class="sheet-table w-full">
        <thead>
          <tr
            ><th scope="col"></th><th scope="col">{msg.common_as_planned}</th><th scope="col"
              >{msg.what_if_what_if}</th
            ><th scope="col">{msg.what_if_difference}</th></tr
          >
        </thead>
        {#snippet rows(title: string, list: Row[])}
          <tbody>
            <tr><th scope="rowgroup" colspan="4" class="border-t-2! border-t-ink! text-left">{title}</th></tr>
            {#each list as r (r.name)}
              <tr>
                <td>{r.name}</td>
                <td>{r.now}</td>
                <td class="font-semibold">{r.then}</td>
                <td class="font-bold {r.worse ? 'text-stop' : r.diff === '—' ? 'text-pencil' : ''}"
                  >{r.diff}</td
                >
              </tr>
            {/each}
          </tbody>
        {/snippet}
        {@render rows(msg.what_if_gust_at_the_footings_limit, gusts)}
        {@render rows(`${session.run.name || session.run.id} alone`, own)}
        {#if session.plan.runs.length > 1}{@render rows(msg.common_whole_job, whole)}{/if}
      </table>
      <p class="border-t border-rule px-2 py-1.5">
        <span class="text-pencil">{msg.what_if_posts_to_buy}</span>
        {longest.now}{#if longest.now !== longest.then}, <strong
            >{msg.what_if_then({ then: longest.then })}</strong
          >{/if}
      </p>
    </div>
  </div>
{/if}
