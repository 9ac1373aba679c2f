<script lang="ts">
  // A length inside the text of a drawing, its fraction set as one.
  import type { Units } from '../gen/api'
  import { split } from '../lib/tape'

  let { mm, units, long = false }: { mm: number; units: Units; long?: boolean } = $props()
  const p = $derived(split(mm, units, long))
</script>

{p.sign === '-' ? '−' : ''}{p.feet !== undefined ? `${p.feet}′ ` : ''}{p.whole ??
  ''}{#if p.numerator !== undefined}<tspan
    class="text-[10.5px]"
    dx={p.whole === undefined ? 0 : 2.5}
    dy="-4.5">{p.numerator}</tspan
  ><tspan dy="4.5">⁄</tspan><tspan class="text-[10.5px]">{p.denominator}</tspan>{/if}{p.unit === '"'
  ? '″'
  : p.unit}
