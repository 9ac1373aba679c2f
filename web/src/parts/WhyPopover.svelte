<script lang="ts">
  import { Popover } from 'bits-ui'
  import X from '@lucide/svelte/icons/x'
  import { useAsking } from '../lib/asking.svelte'
  import type { Session } from '../lib/session.svelte'
  import Why from './Why.svelte'

  let { session }: { session: Session } = $props()
  const asking = useAsking()
  const reason = $derived(session.plan.reasons[asking.why])
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
      aria-label="Why: {asking.of}"
      onCloseAutoFocus={(e) => {
        e.preventDefault()
        asking.anchor?.focus()
      }}
    >
      <Popover.Close class="btn btn-plain btn-icon float-right" aria-label="Close"
        ><X size={20} /></Popover.Close
      >
      {#if reason}<Why {session} {reason} of={asking.of} />{/if}
    </Popover.Content>
  </Popover.Portal>
</Popover.Root>
