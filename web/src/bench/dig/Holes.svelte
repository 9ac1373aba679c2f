<script lang="ts">
  import type { View } from '../../drawing/view.svelte'
  import type { Session } from '../../lib/session.svelte'
  import ReportTable from '../ReportTable.svelte'
  import FileLink from '../../parts/FileLink.svelte'

  let { session, view }: { session: Session; view: View } = $props()
</script>

<ReportTable {session} {view} table="holes" caption="Holes" />
<p class="mt-2">
  <FileLink {session} what="holes" run={session.run.id}>All of it as CSV</FileLink>, with every layer, bag and
  gust.
</p>
