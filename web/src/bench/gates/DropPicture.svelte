<script lang="ts">
  // A dropped leaf, and what the top bolt does: drawn much too large, so that
  // it is seen.
  import Measure from '../../drawing/Measure.svelte'
  import type { Adjusting, GateLeaf, Units } from '../../gen/api'
  import { short } from '../../lib/tape'

  let { leaf, adjust, units }: { leaf: GateLeaf; adjust: Adjusting; units: Units } = $props()
  const [W, H] = [330, 190]
  const scale = $derived(Math.min(210 / leaf.width, 130 / leaf.height))
  const w = $derived(leaf.width * scale)
  const h = $derived(leaf.height * scale)
  const [x, y] = [70, 22]
  const drop = 16 // pixels, whatever it is
  const lean = $derived((drop * h) / w)
  const inset = $derived((leaf.height - leaf.spacing) / 2 / leaf.height)
</script>

<svg
  viewBox="0 0 {W} {H}"
  class="block h-auto w-full max-w-sm"
  role="img"
  aria-label="The tip has dropped {short(adjust.drop, units)}; the top hinge goes in {short(
    adjust.in,
    units,
  )}"
>
  <rect x={x - 26} y="8" width="16" height={H - 16} class="fill-(--timber) stroke-(--timber-edge)" />
  <path
    d="M{x} {y}h{w}v{h}h{-w}z"
    fill="none"
    class="stroke-(--line)"
    stroke-width="1.5"
    stroke-dasharray="5 4"
  />
  <path
    d="M{x + lean} {y}L{x + lean + w} {y + drop}L{x + w} {y + h + drop}L{x} {y + h}z"
    class="fill-(--sheet) stroke-(--ink)"
    stroke-width="2.2"
    fill-opacity="0.7"
  />
  <path
    d="M{x - 10} {y + h * inset}H{x + lean * (1 - inset)}M{x - 10} {y + h * (1 - inset)}H{x + lean * inset}"
    class="stroke-(--ink)"
    stroke-width="3"
  />
  <path
    d="M{x + lean + 22} {y + h * inset}H{x + 4}m8 -5l-8 5l8 5"
    class="stroke-(--mallow)"
    stroke-width="2.5"
    fill="none"
  />
  <Measure x={x + lean + 28} y={y + h * inset + 5} mm={adjust.in} words="in " {units} anchor="start" strong />
  <path
    d="M{x + w + lean + 12} {y + h + drop}V{y + h}m-4 7l4 -7l4 7"
    class="stroke-(--mallow)"
    stroke-width="2.5"
    fill="none"
  />
  <Measure x={x + w + 4} y={y + h + drop + 15} mm={adjust.drop} words="up " {units} strong />
</svg>
