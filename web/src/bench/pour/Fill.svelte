<script lang="ts">
  // What goes into the holes, at the level that is picked.
  import { levelOf } from '../../lib/rules'
  import type { Session } from '../../lib/session.svelte'
  import { small } from '../../lib/tape'
  import Choice from '../../parts/Choice.svelte'
  import { say } from '../../lib/rules'
  import RuleField from '../dig/RuleField.svelte'
  import ScopePicker from '../dig/ScopePicker.svelte'

  let { session }: { session: Session } = $props()
  const level = $derived(levelOf(session, session.nav.scope))
  const v = $derived(level.rules.values)
  const method = $derived(v['setting/method'] as string)
  /** Choices that the run's fence system rules out here, and why. */
  const refused = $derived(level.rules.refused as Record<string, Record<string, string>>)
  const hollow = $derived(session.run.cards.some((c) => c.hollow))
  const bags = $derived(session.catalogue.bags)
  const bagSaid = $derived(bags.find((b) => b.id === v['setting/bag']))
  const stone = $derived(method === 'rock')
</script>

<ScopePicker {session} />
{#key session.nav.scope + session.run.id + (session.nav.scope === 'post' ? session.post : '')}
  <div class="grid max-w-6xl gap-x-10 gap-y-5 xl:grid-cols-2">
    <section aria-labelledby="fill-how">
      <h2 id="fill-how" class="mb-2 border-b-2 border-ink pb-1 font-bold">How the posts are set</h2>
      <div class="grid grid-cols-2 items-end gap-x-4 gap-y-2 sm:grid-cols-3">
        <div class="col-span-2">
          <RuleField
            {session}
            {level}
            field="setting/method"
            label="Way of setting"
            kind={session.catalogue.methods.filter((m) => m.hole).map((m) => m.id)}
            refused={refused['setting/method']}
          />
        </div>
        <RuleField {session} {level} field="setting/gravel" label="Gravel under the post" />
        <RuleField {session} {level} field="setting/stand" label="Foot above the concrete's bottom" />
        {#if method === 'slurry'}
          <RuleField {session} {level} field="setting/rocksTo" label="Rocks up to, below ground" />
        {/if}
        {#if !stone}
          <RuleField
            {session}
            {level}
            field="setting/rubble"
            label="Rubble in the mix, per cent"
            kind="percent"
          />
        {/if}
        {#if hollow}
          <RuleField
            {session}
            {level}
            field="setting/inside"
            label="Hollow posts"
            kind={['open', 'closed', 'core']}
            refused={refused['setting/inside']}
          />
          {#if v['setting/inside'] !== 'closed'}<RuleField
              {session}
              {level}
              field="setting/fillTo"
              label="Filled inside to, above ground"
            />{/if}
          {#if v['setting/inside'] === 'core'}
            <RuleField {session} {level} field="setting/core" label="Steel core, its side" />
            <RuleField {session} {level} field="setting/coreWall" label="Wall of the core; 0: solid" />
          {/if}
        {/if}
      </div>
    </section>
    <section class="grid content-start gap-3" aria-labelledby="fill-top">
      <h2 id="fill-top" class="border-b-2 border-ink pb-1 font-bold">The top, and the bag</h2>
      {#if !stone}
        <Choice
          label="Top of the concrete"
          value={String(v['setting/top'])}
          options={[
            {
              value: 'cover',
              name: 'Stopped below, soil over it',
              costs: 'grass grows to the post; the mound settles and is topped up',
            },
            {
              value: 'crown',
              name: 'Crowned above ground',
              costs: 'sheds water and shows; frost gets under a wide crown',
            },
          ]}
          onpick={(top) =>
            session.commit(say(session, level, { 'setting/top': top }), `Top: ${top}, ${level.name}`)}
        />
      {/if}
      <div class="grid grid-cols-2 items-end gap-x-4 gap-y-2 sm:grid-cols-3">
        {#if !stone && v['setting/top'] === 'crown'}
          <RuleField {session} {level} field="setting/crown" label="Crown, at the post" />
        {:else}
          {#if !stone}<RuleField
              {session}
              {level}
              field="setting/cover"
              label="Soil over the concrete"
            />{/if}
          <RuleField {session} {level} field="setting/mound" label="Mounded at the post" />
        {/if}
        {#if !stone}
          <RuleField {session} {level} field="setting/bag" label="Bag" kind={bags.map((b) => b.id)} />
          <RuleField {session} {level} field="setting/waste" label="Waste, per cent" kind="percent" />
        {/if}
      </div>
      {#if bagSaid && !stone}<p class="text-pencil">
          A {bagSaid.name} makes {small(bagSaid.yield, session.units)}.
        </p>{/if}
    </section>
  </div>
{/key}
