<script lang="ts">
  // A long list, a page at a time.
  import { PAGE } from './page'

  let { count, page, onpage }: { count: number; page: number; onpage: (page: number) => void } = $props()
  const last = $derived(Math.max(0, Math.ceil(count / PAGE) - 1))
</script>

{#if count > PAGE}
  <div class="flex flex-wrap items-center gap-3 py-2">
    <button class="btn" disabled={page === 0} onclick={() => onpage(page - 1)}>Before</button>
    <span>{page * PAGE + 1} to {Math.min((page + 1) * PAGE, count)} of {count}</span>
    <button class="btn" disabled={page >= last} onclick={() => onpage(page + 1)}>After</button>
  </div>
{/if}
