<script lang="ts">
  import type { View } from '../../drawing/view.svelte'
  import type { Session } from '../../lib/session.svelte'
  import { small } from '../../lib/tape'
  import Figure from '../../parts/Figure.svelte'
  import Fraction from '../../parts/Fraction.svelte'
  import PostTable from '../PostTable.svelte'
  import { ofPost } from '../../lib/figure'

  let { session, view }: { session: Session; view: View } = $props()
  const units = $derived(session.units)
  const stone = $derived(session.run.posts.some((p) => p.stoneVolume > 0))
</script>

<PostTable
  {session}
  {view}
  caption="Into each hole"
  head={['Gravel', ...(stone ? ['Stone'] : []), 'Concrete', 'Volume', 'Bags']}
>
  {#snippet row(p)}
    <td><Fraction mm={p.gravel} {units} />, {small(p.gravelVolume, units)}</td>
    {#if stone}<td>{p.stoneVolume > 0 ? small(p.stoneVolume, units) : '—'}</td>{/if}
    <td
      >{#if p.concrete > 0}<Fraction mm={p.concrete} {units} /> high{:else}—{/if}</td
    >
    <td>{p.concreteVolume > 0 ? small(p.concreteVolume, units) : '—'}</td>
    <td class="text-[1.05rem] font-semibold"
      ><Figure why={ofPost(session.run, p, 'concrete')} of="{p.label} bags">{p.bags.toFixed(2)}</Figure></td
    >
  {/snippet}
</PostTable>
<p class="mt-2 max-w-prose text-pencil">
  Bags are rounded up once for the run, in the load; pour by the decimals here.
</p>
