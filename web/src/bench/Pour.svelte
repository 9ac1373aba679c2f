<script lang="ts">
  import type { View } from '../drawing/view.svelte'
  import type { Session } from '../lib/session.svelte'
  import { small } from '../lib/tape'
  import Figure from '../parts/Figure.svelte'
  import Fraction from '../parts/Fraction.svelte'
  import NumberEntry from '../parts/NumberEntry.svelte'
  import Pick from '../parts/Pick.svelte'
  import LengthField from './LengthField.svelte'
  import PostTable from './PostTable.svelte'

  let { session, view }: { session: Session; view: View } = $props()
  const units = $derived(session.units)
  const bag = $derived(session.value<string>(session.at('/setting/bag')) ?? '')
  const waste = $derived(session.value<number>(session.at('/setting/waste')) ?? 0)
</script>

<div class="grid max-w-5xl grid-cols-2 gap-3 sm:grid-cols-4">
  <Pick
    label="Bag"
    value={bag}
    options={session.catalogue.bags.map((b) => ({
      value: b.id,
      name: `${b.name}, ${small(b.yield, units)}`,
    }))}
    onpick={(v) => session.commit([{ path: session.at('/setting/bag'), value: v }], `Bags: ${v}`)}
  />
  <LengthField {session} path={session.at('/setting/cover')} label="Soil over the concrete" />
  <LengthField {session} path={session.at('/setting/gravel')} label="Gravel under the post" />
  <NumberEntry
    label="Waste, per cent"
    value={Math.round(waste * 1000) / 10}
    error={session.errorAt(session.at('/setting/waste')) ? 'Allowed is 0 to 50.' : ''}
    oncommit={(n) =>
      session.commit([{ path: session.at('/setting/waste'), value: n / 100 }], `Waste ${n} per cent`)}
  />
</div>

{#if session.run.posts.length}
  <PostTable {session} {view} caption="Into each hole" head={['Gravel', 'Concrete', 'Volume', 'Bags']}>
    {#snippet row(p)}
      <td><Fraction mm={p.gravel} {units} />, {small(p.gravelVolume, units)}</td>
      <td><Fraction mm={p.concrete} {units} /> high</td>
      <td>{small(p.concreteVolume, units)}</td>
      <td class="text-[1.05rem] font-semibold"
        ><Figure why={p.why.concrete} of="{p.id} bags">{p.bags.toFixed(2)}</Figure></td
      >
    {/snippet}
  </PostTable>
  <p class="mt-2 max-w-prose text-pencil">
    Bags are rounded up once for the run, in the load; pour by the decimals here.
  </p>
{/if}
