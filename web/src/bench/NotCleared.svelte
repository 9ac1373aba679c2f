<script lang="ts">
  // It never keeps anyone from looking; it says that nothing may be dug yet.
  import type { Session } from '../lib/session.svelte'

  let { session, slim = false, onopen }: { session: Session; slim?: boolean; onopen: () => void } = $props()
  const open = $derived(session.plan.before.checks.filter((c) => !c.done))
</script>

<div
  class="mb-3 flex max-w-4xl flex-wrap items-center gap-x-3 gap-y-1 bg-stop-wash px-3 {slim
    ? 'border-l-4 border-stop'
    : 'border-2 border-stop py-1.5'}"
  data-testid="not-cleared"
>
  <strong class="text-stop">Not cleared to dig.</strong>
  <span class="min-w-56 flex-1">Still open: {open.map((c) => c.name.toLowerCase()).join(', ')}.</span>
  <button class="btn {slim ? 'btn-plain underline' : ''}" onclick={onopen}>Before you dig</button>
</div>
