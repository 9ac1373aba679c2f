<script lang="ts">
  import { split } from '../lib/tape'
  import type { Units } from '../gen/api'
  import * as msg from '../gen/messages'

  let { mm, units, long = false }: { mm: number; units: Units; long?: boolean } = $props()
  const p = $derived(split(mm, units, long))
</script>

<span class="whitespace-nowrap"
  >{p.sign === '-'
    ? '−'
    : ''}{#if p.feet !== undefined}{p.feet}′&nbsp;{/if}{#if p.whole !== undefined}{p.whole}{/if}{#if p.numerator !== undefined}<span
      class="frac"
      class:ml-[0.15em]={p.whole !== undefined}
      ><span class="sr-only">{p.whole !== undefined ? ' ' : ''}{p.numerator}/{p.denominator}</span><span
        aria-hidden="true"
        ><span class="num">{p.numerator}</span><span class="bar">⁄</span><span class="den"
          >{p.denominator}</span
        ></span
      ></span
    >{/if}{p.unit === '"' ? '″' : p.unit.trimStart() === 'mm' ? msg.fraction_mm : p.unit.trimStart()}</span
>

<style>
  .num,
  .den {
    font-size: 0.68em;
    line-height: 1;
  }
  .num {
    position: relative;
    top: -0.42em;
  }
  .bar {
    margin: 0 -0.06em;
  }
  .den {
    position: relative;
    top: 0.02em;
  }
</style>
