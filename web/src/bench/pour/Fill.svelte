<script lang="ts">
  // What goes into the holes, at the level that is picked.
  import { levelOf, say } from '../../lib/rules'
  import type { Session } from '../../lib/session.svelte'
  import { small } from '../../lib/tape'
  import Choice from '../../parts/Choice.svelte'
  import RuleFields from '../dig/RuleFields.svelte'
  import ScopePicker from '../dig/ScopePicker.svelte'
  import * as msg from '../../gen/messages'

  let { session }: { session: Session } = $props()
  const level = $derived(levelOf(session, session.nav.scope))
  const v = $derived(level.rules.values)
  const hollow = $derived(session.run.cards.some((c) => c.hollow))
  const bag = $derived(session.catalogue.bags.find((b) => b.id === v['setting/bag']))
  const stone = $derived(v['setting/method'] === 'rock')
  const insides = ['setting/inside', 'setting/fillTo', 'setting/core', 'setting/coreWall']
</script>

<ScopePicker {session} />
{#key session.nav.scope + session.run.id + (session.nav.scope === 'post' ? session.post : '')}
  <div class="grid max-w-6xl gap-x-10 gap-y-5 xl:grid-cols-2">
    <section aria-labelledby="fill-how">
      <h2 id="fill-how" class="mb-2 border-b-2 border-ink pb-1 font-bold">
        {msg.fill_how_the_posts_are_set}
      </h2>
      <RuleFields
        {session}
        {level}
        part="filling"
        also={['setting/gravel', 'setting/stand']}
        without={hollow ? [] : insides}
      />
    </section>
    <section class="grid min-w-0 grid-cols-1 content-start gap-3" aria-labelledby="fill-top">
      <h2 id="fill-top" class="border-b-2 border-ink pb-1 font-bold">{msg.fill_the_top_and_the_bag}</h2>
      {#if !stone}
        <Choice
          label={msg.fill_top_of_the_concrete}
          value={String(v['setting/top'])}
          options={session.catalogue.choices['setting/top']!}
          onpick={(top) =>
            session.commit(say(level, { 'setting/top': top }), msg.fill_top({ top, level: level.name }))}
        />
      {/if}
      <RuleFields {session} {level} part="top" without={['setting/top']} />
      {#if bag && !stone}<p class="text-pencil">
          {msg.fill_a_makes({ bag: bag.name, small: small(bag.yield, session.units) })}
        </p>{/if}
    </section>
  </div>
{/key}
