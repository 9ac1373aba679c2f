<script lang="ts">
  import type { View } from '../drawing/view.svelte'
  import type { Session } from '../lib/session.svelte'
  import { short } from '../lib/tape'
  import Choice from '../parts/Choice.svelte'
  import Figure from '../parts/Figure.svelte'
  import Fraction from '../parts/Fraction.svelte'
  import LengthField from './LengthField.svelte'
  import PostTable from './PostTable.svelte'

  let { session, view }: { session: Session; view: View } = $props()
  const units = $derived(session.units)
  const look = $derived(session.value<string>(session.at('/grade/look')) ?? 'stepped')
  const give = $derived(session.value<string>(session.at('/grade/give')) ?? 'fill')
  const set = (field: string, value: string) =>
    session.commit([{ path: session.at(field), value }], `${value[0]!.toUpperCase()}${value.slice(1)}`)
</script>

<div class="grid max-w-6xl gap-x-8 gap-y-4 md:grid-cols-2">
  <Choice
    label="Look"
    value={look}
    options={[
      { value: 'level', name: 'Level', costs: 'one height; tall posts at the low end' },
      { value: 'stepped', name: 'Stepped', costs: 'level panels; a gap under the low end of each' },
      { value: 'raked', name: 'Raked', costs: 'follows the ground; panels must rack' },
    ]}
    onpick={(v) => set('/grade/look', v)}
  />
  <Choice
    label="Where both gaps cannot be held"
    value={give}
    options={[
      { value: 'fill', name: 'Fill', costs: 'bring soil to the low ground' },
      { value: 'cut', name: 'Cut', costs: 'dig off the high ground' },
      { value: 'both', name: 'Half and half', costs: 'the cut fills the low ground' },
    ]}
    onpick={(v) => set('/grade/give', v)}
  />
  <div class="grid grid-cols-2 gap-3 sm:grid-cols-3 md:col-span-2 lg:grid-cols-5">
    <LengthField {session} path={session.at('/fence/height')} label="Fence height" />
    <LengthField {session} path={session.at('/fence/gapLeast')} label="Least gap under it" />
    <LengthField {session} path={session.at('/fence/gapMost')} label="Most gap under it" />
    <LengthField {session} path={session.at('/grade/rack')} label="Panel racks at most" optional />
    <LengthField {session} path={session.at('/post/above')} label="Post above the fence" />
  </div>
</div>

{#if session.run.posts.length}
  <PostTable
    {session}
    {view}
    caption="Tops and gaps"
    head={['Top above ground', 'Post from', 'Cut off', 'Gap to next, least', 'most', 'Ground']}
  >
    {#snippet row(p, b)}
      <td class="text-[1.05rem] font-semibold"
        ><Figure why={p.why.top} of="{p.id} top above ground"><Fraction mm={p.reveal} {units} /></Figure></td
      >
      <td
        ><Figure why={p.why.stock} of="{p.id} post length"
          >{#if p.stock !== undefined}<Fraction mm={p.stock} {units} />{:else}<span
              class="font-semibold text-stop">none long enough</span
            >{/if}</Figure
        ></td
      >
      <td
        >{#if p.cutOff !== undefined}<Fraction mm={p.cutOff} {units} />{/if}</td
      >
      <td
        >{#if b}<Figure why={b.why.gap} of="{b.id} gap"><Fraction mm={b.gapLeast.gap} {units} /></Figure
          >{/if}</td
      >
      <td
        >{#if b}<Fraction mm={b.gapMost.gap} {units} />{/if}</td
      >
      <td class="font-semibold text-stop"
        >{#if b?.cut}cut {short(b.cut.depth, units)}{/if}
        {#if b?.fill}fill {short(b.fill.depth, units)}{/if}</td
      >
    {/snippet}
  </PostTable>
{/if}
