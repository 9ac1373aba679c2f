<script lang="ts">
  // A cut through the middle of one hole, drawn to scale, with every layer.
  import { layerPath, widthAt } from '../../drawing/hole'
  import type { HoleCard, Units } from '../../gen/api'
  import { short, small } from '../../lib/tape'

  interface Props {
    card: HoleCard
    units: Units
    frost?: number
    estimated?: boolean
    /** Narrow: no words beside it. */
    bare?: boolean
    wanted?: number
  }
  let { card, units, frost, estimated = false, bare = false, wanted }: Props = $props()
  const id = $props.id()

  const W = $derived(bare ? 190 : 600)
  /** The ground is drawn between the depths on the left and the words on the right. */
  const left = $derived(bare ? 0 : 122)
  const right = $derived(bare ? 190 : 400)
  const H = 430
  const above = $derived(Math.max(220, ...card.layers.map((l) => -l.from + 90)))
  const deepest = $derived(
    Math.max(card.depth, card.foot + (card.pinned ?? 0), frost ?? 0, wanted ?? 0) + 110,
  )
  const widest = $derived(
    Math.max(...card.cuts.map((c) => c.width), card.post) +
      2 * Math.max(Math.abs(card.along ?? 0), Math.abs(card.across ?? 0)),
  )
  const room = $derived(bare ? 170 : 210)
  const scale = $derived(Math.min((H - 10) / (above + deepest), room / widest))
  const middle = $derived((left + right) / 2)
  /** The cut runs along the run, or across it where the hole is only off across. */
  const crossways = $derived(!card.along && !!card.across)
  const off = $derived(crossways ? -(card.across ?? 0) : (card.along ?? 0))
  const x = (mm: number) => middle + off * scale + mm * scale
  const px = (mm: number) => middle + mm * scale
  const y = (depth: number) => 5 + (above + depth) * scale

  const fills: Record<string, { fill: string; pattern?: string }> = {
    gravel: { fill: 'var(--gravel)', pattern: 'dots' },
    'small stone': { fill: 'var(--gravel)', pattern: 'dots' },
    'middle stone': { fill: 'var(--gravel)', pattern: 'stones' },
    'large stone': { fill: 'var(--gravel)', pattern: 'boulders' },
    'rocks in slurry': { fill: 'var(--concrete)', pattern: 'boulders' },
    concrete: { fill: 'var(--concrete)' },
    crown: { fill: 'var(--concrete)' },
    soil: { fill: 'var(--ground)', pattern: 'soil' },
    mound: { fill: 'var(--ground)', pattern: 'soil' },
  }
  const names: Record<string, string> = {
    mound: 'mounded soil',
    'inside the post': 'inside the post',
  }

  function outline(l: HoleCard['layers'][number]): string {
    if (l.from >= 0) return layerPath(card, l.from, l.to, x, y)
    // Sloped from the post's face to the hole's edge.
    const edge = widthAt(card, 0) / 2
    const half = card.post / 2
    return `M${px(-half)} ${y(l.from)}H${px(half)}L${x(edge)} ${y(0)}H${x(-edge)}z`
  }
  const shown = $derived(card.layers.filter((l) => fills[l.kind]))
  const inside = $derived(card.layers.find((l) => l.kind === 'inside the post'))

  /** Puts words at their places, sorted from above, but no nearer to each other than they can be read. */
  function apart<T extends { at: number; y: number }>(
    list: T[],
    first: number,
    last: number,
    room: number,
  ): T[] {
    for (const w of list) {
      w.y = Math.max(w.at, first)
      first = w.y + room
    }
    for (const w of [...list].reverse()) {
      w.y = Math.min(w.y, last)
      last = w.y - room
    }
    return list
  }

  /** Words beside the layers, kept apart. */
  const words = $derived.by(() => {
    const list = card.layers
      .map((l) => ({
        at: y((Math.max(l.from, -above) + Math.max(l.to, 0)) / 2),
        edge: x(widthAt(card, Math.max(0, (l.from + l.to) / 2)) / 2),
        name: names[l.kind] ?? l.kind,
        size: l.from < 0 && l.to <= 0 ? short(-l.from, units) : short(l.to - l.from, units),
        volume: small(l.volume, units),
        y: 0,
      }))
      .sort((a, b) => a.at - b.at)
    return apart(list, 20, H - 24, 40)
  })

  /** Depths on the left, kept apart; depths that are one are said as one. */
  const depths = $derived.by(() => {
    const same = (a: number, b: number) => Math.abs(a - b) < 0.05
    const list: { mm: number; name: string; tone: string; at: number; y: number }[] = []
    const put = (mm: number, name: string, tone = 'ink') => {
      const known = list.find((d) => same(d.mm, mm))
      if (known) known.name += `, ${name}`
      else list.push({ mm, name, tone, at: y(mm), y: 0 })
    }
    if (card.depth) put(card.depth, 'dig')
    put(card.foot, 'foot')
    if (card.method !== 'driven') put(card.bottom, card.concrete ? 'concrete' : 'packing')
    if (frost !== undefined)
      list.push({
        mm: frost,
        name: estimated ? 'frost, estimated' : 'frost',
        tone: 'frost',
        at: y(frost),
        y: 0,
      })
    if (wanted !== undefined)
      list.push({ mm: wanted, name: 'the rules ask for', tone: 'stop', at: y(wanted), y: 0 })
    list.sort((a, b) => a.mm - b.mm)
    return apart(list, y(0) + 14, H - 20, 38)
  })
  const strokes: Record<string, string> = {
    ink: 'stroke-(--ink)',
    frost: 'stroke-(--frost-edge)',
    stop: 'stroke-(--stop)',
  }
  const tones: Record<string, string> = {
    ink: 'fill-(--ink) stroke-(--ink)',
    frost: 'fill-(--frost-edge) stroke-(--frost-edge)',
    stop: 'fill-(--stop) stroke-(--stop)',
  }
  const said = $derived(
    `Cut through the hole: ${short(card.width, units)} wide, ${short(card.depth, units)} deep. ` +
      words.map((w) => `${w.name} ${w.size}, ${w.volume}`).join('; '),
  )
