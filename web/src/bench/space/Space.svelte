<script lang="ts">
  // Where every post stands: how the bays are found, the layouts worth
  // having, and the marks to tape.
  import { Tabs } from 'bits-ui'
  import type { View } from '../../drawing/view.svelte'
  import type { Session } from '../../lib/session.svelte'
  import Parts from '../Parts.svelte'
  import Gates from './Gates.svelte'
  import Held from './Held.svelte'
  import Layouts from './Layouts.svelte'
  import Pieces from './Pieces.svelte'
  import SetOut from './SetOut.svelte'
  import Ways from './Ways.svelte'
  import * as msg from '../../gen/messages'

  let { session, view }: { session: Session; view: View } = $props()
  const held = $derived(
    session.run.posts.filter((p) => p.held).length + session.run.bays.filter((b) => b.held).length,
  )
  const cut = $derived(session.run.totals.cutPieces)
  const parts = $derived([
    { id: 'ways', name: msg.space_bays, note: '' },
    { id: 'held', name: msg.common_fixed_posts, note: held ? String(held) : '' },
    { id: 'layouts', name: msg.space_layouts, note: '' },
    { id: 'pieces', name: msg.space_pieces, note: cut ? `${cut} cut` : '' },
    { id: 'setout', name: msg.space_set_out, note: '' },
  ] as const)
</script>

<Parts
  label={msg.space_parts_of_the_spacing}
  {parts}
  value={session.nav.parts.space}
  onpick={(id) => (session.nav.parts.space = id as typeof session.nav.parts.space)}
>
  <Tabs.Content value="ways">
    {#key session.run.id}<Ways {session} /><Gates {session} />{/key}
  </Tabs.Content>
  <Tabs.Content value="held"><Held {session} {view} /></Tabs.Content>
  <Tabs.Content value="layouts">
    {#if session.nav.parts.space === 'layouts'}<Layouts {session} />{/if}
  </Tabs.Content>
  <Tabs.Content value="pieces"><Pieces {session} /></Tabs.Content>
  <Tabs.Content value="setout"><SetOut {session} {view} /></Tabs.Content>
</Parts>
