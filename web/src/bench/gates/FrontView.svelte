<script lang="ts">
  // The gate from the front, to scale: posts, leaves, and every measure.
  import Picture from '../../drawing/Picture.svelte'
  import type { PlannedGate } from '../../gen/api'
  import type { Session } from '../../lib/session.svelte'
  import { short } from '../../lib/tape'

  interface Props {
    session: Session
    gate: PlannedGate
    /** What is measured: the opening, or what is needed to hang it. */
    show: 'opening' | 'hang'
  }
  let { session, gate, show }: Props = $props()
  const units = $derived(session.units)
  const said = $derived(
    `${gate.name || gate.id} from the front: ${short(gate.opening, units)} inside, ${short(gate.clear, units)} clear, leaf ${short(gate.leaf, units)} high over a gap of ${short(gate.bottom - gate.highest, units)}`,
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
