<script lang="ts">
  // What every run takes, and the whole job: exact sums, rounded up once.
  import type { Totals } from '../../gen/api'
  import { kindName } from '../../lib/names'
  import type { Session } from '../../lib/session.svelte'
  import { bulk, hours, short, small, weight } from '../../lib/tape'
  import Figure from '../../parts/Figure.svelte'
  import { ofTotals } from '../../lib/figure'

  let { session }: { session: Session } = $props()
  const units = $derived(session.units)
  const columns = $derived([
    ...session.plan.runs
      .filter((r) => r.posts.length)
      .map((r) => ({ id: r.id, name: r.name || r.id, t: r.totals })),
    ...(session.plan.runs.length > 1 ? [{ id: 'job', name: 'Whole job', t: session.plan.totals }] : []),
  ])
  interface Line {
    name: string
    of: (t: Totals) => string
    why?: 'concrete' | 'gravel' | 'hours' | 'spoil'
    strong?: boolean
  }
  const none = (v: number, say: (v: number) => string) => (v > 1e-9 ? say(v) : '—')
  const parts = $derived.by<{ title: string; lines: Line[] }[]>(() => {
    const stocks = session.plan.totals.kindStock
    const sizes = session.plan.totals.holes
    const bagNames = [...new Set(session.plan.runs.flatMap((r) => r.totals.bagKinds.map((b) => b.bag)))]
    return [
      {
        title: 'Posts',
        lines: [
          { name: 'To be set', of: (t) => String(t.posts), strong: true },
          ...stocks.map((s) => ({
            name: `${kindName[s.kind]}, ${s.length ? short(s.length, units) : 'longer than any stock'}`,
            of: (t: Totals) =>
              String(
                t.kindStock.find(
                  (k) => k.kind === s.kind && Math.abs((k.length ?? 0) - (s.length ?? 0)) < 0.01,
                )?.count ?? '—',
              ),
          })),
          {
            name: 'Corner posts counted in the run before',
            of: (t) => (t.elsewhere ? String(t.elsewhere) : '—'),
          },
        ],
      },
      {
        title: 'Holes',
        lines: [
          ...sizes.map((h) => ({
            name: `${short(h.width, units)}${h.square ? ' square' : ''} × ${short(h.depth, units)}`,
            of: (t: Totals) =>
              String(
                t.holes.find(
                  (k) =>
                    Math.abs(k.width - h.width) < 0.01 &&
                    Math.abs(k.depth - h.depth) < 0.01 &&
                    k.square === h.square,
                )?.count ?? '—',
              ),
          })),
          { name: 'Hours by hand, one person', of: (t) => hours(t.hours.byHand), why: 'hours' },
          { name: 'Hours with the auger', of: (t) => hours(t.hours.byAuger), why: 'hours' },
          { name: 'of them by hand anyway', of: (t) => (t.hours.hand ? `${t.hours.hand} holes` : '—') },
          { name: 'Soil away, loose', of: (t) => bulk(t.spoil, units), why: 'spoil' },
        ],
      },
      {
        title: 'Concrete',
        lines: [
          {
            name: 'Volume to buy',
            of: (t) => none(t.concreteToBuy, (v) => small(v, units)),
            why: 'concrete',
            strong: true,
          },
          ...bagNames.flatMap((name) => [
            {
              name: `${name}s`,
              strong: true,
              of: (t: Totals) => {
                const b = t.bagKinds.find((k) => k.bag === name)
                return b && b.count ? String(b.count) : '—'
              },
            },
            {
              name: `exactly`,
              of: (t: Totals) => {
                const b = t.bagKinds.find((k) => k.bag === name)
                return b && b.count ? b.exact.toFixed(2) : '—'
              },
            },
          ]),
          {
            name: 'or a truck of',
            of: (t) => none(t.truck.order, (v) => bulk(v, units) + (t.truck.short ? ', short load' : '')),
          },
          {
            name: `or cement, ${session.plan.totals.mix.bag}s`,
            of: (t) => none(t.mix.bags, (v) => v.toFixed(1)),
          },
          { name: 'with sand', of: (t) => none(t.mix.sand, (v) => bulk(v, units)) },
          { name: 'stone', of: (t) => none(t.mix.stone, (v) => bulk(v, units)) },
          {
            name: 'water',
            of: (t) =>
              none(t.mix.water, (v) =>
                units.system === 'metric' ? small(v, units) : `${(v / 0.003785411784).toFixed(0)} gal`,
              ),
          },
        ],
      },
      {
        title: 'Gravel and stone',
        lines: [
          {
            name: 'Gravel, loose',
            of: (t) => none(t.gravelLoose, (v) => bulk(v, units)),
            why: 'gravel',
            strong: true,
          },
          { name: 'weighs', of: (t) => none(t.gravelMass, (v) => weight(v, units)) },
          { name: `${session.plan.totals.gravelBags.name}s`, of: (t) => none(t.gravelBags.count, String) },
          {
            name: `or ${session.plan.totals.gravelBulk.name}s`,
            of: (t) => none(t.gravelBulk.exact, (v) => `${t.gravelBulk.count} (${v.toFixed(2)})`),
          },
          ...(session.plan.totals.stone > 1e-9
            ? [
                {
                  name: 'Rocks, stone, rubble, loose',
                  of: (t: Totals) => none(t.stoneLoose, (v) => bulk(v, units)),
                  strong: true,
                },
                { name: 'weighs', of: (t: Totals) => none(t.stoneMass, (v) => weight(v, units)) },
              ]
            : []),
        ],
      },
    ]
  })
  const rounded = $derived(
    session.plan.runs.length > 1
      ? session.plan.runs.reduce((n, r) => n + r.totals.bags, 0) - session.plan.totals.bags
      : 0,
  )
</script>

<div class="relative overflow-x-auto border border-line bg-sheet" data-testid="totals">
  <table class="sheet-table w-full">
    <caption class="px-2 pt-2 text-left font-bold">What each run takes, and the whole job</caption>
    <thead>
      <tr>
        <th scope="col"></th>
        {#each columns as c (c.id)}<th scope="col" class={c.id === 'job' ? 'border-l-2! border-l-ink!' : ''}
            >{c.name}</th
          >{/each}
      </tr>
    </thead>
    {#each parts as part (part.title)}
      <tbody>
        <tr
          ><th scope="rowgroup" colspan={columns.length + 1} class="border-t-2! border-t-ink! text-left"
            >{part.title}</th
          ></tr
        >
        {#each part.lines as line, i (i)}
          <tr>
            <td>{line.name}</td>
            {#each columns as c (c.id)}
              <td
                class="{line.strong ? 'text-[1.05rem] font-semibold' : ''} {c.id === 'job'
                  ? 'border-l-2! border-l-ink!'
                  : ''}"
              >
                {#if line.why}<Figure
                    why={ofTotals(c.id === 'job' ? undefined : c, line.why)}
                    of="{line.name}, {c.name}">{line.of(c.t)}</Figure
                  >{:else}{line.of(c.t)}{/if}
              </td>
            {/each}
          </tr>
        {/each}
      </tbody>
    {/each}
  </table>
</div>
<p class="mt-2 max-w-prose text-pencil">
  All sums are of exact values. Bags are rounded up once: bought for each run by itself, or once for the job{rounded >
  0
    ? `, which saves ${rounded} ${rounded === 1 ? 'bag' : 'bags'}`
    : ''}. A corner post is dug once, and counted in the run that ends there.
</p>