</script>

<svg
  viewBox="0 0 {W} {H}"
  class="block h-auto w-full"
  style:max-width="{W * 1.15}px"
  role="img"
  aria-label={said}
>
  <defs>
    <pattern id="{id}-dots" width="7" height="7" patternUnits="userSpaceOnUse">
      <circle cx="1.8" cy="1.8" r="1.2" class="fill-(--gravel-dot)" />
      <circle cx="5.2" cy="5" r="1.2" class="fill-(--gravel-dot)" />
    </pattern>
    <pattern id="{id}-stones" width="16" height="13" patternUnits="userSpaceOnUse">
      <path
        d="M1 5l3-4 6 1 2 4-4 4-6-1z M11 11l3-3 3 3"
        class="fill-none stroke-(--gravel-dot)"
        stroke-width="1.3"
      />
    </pattern>
    <pattern id="{id}-boulders" width="30" height="24" patternUnits="userSpaceOnUse">
      <path
        d="M2 8l6-6 11 1 4 7-6 7-11-1z M19 21l5-6 6 3 M0 22l5-3 6 4"
        class="fill-(--gravel) stroke-(--gravel-dot)"
        stroke-width="1.5"
      />
    </pattern>
    <pattern id="{id}-soil" width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
      <path d="M0 0H9" class="stroke-(--ground-hatch)" stroke-width="1.6" />
    </pattern>
  </defs>
  <rect x={left} y={y(0)} width={right - left} height={H - y(0)} class="fill-(--ground)" />
  {#if frost !== undefined}
    <rect x={left} y={y(0)} width={right - left} height={frost * scale} class="fill-(--frost)" />
  {/if}
  <rect x={left} y={y(0)} width={right - left} height={H - y(0)} fill="url(#{id}-soil)" opacity="0.45" />
  {#if frost !== undefined}
    <path
      d="M{left} {y(frost)}H{right}"
      class="stroke-(--frost-edge)"
      stroke-width="2"
      stroke-dasharray="9 5"
    />
  {/if}
  {#if wanted !== undefined}
    <path
      d="M{x(-card.width / 2) - 12} {y(wanted)}H{x(card.width / 2) + 12}"
      class="stroke-(--stop)"
      stroke-width="2"
      stroke-dasharray="4 3"
    />
  {/if}
  <path d="M{left} {y(0)}H{right}" class="stroke-(--ground-edge)" stroke-width="2.5" />
  {#each shown as l, i (i)}
    {@const f = fills[l.kind]!}
    <path d={outline(l)} fill={f.fill} class="stroke-(--concrete-edge)" stroke-width="1.2" />
    {#if f.pattern}<path d={outline(l)} fill="url(#{id}-{f.pattern})" />{/if}
  {/each}
  {#if card.pin}
    <rect
      x={px(-card.pin / 2)}
      y={y(card.bottom - Math.min(card.bottom / 2, card.pinned ?? 0))}
      width={Math.max(3, card.pin * scale)}
      height={((card.pinned ?? 0) + Math.min(card.bottom / 2, card.pinned ?? 0)) * scale}
      class="fill-(--metal) stroke-(--metal-edge)"
    />
  {/if}
  <!-- the post, and what is in it -->
  <rect
    x={px(-card.post / 2)}
    y="0"
    width={card.post * scale}
    height={y(card.foot)}
    class={card.hollow ? 'fill-(--sheet) stroke-(--metal-edge)' : 'fill-(--timber) stroke-(--timber-edge)'}
    stroke-width="1.5"
  />
  {#if card.hollow}
    {@const wall = Math.max(2, card.wall * scale)}
    {#if inside}
      <rect
        x={px(-card.post / 2) + wall}
        y={y(inside.from)}
        width={card.post * scale - 2 * wall}
        height={y(inside.to) - y(inside.from)}
        class="fill-(--concrete)"
      />
    {/if}
    {#if card.core}
      <rect
        x={px(-card.core / 2)}
        y="0"
        width={card.core * scale}
        height={y(card.foot)}
        class="fill-(--metal-edge)"
      />
    {/if}
    <rect
      x={px(-card.post / 2)}
      y="0"
      width={wall}
      height={y(card.foot)}
      class="fill-(--metal) stroke-(--metal-edge)"
    />
    <rect
      x={px(card.post / 2) - wall}
      y="0"
      width={wall}
      height={y(card.foot)}
      class="fill-(--metal) stroke-(--metal-edge)"
    />
  {/if}
  <path
    d="M{px(-card.post / 2) - 8} 9l{card.post * scale + 16}-8"
    class="stroke-(--ink)"
    stroke-width="1.5"
  />
  {#if !bare}
    {#each depths as d (d.name)}
      <path
        d="M{x(-card.width / 2) - 4} {y(d.mm)}H{left - 2}L112 {d.y}"
        fill="none"
        class={strokes[d.tone]}
        stroke-width="1.2"
      />
      <text
        x="108"
        y={d.y + 1}
        text-anchor="end"
        class="text-[19px] font-bold {tones[d.tone]}"
        stroke-width="0">{short(d.mm, units)}</text
      >
      <text x="108" y={d.y + 17} text-anchor="end" class="text-[14.5px] {tones[d.tone]}" stroke-width="0"
        >{d.name}</text
      >
    {/each}
    {#each words as w (w.name + w.at)}
      <path
        d="M{w.edge + 2} {w.at}H{right}L412 {w.y}"
        fill="none"
        class="stroke-(--ink)"
        stroke-width="1.2"
      />
      <text x="416" y={w.y} class="fill-(--ink) text-[17px] font-bold"
        >{w.size} <tspan class="font-normal">{w.name}</tspan></text
      >
      <text x="416" y={w.y + 17} class="fill-(--pencil) text-[14.5px]">{w.volume}</text>
    {/each}
    <!-- the width, under the hole -->
    <g class="fill-(--ink) stroke-(--ink)">
      <path
        d="M{x(-widthAt(card, card.depth) / 2)} {y(card.depth) + 8}v10m0-5H{x(
          widthAt(card, card.depth) / 2,
        )}m0-5v10"
        fill="none"
        stroke-width="1.4"
      />
      <text
        x={x(0)}
        y={y(card.depth) + 34}
        text-anchor="middle"
        stroke-width="0"
        class="text-[19px] font-bold"
        >{short(widthAt(card, card.depth), units)}{card.square ? ' square' : ''}</text
      >
    </g>
    {#if crossways}
      <text
        x={middle}
        y={y(0) - above * scale + 16}
        dx={(card.post * scale) / 2 + 14}
        class="fill-(--pencil) text-[14.5px]">seen along the run</text
      >
    {/if}
  {/if}
</svg>
