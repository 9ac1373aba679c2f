<script lang="ts">
  // What goes into every hole, and what it all comes to.
  import { Tabs } from 'bits-ui'
  import type { View } from '../../drawing/view.svelte'
  import type { Session } from '../../lib/session.svelte'
  import ReportTable from '../ReportTable.svelte'
  import Parts from '../Parts.svelte'
  import ByHole from './ByHole.svelte'
  import Fill from './Fill.svelte'
  import Totals from './Totals.svelte'

  let { session, view }: { session: Session; view: View } = $props()
  const parts = [
    { id: 'fill', name: 'Into the hole', note: '' },
    { id: 'rules', name: 'How posts are set', note: '' },
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
    >{#if session.run.posts.length && session.nav.parts.pour === 'fill'}<ByHole
        {session}
        {view}
      />{/if}</Tabs.Content
  >
  <Tabs.Content value="rules"
    >{#if session.nav.parts.pour === 'rules'}<Fill {session} />{/if}</Tabs.Content
  >
  <Tabs.Content value="holes"
    >{#if session.run.posts.length && session.nav.parts.pour === 'holes'}<ReportTable
        {session}
        {view}
        table="holes"
        caption="All holes"
      />{/if}</Tabs.Content
  >
  <Tabs.Content value="totals"
    >{#if session.nav.parts.pour === 'totals'}<Totals {session} />{/if}</Tabs.Content
  >
</Parts>
