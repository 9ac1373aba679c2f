<script lang="ts">
  import type { View } from '../drawing/view.svelte'
  import type { Post } from '../gen/api'
  import type { Session } from '../lib/session.svelte'
  import Choice from '../parts/Choice.svelte'
  import Figure from '../parts/Figure.svelte'
  import Fraction from '../parts/Fraction.svelte'
  import NumberEntry from '../parts/NumberEntry.svelte'
  import Pick from '../parts/Pick.svelte'
  import LengthField from './LengthField.svelte'
  import PostTable from './PostTable.svelte'

  let { session, view }: { session: Session; view: View } = $props()
  const units = $derived(session.units)
  const post = $derived(session.value<Post>(session.at('/post'))!)
  const sizes = $derived(session.catalogue.posts.filter((p) => p.system === units.system))
  const size = $derived(
    sizes.find(
      (p) =>
        p.shape === post.shape &&
        Math.abs(p.width - (post.width ?? 0)) < 0.01 &&
        p.hollow === (post.hollow ?? false),
    )?.name ?? 'own',
  )
  const share = $derived(session.value<string>(session.at('/hole/share')) ?? 'quarter')
  const factor = $derived(session.value<number>(session.at('/hole/widthFactor')) ?? 3)

  function take(name: string) {
    const p = sizes.find((s) => s.name === name)
    if (!p) return
    const { shape, width, hollow, wall } = p
    session.commit(
      Object.entries({ shape, width, hollow, wall }).map(([k, value]) => ({
        path: session.at(`/post/${k}`),
        value,
      })),
      `Posts: ${name}`,
    )
  }
</script>

<div class="grid max-w-6xl gap-x-8 gap-y-4 lg:grid-cols-2">
  <div class="grid grid-cols-2 content-start gap-3 sm:grid-cols-3">
    <Pick
      label="Post"
      value={size}
      options={[
        ...sizes.map((s) => ({ value: s.name, name: s.name })),
        ...(size === 'own' ? [{ value: 'own', name: 'own size' }] : []),
      ]}
      onpick={take}
    />
    <LengthField {session} path={session.at('/post/width')} label="Its width" />
    <NumberEntry
      label="Hole, times the width"
      value={factor}
      error={session.errorAt(session.at('/hole/widthFactor'))?.allowed}
      oncommit={(n) =>
        session.commit([{ path: session.at('/hole/widthFactor'), value: n }], `Hole ${n} times the post`)}
    />
    <LengthField {session} path="/site/frostDepth" label="Frost depth" />
    <LengthField {session} path={session.at('/hole/frostMargin')} label="Below the frost by" />
    <LengthField {session} path={session.at('/hole/floor')} label="Never less than" />
    <LengthField {session} path={session.at('/hole/gateExtraDepth')} label="Gate posts deeper by" />
    <LengthField {session} path={session.at('/hole/gateExtraWidth')} label="Gate holes wider by" />
    <LengthField {session} path={session.at('/setting/gravel')} label="Gravel under" />
  </div>
  <Choice
    label="Share of the whole post that stands in the ground"
    value={share}
    options={[
      { value: 'none', name: 'No share', costs: 'frost and the floor decide' },
      { value: 'quarter', name: 'A quarter', costs: 'same as a third of the height above' },
      { value: 'third', name: 'A third', costs: 'half of the height above; more digging' },
      { value: 'half', name: 'A half', costs: 'as much below as above; long posts' },
    ]}
    onpick={(v) =>
      session.commit([{ path: session.at('/hole/share'), value: v }], `Share in the ground: ${v}`)}
  />
</div>

{#if session.run.posts.length}
  <PostTable
    {session}
    {view}
    caption="Holes"
    head={['Width', 'Dig', 'Foot of the post', 'Gravel', 'Post from']}
  >
    {#snippet row(p)}
      <td
        ><Figure why={p.why.holeWidth} of="{p.id} hole width"><Fraction mm={p.holeWidth} {units} /></Figure
        ></td
      >
      <td class="text-[1.05rem] font-semibold"
        ><Figure why={p.why.holeDepth} of="{p.id} hole depth"><Fraction mm={p.holeDepth} {units} /></Figure
        ></td
      >
      <td><Fraction mm={p.foot} {units} /></td>
      <td><Fraction mm={p.gravel} {units} /></td>
      <td
        >{#if p.stock !== undefined}<Fraction mm={p.stock} {units} />{:else}<span class="text-stop"
            >none long enough</span
          >{/if}</td
      >
    {/snippet}
  </PostTable>
{/if}
