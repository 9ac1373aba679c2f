<script lang="ts">
  // The top line: which look, what it comes to, how it looks from its end,
  // and how it is set on site.
  import { Tabs } from 'bits-ui'
  import type { View } from '../../drawing/view.svelte'
  import type { Session } from '../../lib/session.svelte'
  import Parts from '../Parts.svelte'
  import Along from './Along.svelte'
  import Compare from './Compare.svelte'
  import Look from './Look.svelte'
  import SetTops from './SetTops.svelte'
  import StoryStick from './StoryStick.svelte'
  import Tops from './Tops.svelte'
  import * as msg from '../../gen/messages'

  let { session, view }: { session: Session; view: View } = $props()
  const totals = $derived(session.run.totals)
  const breaks = $derived(totals.gradePosts + totals.steps)
  const parts = $derived([
    { id: 'look', name: msg.common_look, note: '' },
    {
      id: 'tops',
      name: msg.grade_tops_and_bays,
      note: breaks ? `${breaks} ${breaks === 1 ? msg.grade_break : msg.grade_breaks}` : '',
    },
    { id: 'compare', name: msg.grade_compare_looks, note: '' },
    { id: 'along', name: msg.grade_along_the_line, note: '' },
    { id: 'stick', name: msg.grade_story_stick, note: '' },
    { id: 'set', name: msg.grade_set_the_tops, note: '' },
  ] as const)
</script>

<Parts
  label={msg.grade_parts_of_the_grade}
  {parts}
  value={session.nav.parts.grade}
  onpick={(id) => (session.nav.parts.grade = id as typeof session.nav.parts.grade)}
>
  {#each parts as p (p.id)}
    <Tabs.Content value={p.id}>
      {#if session.nav.parts.grade !== p.id}{:else if p.id === 'look'}
        {#key session.run.id}<Look {session} />{/key}
      {:else if p.id === 'tops'}<Tops {session} {view} />
      {:else if p.id === 'compare'}<Compare {session} />
      {:else if p.id === 'along'}<Along {session} />
      {:else if p.id === 'stick'}<StoryStick {session} />
      {:else}<SetTops {session} {view} />{/if}
    </Tabs.Content>
  {/each}
</Parts>
