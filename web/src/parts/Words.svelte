<script lang="ts">
  import type { Part, Units } from '../gen/api'
  import { say } from '../lib/say'
  import { usualUnits } from '../lib/tape'
  import Fraction from './Fraction.svelte'

  let { says, units }: { says: Part[] | undefined; units: Units } = $props()
  /** A length that was entered in the other system is said in it. */
  const of = (p: Part) => (p.system && p.system !== units.system ? usualUnits(p.system) : units)
</script>

{#each says ?? [] as part, i (i)}{#if part.kind === 'length'}<Fraction
      mm={part.value ?? 0}
      units={of(part)}
    />{:else if part.kind === 'tape'}<Fraction mm={part.value ?? 0} {units} long />{:else}{say(
      part,
      units,
    )}{/if}{/each}
