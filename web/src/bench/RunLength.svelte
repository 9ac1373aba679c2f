<script lang="ts">
  // A run's length. Correcting it takes what stands at its far end along.
  import type { Session } from '../lib/session.svelte'
  import { wrongSays } from '../lib/wrong'
  import TapeEntry from '../parts/TapeEntry.svelte'

  interface Props {
    session: Session
    label: string
    hint?: string
    /** It was taken. */
    ondone?: () => void
  }
  let { session, label, hint = '', ondone }: Props = $props()
  const path = $derived(session.at('/length'))
  const error = $derived(session.errorAt(path))
  let trouble = $state('')

  async function set(mm: number | null) {
    trouble = mm === null ? '' : ((await session.correctLength(mm)) ?? '')
    if (!trouble) ondone?.()
  }
</script>

<TapeEntry
  {label}
  {hint}
  long
  field={path}
  units={session.units}
  value={session.value<number>(path)}
  error={trouble || (error ? wrongSays(error) : '')}
  oncommit={(mm) => void set(mm)}
/>
