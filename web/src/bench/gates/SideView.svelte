<script lang="ts">
  // The leaf from the side, over the ground it stands above at this angle, and
  // the gap under it all the way.
  import Picture from '../../drawing/Picture.svelte'
  import type { GateLeaf, LeafSide, PlannedGate } from '../../gen/api'
  import type { Session } from '../../lib/session.svelte'
  import { short } from '../../lib/tape'

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
    label="The leaf on {leaf.post} {Math.abs(Math.round(angle))}° open, seen from the side over the ground"
    of="side"
  />
  <Picture
    {session}
    view={{ of: 'swing', gate: gate.id, leaf: leaf.post, angle }}
    wide={600}
    tall={116}
    stretch={FREE}
    label="The least gap over the whole swing: {short(side.gap, units)} at {Math.round(side.angle)}°, {short(
      side.wanted,
      units,
    )} is wanted"
    of="swing"
  />
</figure>
