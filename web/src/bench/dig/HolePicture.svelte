<script lang="ts">
  // A cut through the middle of one hole, drawn to scale, with every layer.
  import Picture from '../../drawing/Picture.svelte'
  import type { HoleCard } from '../../gen/api'
  import type { Session } from '../../lib/session.svelte'
  import { short } from '../../lib/tape'

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
    `Cut through the hole, ${short(card.width, units)} wide, ${short(card.depth, units)} deep`,
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
