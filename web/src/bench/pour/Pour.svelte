<script lang="ts">
  // What goes into every hole, and what it all comes to.
  import { Tabs } from 'bits-ui'
  import type { View } from '../../drawing/view.svelte'
  import type { Session } from '../../lib/session.svelte'
  import HoleCard from '../dig/HoleCard.svelte'
  import Parts from '../Parts.svelte'
  import Fill from './Fill.svelte'
  import IntoHoles from './IntoHoles.svelte'
  import Totals from './Totals.svelte'

  let { session, view }: { session: Session; view: View } = $props()
  const parts = [
    { id: 'fill', name: 'Hole card', note: '' },
    { id: 'rules', name: 'Filling', note: '' },
    { id: 'holes', name: 'All holes', note: '' },
    { id: 'totals', name: 'Totals', note: '' },
  ] as const
</script>

<Parts
  label="Parts of the pouring"
  {parts}
  value={session.nav.parts.pour}
  onpick={(id) => (session.nav.parts.pour = id as typeof session.nav.parts.pour)}
>
  <Tabs.Content value="fill"
    >{#if session.run.posts.length && session.nav.parts.pour === 'fill'}<HoleCard
        {session}
        {view}
        digging={false}
      />{/if}</Tabs.Content
  >
  <Tabs.Content value="rules"
    >{#if session.nav.parts.pour === 'rules'}<Fill {session} />{/if}</Tabs.Content
  >
  <Tabs.Content value="holes"
    >{#if session.run.posts.length && session.nav.parts.pour === 'holes'}<IntoHoles
        {session}
        {view}
      />{/if}</Tabs.Content
  >
  <Tabs.Content value="totals"
    >{#if session.nav.parts.pour === 'totals'}<Totals {session} />{/if}</Tabs.Content
  >
</Parts>
