<script lang="ts">
  // A measure in the drawing, on a strip of paper so that it reads over
  // anything.
  import type { Units } from '../gen/api'
  import { split } from '../lib/tape'

  interface Props {
    x: number
    y: number
    mm?: number
    words?: string
    after?: string
    units: Units
    long?: boolean
    strong?: boolean
    tone?: 'ink' | 'onmallow' | 'stop' | 'frost'
    anchor?: 'middle' | 'start' | 'end'
  }
  let {
    x,
    y,
    mm,
    words = '',
    after = '',
    units,
    long = false,
    strong = false,
    tone = 'ink',
    anchor = 'middle',
  }: Props = $props()
  const p = $derived(mm === undefined ? undefined : split(mm, units, long))
  const fills = {
    ink: 'fill-(--ink)',
    onmallow: 'fill-(--on-mallow)',
    stop: 'fill-(--stop)',
    frost: 'fill-(--frost-edge)',
  }
</script>

<text
  {x}
  {y}
  text-anchor={anchor}
  class="pointer-events-none {fills[tone]} {strong ? 'text-[15px] font-bold' : 'text-[13.5px] font-semibold'}"
  stroke={tone === 'onmallow' ? 'none' : 'var(--sheet)'}
  stroke-width="4"
  paint-order="stroke"
  stroke-linejoin="round"
  >{words}{#if p}{p.sign === '-' ? '−' : ''}{p.feet !== undefined ? `${p.feet}′ ` : ''}{p.whole ??
      ''}{#if p.numerator !== undefined}<tspan
        class="text-[10.5px]"
        dx={p.whole === undefined ? 0 : 2.5}
        dy="-4.5">{p.numerator}</tspan
      ><tspan dy="4.5">⁄</tspan><tspan class="text-[10.5px]">{p.denominator}</tspan>{/if}{p.unit === '"'
      ? '″'
      : p.unit}{/if}{after}</text
>
