<script lang="ts">
  // A small whole number of the job, entered on the bench.
  import { wrongSays } from '../lib/wrong'
  import type { Session } from '../lib/session.svelte'
  import NumberEntry from '../parts/NumberEntry.svelte'
  import * as msg from '../gen/messages'

  interface Props {
    session: Session
    path: string
    label: string
    /** Fewer are none. */
    least?: number
  }
  let { session, path, label, least = 0 }: Props = $props()
  const error = $derived(session.errorAt(path))
</script>

<NumberEntry
  {label}
  value={Math.max(session.value<number>(path) ?? 0, least)}
  error={error ? wrongSays(error) : ''}
  oncommit={(n) => session.commit([{ path, value: n }], `${label} ${n ?? msg.common_not_set}`)}
/>
