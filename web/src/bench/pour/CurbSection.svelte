<script lang="ts">
  // A cut across the mowing curb at a post, to scale: what is formed, what is dug.
  import type { CurbPlan } from '../../gen/api'
  import type { Session } from '../../lib/session.svelte'
  import { short } from '../../lib/tape'
  import * as msg from '../../gen/messages'

  let { session, curb }: { session: Session; curb: CurbPlan } = $props()
  const units = $derived(session.units)
  const p = $derived(session.run.posts[session.post] ?? session.run.posts[0])
  const WIDE = 340
  const HIGH = 190
  const scale = $derived(Math.min(200 / curb.width, 60 / curb.depth, 0.7))
  const mid = WIDE / 2
  const ground = 92
  // Looked at walking on: left is left.
  const left = $derived(mid - (curb.width / 2 + curb.off) * scale)
  const top = $derived(ground - curb.above * scale)
  const w = $derived(curb.width * scale)
  const h = $derived(curb.depth * scale)
  const post = $derived((p?.width ?? 89) * scale)
  const hole = $derived((p?.holeWidth ?? 300) * scale)
  const gap = $derived(curb.leastAt ? curb.least * scale : 0)
</script>

<svg
  viewBox="0 0 {WIDE} {HIGH}"
  class="w-full border border-line bg-sheet text-[13px]"
  role="img"
  aria-label={msg.curb_section({ width: short(curb.width, units), depth: short(curb.depth, units) })}
>
  <rect x="0" y={ground} width={WIDE} height={HIGH - ground} fill="var(--rule)" opacity="0.5" />
  {#if p && p.card >= 0}
    <rect
      x={mid - hole / 2}
      y={ground}
      width={hole}
      height={HIGH - ground}
      fill="var(--line)"
      opacity="0.6"
    />
  {/if}
  <rect
    x={left}
    y={top}
    width={w}
    height={h}
    fill="var(--mallow-wash)"
    stroke="var(--mallow)"
    stroke-width="2"
  />
  <rect x={mid - post / 2} y="0" width={post} height={HIGH} fill="var(--sheet)" stroke="var(--ink)" />
  {#if curb.leastAt && gap > 0}
    <rect
      x={mid - post}
      y="0"
      width={post / 2}
      height={Math.max(0, top - gap)}
      fill="none"
      stroke="var(--pencil)"
    />
    <text x={mid - post - 6} y={top - gap / 2 + 4} text-anchor="end" fill="var(--ink)"
      >{short(curb.least, units)}</text
    >
  {/if}
  <line x1="0" x2={WIDE} y1={ground} y2={ground} stroke="var(--ink)" stroke-dasharray="4 3" />
  {#each [left - 4, left + w] as x (x)}
    <rect {x} y={top} width="4" {...{ height: h }} fill="var(--warn)" />
  {/each}
  <text x={left + w + 12} y={top + h / 2 + 4} fill="var(--ink)">{short(curb.depth, units)}</text>
  <text x={left + w - 4} y={top - 8} text-anchor="end" fill="var(--ink)">{short(curb.width, units)}</text>
</svg>
