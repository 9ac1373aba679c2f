<script lang="ts">
  // Every hole: how wide, how deep, why, and what if.
  import { Tabs } from 'bits-ui'
  import type { View } from '../../drawing/view.svelte'
  import type { Session } from '../../lib/session.svelte'
  import Parts from '../Parts.svelte'
  import HoleCard from './HoleCard.svelte'
  import Holes from './Holes.svelte'
  import Rules from './Rules.svelte'
  import Site from './Site.svelte'
  import Later from '../../parts/Later.svelte'
  import Wind from './Wind.svelte'
  import * as msg from '../../gen/messages'

  let { session, view }: { session: Session; view: View } = $props()
  const stopped = $derived(session.run.posts.filter((p) => p.stopped && !p.stopped.settled).length)
  const sizes = $derived(session.run.totals.holes.length)
  const parts = $derived([
    { id: 'card', name: msg.dig_hole_card, note: stopped ? `${stopped} stopped` : '' },
    { id: 'rules', name: msg.dig_rules, note: '' },
    { id: 'site', name: msg.dig_frost_and_soil, note: session.run.frostEstimated ? 'estimate' : '' },
    { id: 'holes', name: msg.common_all_holes, note: sizes > 1 ? `${sizes} sizes` : '' },
    { id: 'wind', name: msg.dig_wind, note: '' },
    { id: 'whatif', name: msg.dig_compare_sizes, note: '' },
  ] as const)
</script>

<Parts
  label={msg.dig_parts_of_the_digging}
  {parts}
  value={session.nav.parts.dig}
  onpick={(id) => (session.nav.parts.dig = id as typeof session.nav.parts.dig)}
>
  <Tabs.Content value="card"
    >{#if session.run.posts.length && session.nav.parts.dig === 'card'}<HoleCard
        {session}
        {view}
      />{/if}</Tabs.Content
  >
  <Tabs.Content value="rules"
    >{#if session.nav.parts.dig === 'rules'}<Rules {session} />{/if}</Tabs.Content
  >
  <Tabs.Content value="site"
    >{#if session.nav.parts.dig === 'site'}<Site {session} />{/if}</Tabs.Content
  >
  <Tabs.Content value="holes"
    >{#if session.run.posts.length && session.nav.parts.dig === 'holes'}<Holes
        {session}
        {view}
      />{/if}</Tabs.Content
  >
  <Tabs.Content value="wind"
    >{#if session.run.posts.length && session.nav.parts.dig === 'wind'}<Wind
        {session}
        {view}
      />{/if}</Tabs.Content
  >
  <Tabs.Content value="whatif">
    {#if session.nav.parts.dig === 'whatif'}<Later
        load={() => import('./WhatIf.svelte')}
        name={msg.dig_compare_sizes}
        props={{ session }}
      />{/if}
  </Tabs.Content>
</Parts>
