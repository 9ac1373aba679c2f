<script lang="ts">
  // The day of the pour, what goes into every hole, and what it all comes to.
  import { Tabs } from 'bits-ui'
  import type { View } from '../../drawing/view.svelte'
  import type { Session } from '../../lib/session.svelte'
  import ReportTable from '../ReportTable.svelte'
  import Parts from '../Parts.svelte'
  import ByHole from './ByHole.svelte'
  import Later from '../../parts/Later.svelte'
  import DayPlan from './DayPlan.svelte'
  import Fill from './Fill.svelte'
  import Totals from './Totals.svelte'
  import * as msg from '../../gen/messages'

  let { session, view }: { session: Session; view: View } = $props()
  const parts = [
    { id: 'day', name: msg.pour_the_day, note: '' },
    { id: 'weather', name: msg.pour_weather, note: '' },
    { id: 'fill', name: msg.pour_into_the_hole, note: '' },
    { id: 'curb', name: msg.pour_curb, note: '' },
    { id: 'rules', name: msg.pour_how_posts_are_set, note: '' },
    { id: 'holes', name: msg.common_all_holes, note: '' },
    { id: 'totals', name: msg.pour_totals, note: '' },
  ] as const
</script>

<Parts
  label={msg.pour_parts_of_the_pouring}
  {parts}
  value={session.nav.parts.pour}
  onpick={(id) => (session.nav.parts.pour = id as typeof session.nav.parts.pour)}
>
  <Tabs.Content value="day"
    >{#if session.nav.parts.pour === 'day'}<DayPlan {session} {view} />{/if}</Tabs.Content
  >
  <Tabs.Content value="weather"
    >{#if session.nav.parts.pour === 'weather'}<Later
        load={() => import('./Weather.svelte')}
        props={{ session }}
      />{/if}</Tabs.Content
  >
  <Tabs.Content value="fill"
    >{#if session.run.posts.length && session.nav.parts.pour === 'fill'}<ByHole
        {session}
        {view}
      />{/if}</Tabs.Content
  >
  <Tabs.Content value="curb"
    >{#if session.run.posts.length && session.nav.parts.pour === 'curb'}<Later
        load={() => import('./Curb.svelte')}
        props={{ session, view }}
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
        caption={msg.common_all_holes}
      />{/if}</Tabs.Content
  >
  <Tabs.Content value="totals"
    >{#if session.nav.parts.pour === 'totals'}<Totals {session} />{/if}</Tabs.Content
  >
</Parts>
