<script lang="ts">
  import { Popover } from 'bits-ui'
  import type { Explained, Figure } from '../gen/api'
  import X from '@lucide/svelte/icons/x'
  import { useAsking } from '../lib/asking.svelte'
  import type { Session } from '../lib/session.svelte'
  import Why from './Why.svelte'
  import * as msg from '../gen/messages'

  let { session }: { session: Session } = $props()
  const asking = useAsking()
  let reason = $state.raw<Explained | null>(null)
  let trouble = $state('')
  let asked: Figure | undefined
  // Asked for when it is opened, and again when the plan has changed.
  $effect(() => {
    const [open, why] = [asking.open, asking.why]
    void session.plan
    if (!open) return
    if (asked !== why) reason = null
    asked = why
    const stop = new AbortController()
    session
      .explain(why, stop.signal)
      .then((r) => {
        reason = r
        trouble = ''
      })
      .catch((e: unknown) => {
        if (!stop.signal.aborted) trouble = e instanceof Error ? e.message : String(e)
      })
    return () => stop.abort()
  })
</script>

<Popover.Root bind:open={asking.open}>
  <Popover.Portal>
    <Popover.Content
      customAnchor={asking.anchor}
      side="top"
      sideOffset={6}
      collisionPadding={8}
      class="z-40 max-h-[min(34rem,var(--bits-popover-content-available-height,85dvh))] w-[min(31rem,calc(100vw-1rem))] overflow-auto border border-ink bg-sheet text-ink shadow-lg focus:outline-none"
      role="dialog"
      aria-label={msg.why_popover_why({ of: asking.of })}
      onCloseAutoFocus={(e) => {
        e.preventDefault()
        asking.anchor?.focus()
      }}
    >
      <Popover.Close class="btn btn-plain btn-icon float-right" aria-label={msg.common_close}
        ><X size={20} /></Popover.Close
      >
      {#if reason}<Why {session} {reason} of={asking.of} />
      {:else}<p class="p-4 text-pencil" aria-busy={!trouble}>
          {trouble || msg.why_popover_looking_up_the_reasons}
        </p>{/if}
    </Popover.Content>
  </Popover.Portal>
</Popover.Root>
