<script lang="ts">
  // A long list, a page at a time.
  import { PAGE } from './page'
  import * as msg from '../gen/messages'

  let { count, page, onpage }: { count: number; page: number; onpage: (page: number) => void } = $props()
  const last = $derived(Math.max(0, Math.ceil(count / PAGE) - 1))
</script>

{#if count > PAGE}
  <div class="flex flex-wrap items-center gap-3 py-2">
    <button class="btn" disabled={page === 0} onclick={() => onpage(page - 1)}>{msg.pager_before}</button>
    <span>{msg.pager_to_of({ v1: page * PAGE + 1, v2: Math.min((page + 1) * PAGE, count), count })}</span>
    <button class="btn" disabled={page >= last} onclick={() => onpage(page + 1)}>{msg.pager_after}</button>
  </div>
{/if}
