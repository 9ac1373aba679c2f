<script lang="ts">
  import Moon from '@lucide/svelte/icons/moon'
  import Sun from '@lucide/svelte/icons/sun'
  import type { Snippet } from 'svelte'
  import { theme } from '../lib/theme.svelte'
  import * as msg from '../gen/messages'

  let { children, slim = false }: { children?: Snippet; slim?: boolean } = $props()
</script>

<header class="flex min-h-12 flex-none items-center gap-1 border-b border-line bg-paper px-2 sm:px-3">
  <a
    href="/"
    class="flex min-h-11 items-center gap-2 pr-2 text-[1.15rem] font-bold tracking-tight"
    title={msg.common_all_jobs}
  >
    <svg width="30" height="24" viewBox="0 0 30 24" aria-hidden="true">
      <path d="M5 23V6M15 23V8M25 23V10" class="stroke-(--timber-edge)" stroke-width="4" />
      <path d="M0 5 30 10" class="stroke-(--mallow)" stroke-width="2.4" />
    </svg>
    <span class={slim ? 'sr-only' : 'max-sm:sr-only'}>{msg.common_mallow}</span>
  </a>
  <div class="flex min-w-0 flex-1 items-center gap-1">{@render children?.()}</div>
  <button
    class="btn btn-plain btn-icon {slim ? 'hidden' : ''}"
    onclick={() => theme.toggle()}
    aria-label={theme.current === 'dark' ? msg.common_light_colors : msg.common_dark_colors}
  >
    {#if theme.current === 'dark'}<Sun size={20} />{:else}<Moon size={20} />{/if}
  </button>
</header>
