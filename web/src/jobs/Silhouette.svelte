<script lang="ts">
  // A fence drawn true and small: one scale for length and height.
  import type { Silhouette } from '../gen/api'

  let { outline }: { outline: Silhouette } = $props()
  const points = $derived(outline.ground as unknown as [number, number][])
  const posts = $derived(outline.posts as unknown as [number, number, number][])
  const box = $derived.by(() => {
    const heights = [...points.map((p) => p[1]), ...posts.flatMap((p) => [p[1], p[2]])]
    const high = Math.max(...heights, 2000) + 300
    const low = Math.min(...heights, 0) - 900
    return { high, low, length: Math.max(outline.length, 1000) }
  })
  const y = (h: number) => box.high - h
  const pad = $derived(box.length * 0.012)
  const ground = $derived(
    points.length
      ? `M${-pad} ${y(points[0]![1])}L${points.map((p) => `${p[0]} ${y(p[1])}`).join('L')}H${box.length + pad}V${y(box.low)}H${-pad}z`
      : '',
  )
  const ends = (b: Silhouette['bays'][number]) => b.ends as unknown as [number, number]
  const quad = (c: number[], from: number, to: number) =>
    `M${from} ${y(c[1]!)}L${to} ${y(c[3]!)}L${to} ${y(c[2]!)}L${from} ${y(c[0]!)}z`
</script>

<svg
  viewBox="{-pad} 0 {box.length + 2 * pad} {box.high - box.low}"
  class="block max-h-28 w-full"
  preserveAspectRatio="xMidYMax meet"
  aria-hidden="true"
>
  <path d={ground} class="fill-(--ground) stroke-(--ground-edge)" stroke-width={box.length / 500} />
  {#each outline.bays as b, i (i)}
    <path
      d={quad(b.corners as unknown as number[], ends(b)[0], ends(b)[1])}
      class={b.gate
        ? 'fill-(--sheet) stroke-(--ink)'
        : outline.hollow
          ? 'fill-(--metal) stroke-(--metal-edge)'
          : 'fill-(--timber) stroke-(--timber-edge)'}
      stroke-width={box.length / 700}
    />
  {/each}
  {#each outline.bays.filter((b) => b.odd && !b.gate) as b, i (i)}
    {@const [from, to] = ends(b)}
    {@const c = b.corners as unknown as number[]}
    <path
      d="{quad(c, from, to)}M{from} {y(c[0]!)}L{to} {y(c[3]!)}M{from} {y(c[1]!)}L{to} {y(c[2]!)}"
      class="fill-none stroke-(--warn)"
      stroke-width={box.length / 300}
    />
  {/each}
  <path
    d={posts.map((p) => `M${p[0]} ${y(p[1])}V${y(p[2])}`).join('')}
    class={outline.hollow ? 'stroke-(--metal-edge)' : 'stroke-(--timber-edge)'}
    stroke-width={Math.max(box.length / 320, 90)}
  />
  <path
    d={outline.bays
      .map((b) => {
        const c = b.corners as unknown as number[]
        return `M${ends(b)[0]} ${y(c[1]!)}L${ends(b)[1]} ${y(c[3]!)}`
      })
      .join('')}
    class="stroke-(--mallow)"
    stroke-width={box.length / 260}
  />
</svg>
