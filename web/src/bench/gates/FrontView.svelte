<script lang="ts">
  // The gate from the front, to scale: posts, leaves, and every measure.
  import Picture from '../../drawing/Picture.svelte'
  import type { PlannedGate } from '../../gen/api'
  import type { Session } from '../../lib/session.svelte'
  import { short } from '../../lib/tape'
  import * as msg from '../../gen/messages'

  interface Props {
    session: Session
    gate: PlannedGate
    /** What is measured: the opening, or what is needed to hang it. */
    show: 'opening' | 'hang'
  }
  let { session, gate, show }: Props = $props()
  const units = $derived(session.units)
  const said = $derived(
    msg.front_view_from_the_front_inside_clear({
      v1: gate.name || gate.id,
      short: short(gate.opening, units),
      short2: short(gate.clear, units),
      short22: short(gate.leaf, units),
      short222: short(gate.bottom - gate.highest, units),
    }),
  )
</script>

<Picture
  {session}
  view={{ of: 'front', gate: gate.id, hang: show === 'hang' }}
  wide={620}
  tall={330}
  label={said}
  of="front"
/>
