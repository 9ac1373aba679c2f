<script lang="ts">
  // The leaf from the side, over the ground it stands above at this angle, and
  // the gap under it all the way.
  import Picture from '../../drawing/Picture.svelte'
  import type { GateLeaf, LeafSide, PlannedGate } from '../../gen/api'
  import type { Session } from '../../lib/session.svelte'
  import { short } from '../../lib/tape'
  import * as msg from '../../gen/messages'

  interface Props {
    session: Session
    gate: PlannedGate
    leaf: GateLeaf
    side: LeafSide
    angle: number
  }
  let { session, gate, leaf, side, angle }: Props = $props()
  const units = $derived(session.units)
  /** A scale of its own for heights: as much as fits. */
  const FREE = 1000
</script>

<figure class="grid gap-2">
  <Picture
    {session}
    view={{ of: 'side', gate: gate.id, leaf: leaf.post, angle }}
    wide={600}
    tall={200}
    stretch={6}
    label={msg.side_view_the_leaf_on_open_seen({ post: leaf.post, v2: Math.abs(Math.round(angle)) })}
    of="side"
  />
  <Picture
    {session}
    view={{ of: 'swing', gate: gate.id, leaf: leaf.post, angle }}
    wide={600}
    tall={116}
    stretch={FREE}
    label={msg.side_view_the_least_gap_over_the({
      short: short(side.gap, units),
      round: Math.round(side.angle),
      short2: short(side.wanted, units),
    })}
    of="swing"
  />
</figure>
