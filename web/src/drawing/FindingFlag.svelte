<script lang="ts">
  // The worst finding of this stage, at the drawing where it is.
  import TriangleAlert from '@lucide/svelte/icons/triangle-alert'
  import OctagonAlert from '@lucide/svelte/icons/octagon-alert'
  import { isHere, keyOf, stationOf } from '../lib/findings'
  import { layout } from '../lib/layout.svelte'
  import type { Session } from '../lib/session.svelte'
  import type { Stage } from '../lib/stages'
  import Words from '../parts/Words.svelte'
  import { tapeHeight, type View } from './view.svelte'

  let { session, view, stage }: { session: Session; view: View; stage: Stage } = $props()
  const worst = $derived(
    session.findings.find(
      (f) => f.stage === stage && (f.severity === 'cannot' || f.severity === 'check') && isHere(session, f),
    ),
  )
  const grave = $derived(worst?.severity === 'cannot')
  const WIDE = 26 * 16
  const wide = $derived(Math.min(WIDE, view.width - 8))
  const x = $derived.by(() => {
    const at = worst && !session.strip ? stationOf(session, worst) : undefined
    return at === undefined ? undefined : view.x(at)
  })
  const left = $derived(Math.min(Math.max((x ?? 4) - wide / 2, 4), Math.max(4, view.width - wide - 4)))
</script>

{#if worst && session.run.posts.length}
  {#if x !== undefined && x > 0 && x < view.width}
    <span
      class="pointer-events-none absolute w-0.5 {grave ? 'bg-stop' : 'bg-warn'}"
      style:left="{x}px"
      style:top="{view.above - 6}px"
      style:bottom="{tapeHeight(view.height) + 24}px"
      aria-hidden="true"
    ></span>
  {/if}
  <button
    class="absolute flex min-h-6.5 items-center gap-1.5 border px-1.5 text-left text-[0.88rem] leading-5 font-semibold {grave
      ? 'border-stop bg-stop-wash text-stop'
      : 'border-warn bg-warn-wash text-warn'}"
    style:left="{left}px"
    style:max-width="{wide}px"
    style:bottom="{tapeHeight(view.height) + 1}px"
    data-flag={worst.rule}
    onclick={() => {
      session.nav.finding = keyOf(worst)
      layout.set({ findings: true })
    }}
    >{#if grave}<OctagonAlert size={16} class="shrink-0" aria-hidden="true" />{:else}<TriangleAlert
        size={16}
        class="shrink-0"
        aria-hidden="true"
      />{/if}<span class="relative truncate"><Words says={worst.says} units={session.units} /></span></button
  >
{/if}
