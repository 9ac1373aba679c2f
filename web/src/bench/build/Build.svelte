<script lang="ts">
  // What stands above ground: one bay with its parts, all parts, what they are
  // cut from, and the order of the work.
  import { Tabs } from 'bits-ui'
  import type { Session } from '../../lib/session.svelte'
  import Parts from '../Parts.svelte'
  import Bay from './Bay.svelte'
  import CompareStock from './CompareStock.svelte'
  import Cuts from './Cuts.svelte'
  import Order from './Order.svelte'
  import PartList from './PartList.svelte'
  import * as msg from '../../gen/messages'

  let { session }: { session: Session } = $props()
  const parts = [
    { id: 'bay', name: msg.build_a_bay, note: '' },
    { id: 'parts', name: msg.build_parts, note: '' },
    { id: 'cuts', name: msg.build_cut_list, note: '' },
    { id: 'compare', name: msg.build_compare, note: '' },
    { id: 'order', name: msg.build_order, note: '' },
  ] as const
  const open = $derived(session.run.posts.length ? session.nav.parts.build : '')
</script>

<Parts
  label={msg.build_parts_of_the_building}
  {parts}
  value={session.nav.parts.build}
  onpick={(id) => (session.nav.parts.build = id as typeof session.nav.parts.build)}
>
  <Tabs.Content value="bay"
    >{#if open === 'bay'}<Bay {session} />{/if}</Tabs.Content
  >
  <Tabs.Content value="parts"
    >{#if open === 'parts'}<PartList {session} />{/if}</Tabs.Content
  >
  <Tabs.Content value="cuts"
    >{#if open === 'cuts'}<Cuts {session} />{/if}</Tabs.Content
  >
  <Tabs.Content value="compare"
    >{#if open === 'compare'}<CompareStock {session} />{/if}</Tabs.Content
  >
  <Tabs.Content value="order"
    >{#if open === 'order'}<Order {session} />{/if}</Tabs.Content
  >
</Parts>
