<script lang="ts">
  import type { View } from '../../drawing/view.svelte'
  import type { Session } from '../../lib/session.svelte'
  import ReportTable from '../ReportTable.svelte'
  import FileLink from '../../parts/FileLink.svelte'
  import * as msg from '../../gen/messages'

  let { session, view }: { session: Session; view: View } = $props()
</script>

<ReportTable {session} {view} table="holes" caption={msg.common_holes} />
<p class="mt-2">
  <FileLink {session} what="holes" run={session.run.id}>{msg.holes_all_of_it_as_csv}</FileLink
  >{msg.holes_with_every_layer_bag_and}
</p>
