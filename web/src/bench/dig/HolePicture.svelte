<script lang="ts">
  // A cut through the middle of one hole, drawn to scale, with every layer.
  import Picture from '../../drawing/Picture.svelte'
  import type { HoleCard } from '../../gen/api'
  import type { Session } from '../../lib/session.svelte'
  import { short } from '../../lib/tape'
  import * as msg from '../../gen/messages'

  interface Props {
    session: Session
    card: HoleCard
    /** Narrow: no words beside it. */
    bare?: boolean
    wanted?: number
  }
  let { session, card, bare = false, wanted }: Props = $props()
  const units = $derived(session.units)
  const said = $derived(
    msg.hole_picture_cut_through_the_hole_wide({
      short: short(card.width, units),
      short2: short(card.depth, units),
    }),
  )
</script>

<Picture
  {session}
  view={{ of: 'hole', card: session.run.cards.indexOf(card), bare, wanted }}
  wide={bare ? 200 : 640}
  tall={bare ? 340 : 430}
  label={said}
  of="hole"
/>
