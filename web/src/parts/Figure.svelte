<script lang="ts">
  // A figure that can be opened: why it is what it is.
  import type { Snippet } from 'svelte'
  import type { Figure as Address } from '../gen/api'
  import { useAsking } from '../lib/asking.svelte'
  import * as msg from '../gen/messages'

  let {
    why,
    of,
    class: className = '',
    children,
  }: { why: Address; of: string; class?: string; children: Snippet } = $props()
  const asking = useAsking()
</script>

<button
  type="button"
  class="min-h-8 border-b-2 border-dotted border-line px-0.5 text-left leading-tight hover:border-ink {className}"
  aria-haspopup="dialog"
  onclick={(e) => asking.ask(why, of, e.currentTarget)}
>
  {@render children()}<span class="sr-only">{msg.figure_why({ of })}</span>
</button>
