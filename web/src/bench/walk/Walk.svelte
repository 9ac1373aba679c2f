<script lang="ts">
  // Walking the site: the line and its corners, the ground, what is in the
  // way, and what must be settled before anything is dug.
  import { Tabs } from 'bits-ui'
  import type { View } from '../../drawing/view.svelte'
  import type { Session } from '../../lib/session.svelte'
  import Parts from '../Parts.svelte'
  import Later from '../../parts/Later.svelte'
  import Before from './Before.svelte'
  import Ground from './Ground.svelte'
  import InTheWay from './InTheWay.svelte'
  import Lines from './Lines.svelte'
  import * as msg from '../../gen/messages'

  let { session }: { session: Session; view: View } = $props()
  const open = $derived(session.plan.before.checks.filter((c) => !c.done).length)
  const way = $derived(session.plan.runs.reduce((n, r) => n + r.inTheWay.length, 0))
  const parts = $derived([
    { id: 'line', name: msg.walk_line_and_corners, note: '' },
    { id: 'ground', name: msg.common_ground, note: '' },
    { id: 'way', name: msg.walk_obstructions, note: way ? String(way) : '' },
    { id: 'before', name: msg.common_before_you_dig, note: open ? `${open} open` : 'cleared' },
    { id: 'files', name: msg.walk_files, note: '' },
    { id: 'notes', name: msg.walk_notes, note: '' },
  ] as const)
</script>

<Parts
  label={msg.walk_parts_of_the_walk}
  {parts}
  value={session.nav.parts.walk}
  onpick={(id) => (session.nav.parts.walk = id as typeof session.nav.parts.walk)}
>
  <Tabs.Content value="line"><Lines {session} /></Tabs.Content>
  <Tabs.Content value="ground"
    >{#key session.run.id}<Ground {session} />{/key}</Tabs.Content
  >
  <Tabs.Content value="way"><InTheWay {session} /></Tabs.Content>
  <Tabs.Content value="before"><Before {session} /></Tabs.Content>
  <Tabs.Content value="files"
    ><Later load={() => import('./Files.svelte')} name={msg.walk_files} props={{ session }} /></Tabs.Content
  >
  <Tabs.Content value="notes"
    >{#key session.run.id}<Later
        load={() => import('./Notes.svelte')}
        name={msg.walk_the_notes}
        props={{ session }}
      />{/key}</Tabs.Content
  >
</Parts>
