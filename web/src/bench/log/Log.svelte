<script lang="ts">
  // The log: what is done at the next post, what differs there and what to do about it,
  // and the record of all of it.
  import { Tabs } from 'bits-ui'
  import type { View } from '../../drawing/view.svelte'
  import type { Log } from '../../gen/api'
  import { Answer } from '../../lib/answer.svelte'
  import { api } from '../../lib/api'
  import type { Session } from '../../lib/session.svelte'
  import Later from '../../parts/Later.svelte'
  import Parts from '../Parts.svelte'
  import PostNow from './PostNow.svelte'
  import * as msg from '../../gen/messages'

  let { session, view }: { session: Session; view: View } = $props()
  // svelte-ignore state_referenced_locally
  const asked = new Answer<Log>(
    session,
    () => (session.nav.parts.log === 'post' ? '' : 'ahead'),
    (doc, signal) => (session.nav.parts.log === 'post' ? api.record(doc, signal) : api.forecast(doc, signal)),
  )
  const log = $derived(asked.value)
  const parts = $derived([
    { id: 'post', name: msg.log_posts, note: '' },
    { id: 'open', name: msg.log_what_to_do, note: log?.open ? String(log.open) : '' },
    { id: 'record', name: msg.log_record, note: '' },
    { id: 'inspect', name: msg.log_inspect, note: log?.punch.length ? String(log.punch.length) : '' },
    { id: 'usual', name: msg.log_learned, note: '' },
    { id: 'may', name: msg.log_let_go, note: '' },
  ])
  const open = $derived(session.nav.parts.log)
</script>

<Parts
  label={msg.log_parts}
  {parts}
  value={open}
  onpick={(id) => (session.nav.parts.log = id as typeof session.nav.parts.log)}
>
  {#if asked.refused}<p class="font-medium text-stop">{asked.refused}</p>{/if}
  <Tabs.Content value="post"
    >{#if open === 'post' && session.run.posts.length}<PostNow {session} {view} {log} />{/if}</Tabs.Content
  >
  <Tabs.Content value="open"
    >{#if open === 'open' && log}<Later
        load={() => import('./Deciding.svelte')}
        props={{ session, view, log }}
      />{/if}</Tabs.Content
  >
  <Tabs.Content value="record"
    >{#if open === 'record' && log}<Later
        load={() => import('./RecordList.svelte')}
        props={{ session, view, log }}
      />{/if}</Tabs.Content
  >
  <Tabs.Content value="inspect"
    >{#if open === 'inspect' && log}<Later
        load={() => import('./Inspect.svelte')}
        props={{ session, view, log }}
      />{/if}</Tabs.Content
  >
  <Tabs.Content value="usual"
    >{#if open === 'usual'}<Later
        load={() => import('./Learned.svelte')}
        props={{ session }}
      />{/if}</Tabs.Content
  >
  <Tabs.Content value="may"
    >{#if open === 'may'}<Later
        load={() => import('./LetGo.svelte')}
        props={{ session }}
      />{/if}</Tabs.Content
  >
</Parts>
