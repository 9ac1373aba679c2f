<script lang="ts">
  // A scene as the core drew it. Moved or zoomed before it is drawn again, it
  // goes along with its place.
  import type { Drawing, Placed, Units } from '../gen/api'
  import { say } from '../lib/say'
  import Length from './Length.svelte'
  import { across, down, path, thickness, turned, type Place } from './scene'
  import './scene.css'

  interface Props {
    drawing: Drawing
    units: Units
    /** Where it lies now; else as it was drawn. */
    place?: Place
    stress?: string
  }
  let { drawing, units, place, stress }: Props = $props()
  const now = $derived<Place>(place ?? drawing)
  const moved = $derived(
    now.x.zero !== drawing.x.zero ||
      now.x.scale !== drawing.x.scale ||
      now.y.zero !== drawing.y.zero ||
      now.y.scale !== drawing.y.scale,
  )
  /** How far a label goes along. */
  const off = (l: Placed) => {
    if (!moved) return { x: 0, y: 0 }
    const x = l.to && l.to.x !== l.at.x ? (l.at.x + l.to.x) / 2 : l.at.x
    return {
      x: l.fixed === 'x' ? 0 : across(now, x) - across(drawing, x),
      y: l.fixed === 'y' ? 0 : down(now, l.at.y) - down(drawing, l.at.y),
    }
  }
  /** The line of a measure, with its two ends. */
  const ruled = (l: Placed) => {
    const [x1, y1] = [across(now, l.at.x), down(now, l.at.y)]
    const [x2, y2] = [across(now, l.to!.x), down(now, l.to!.y)]
    if (l.at.x === l.to!.x) {
      const x = l.rule ?? x1
      return `M${x - 5} ${y1}h10M${x - 5} ${y2}h10M${x} ${y1}V${y2}`
    }
    if (l.rule === undefined && l.at.y === l.to!.y && l.y > y1) {
      return `M${x1} ${y1 + 3}v10m0-5H${x2}m0-5v10`
    }
    const y = l.rule ?? y1
    return `M${x1} ${y - 5}v10M${x2} ${y - 5}v10M${x1} ${y}H${x2}`
  }
</script>

<g class="scene" data-stress={stress}>
  {#each drawing.layers as l, i (i)}
    {@const d = path(l, now)}
    {#if l.thick}
      <path
        {d}
        data-class={l.class}
        data-material={l.class === 'rail' ? undefined : l.material}
        data-edge={l.class === 'rail' ? '' : undefined}
        style:stroke-width="{thickness(l, now) + (l.class === 'rail' ? 2 : 0)}px"
        data-shapes={l.shapes.length}
      />
      {#if l.class === 'rail'}
        <path {d} data-class="rail" style:stroke-width="{Math.max(0.4, thickness(l, now) - 0.6)}px" />
      {/if}
    {:else}
      <path
        {d}
        data-class={l.class}
        data-material={l.material}
        data-shapes={l.shapes.length}
        style:--hue={l.hue ? `var(--service-${l.hue})` : undefined}
      />
    {/if}
  {/each}
  {#each drawing.marks as m, i (i)}
    {@const d = drawing.signs[m.class]}
    {#if d}
      <path
        {d}
        transform="translate({across(now, m.at.x).toFixed(1)} {down(now, m.at.y).toFixed(1)}){turned(m)}"
        data-class={m.class}
        data-material={m.class === 'post' ? 'timber' : undefined}
        style:--hue={m.hue ? `var(--service-${m.hue})` : undefined}
      />
    {/if}
  {/each}
  {#each drawing.labels as l, i (i)}
    {@const by = off(l)}
    {#if l.to}<path d={ruled(l)} data-rule />{/if}
    {#if l.lead && !moved}
      <path d="M{l.lead.join(' ')}" data-lead />
    {/if}
    <text
      x={l.x + by.x}
      y={l.y + by.y}
      text-anchor={l.anchor}
      transform={l.turn ? `rotate(${l.turn} ${l.x + by.x} ${l.y + by.y})` : undefined}
      data-of={l.class}
      data-strong={l.strong ? '' : undefined}
      >{#each l.lines as line, k (k)}<tspan
          x={k ? l.x + by.x : undefined}
          dy={k ? 16.5 : undefined}
          data-small={k ? '' : undefined}
          >{#each line as part, n (n)}{#if part.kind === 'length' || part.kind === 'tape'}<Length
                mm={part.value ?? 0}
                {units}
                long={part.kind === 'tape'}
              />{:else}{say(part, units)}{/if}{/each}</tspan
        >{/each}</text
    >
  {/each}
</g>
