<script lang="ts">
  // The work in days: what is done when, with whom and with what on the truck; a task
  // that is moved takes the rest along.
  import { Tabs } from 'bits-ui'
  import type { Schedule } from '../../gen/api'
  import { Answer } from '../../lib/answer.svelte'
  import { api } from '../../lib/api'
  import type { Session } from '../../lib/session.svelte'
  import Parts from '../Parts.svelte'
  import Crew from './Crew.svelte'
  import DayList from './DayList.svelte'
  import Tasks from './Tasks.svelte'
  import * as msg from '../../gen/messages'

  let { session }: { session: Session } = $props()
  // svelte-ignore state_referenced_locally
  const asked = new Answer<Schedule>(
    session,
    () => '',
    (doc, signal) => api.days(doc, signal),
  )
  const parts = [
    { id: 'days', name: msg.days_days, note: '' },
    { id: 'tasks', name: msg.days_tasks, note: '' },
    { id: 'crew', name: msg.days_crew, note: '' },
  ] as const
  const open = $derived(session.nav.parts.days)
</script>

<Parts
  label={msg.days_parts}
  {parts}
  value={open}
  onpick={(id) => (session.nav.parts.days = id as typeof session.nav.parts.days)}
>
  {#if asked.refused}<p class="font-medium text-stop">{asked.refused}</p>{/if}
  <Tabs.Content value="days"
    >{#if open === 'days' && asked.value}<DayList
        {session}
        schedule={asked.value}
        fresh={asked.fresh}
      />{/if}</Tabs.Content
  >
  <Tabs.Content value="tasks"
    >{#if open === 'tasks' && asked.value}<Tasks {session} schedule={asked.value} />{/if}</Tabs.Content
  >
  <Tabs.Content value="crew"
    >{#if open === 'crew' && asked.value}<Crew {session} schedule={asked.value} />{/if}</Tabs.Content
  >
</Parts>
