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
  import WhatIf from './WhatIf.svelte'
  import Wind from './Wind.svelte'

  let { session, view }: { session: Session; view: View } = $props()
  const stopped = $derived(session.run.posts.filter((p) => p.stopped && !p.stopped.settled).length)
  const sizes = $derived(session.run.totals.holes.length)
  const parts = $derived([
    { id: 'card', name: 'Hole card', note: stopped ? `${stopped} stopped` : '' },
    { id: 'rules', name: 'Rules', note: '' },
    { id: 'site', name: 'Frost and soil', note: session.run.frostEstimated ? 'estimate' : '' },
    { id: 'holes', name: 'All holes', note: sizes > 1 ? `${sizes} sizes` : '' },
    { id: 'wind', name: 'Wind', note: '' },
    { id: 'whatif', name: 'Compare sizes', note: '' },
  ] as const)
</script>

<Parts
  label="Parts of the digging"
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
    {#if session.nav.parts.dig === 'whatif'}<WhatIf {session} />{/if}
  </Tabs.Content>
</Parts>
