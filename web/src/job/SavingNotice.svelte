<script lang="ts">
  import type { Session } from '../lib/session.svelte'
  import { wrongSays } from '../lib/wrong'

  let { session }: { session: Session } = $props()
</script>

{#if session.store.saving === 'gone'}
  <div class="flex flex-wrap items-center gap-x-3 border-b border-stop bg-stop-wash px-3 py-2" role="alert">
    <strong class="text-stop">{session.store.trouble || 'Mallow is not answering.'}</strong>
    <span
      >Your last change is kept in this browser and is saved as soon as it is back. Trying every two seconds.</span
    >
  </div>
{:else if session.store.saving === 'invalid'}
  <div class="flex flex-wrap items-center gap-x-3 border-b border-stop bg-stop-wash px-3 py-1" role="alert">
    <strong class="text-stop">Not saved:</strong>
    <span class="min-w-0">
      {#each session.store.errors.slice(0, 3) as e (e.field)}<span
          >{wrongSays(e, session.fieldName(e.field))}
        </span>{/each}
      The rest is kept.
    </span>
    {#each session.store.ways.slice(0, 3) as w (w.says)}
      <button class="btn btn-main" onclick={() => session.commit(w.edits, w.says)}>{w.says}</button>
    {/each}
    <button class="btn" onclick={() => session.store.revert()}>Back to what was saved</button>
  </div>
{:else if session.store.notice}
  <div class="flex flex-wrap items-center gap-x-3 border-b border-line bg-warn-wash px-3 py-1">
    <span>{session.store.notice}</span>
    <button class="btn btn-plain underline" onclick={() => (session.store.notice = '')}>All right</button>
  </div>
{:else if session.store.left.length}
  <p class="border-b border-line bg-warn-wash px-3 py-1.5">
    From an older version: {session.store.left.slice(0, 3).join('; ')}{session.store.left.length > 3
      ? `; and ${session.store.left.length - 3} more`
      : ''}.
  </p>
{:else if session.store.unknown.length}
  <p class="border-b border-line bg-warn-wash px-3 py-1.5">
    Kept but not used, because this version does not know it: {session.store.unknown.slice(0, 4).join(', ')}.
  </p>
{/if}
