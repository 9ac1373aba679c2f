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

  let { session, view }: { session: Session; view: View } = $props()
  const totals = $derived(session.run.totals)
  const breaks = $derived(totals.gradePosts + totals.steps)
  const parts = $derived([
    { id: 'look', name: 'Look', note: '' },
    {
      id: 'tops',
      name: 'Tops and bays',
      note: breaks ? `${breaks} ${breaks === 1 ? 'break' : 'breaks'}` : '',
    },
    { id: 'compare', name: 'Compare looks', note: '' },
    { id: 'along', name: 'Along the line', note: '' },
    { id: 'stick', name: 'Story stick', note: '' },
    { id: 'set', name: 'Set the tops', note: '' },
  ] as const)
</script>

<Parts
  label="Parts of the grade"
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
