<script lang="ts">
  // A dropped leaf, and what the top bolt does: drawn much too large, so that
  // it is seen.
  import Picture from '../../drawing/Picture.svelte'
  import type { Adjusting, GateLeaf, PlannedGate } from '../../gen/api'
  import type { Session } from '../../lib/session.svelte'
  import { short } from '../../lib/tape'
  import * as msg from '../../gen/messages'

  interface Props {
    session: Session
    gate: PlannedGate
    leaf: GateLeaf
    adjust: Adjusting
  }
  let { session, gate, leaf, adjust }: Props = $props()
  const units = $derived(session.units)
</script>

<Picture
  {session}
  view={{ of: 'drop', gate: gate.id, leaf: leaf.post }}
  wide={360}
  tall={200}
  label={msg.drop_picture_the_tip_has_dropped_the({
    short: short(adjust.drop, units),
    short2: short(adjust.in, units),
  })}
  of="drop"
/>
