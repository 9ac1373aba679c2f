<script lang="ts">
  // A length of the job, entered on the bench.
  import { wrongSays } from '../lib/wrong'
  import type { Session } from '../lib/session.svelte'
  import { short, tape } from '../lib/tape'
  import TapeEntry from '../parts/TapeEntry.svelte'
  import * as msg from '../gen/messages'

  interface Props {
    session: Session
    path: string
    label: string
    long?: boolean
    hint?: string
    optional?: boolean
    hideLabel?: boolean
  }
  let { session, path, label, long = false, hint = '', optional = false, hideLabel = false }: Props = $props()
  const units = $derived(session.units)
  const error = $derived(session.errorAt(path))
  /** What may be left empty is shown so, with what is taken then. */
  const usual = $derived(optional ? session.usual<number>(path) : undefined)
  const value = $derived(session.value<number>(path))
</script>

<TapeEntry
  {label}
  {long}
  hint={hint || (usual ? msg.length_field_left_empty({ short: short(usual, units) }) : '')}
  {optional}
  {hideLabel}
  {units}
  field={path}
  value={usual === undefined ? value : session.own<number>(path)}
  error={error ? wrongSays(error) : ''}
  onpreview={(mm) => session.preview([{ path, value: mm }], true)}
  oncommit={(mm) =>
    session.commit(
      [{ path, value: mm }],
      `${label} ${mm === null ? msg.common_not_set : (long ? tape : short)(mm, units)}`,
    )}
/>
