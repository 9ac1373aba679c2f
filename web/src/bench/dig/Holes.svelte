<script lang="ts">
  import type { View } from '../../drawing/view.svelte'
  import type { Session } from '../../lib/session.svelte'
  import ReportTable from '../ReportTable.svelte'

  let { session, view }: { session: Session; view: View } = $props()
</script>

<ReportTable {session} {view} table="holes" caption="Holes" />
<p class="mt-2">
  <a
    class="underline"
    href="/api/jobs/{session.id}/export?{new URLSearchParams({ what: 'holes', run: session.run.id })}"
    download>All of it as CSV</a
  >, with every layer, bag and gust.
</p>
