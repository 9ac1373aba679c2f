<script lang="ts">
  import type { Session } from '../lib/session.svelte'
  import { wrongSays } from '../lib/wrong'
  import * as msg from '../gen/messages'

  let { session }: { session: Session } = $props()
</script>

{#if session.store.saving === 'gone'}
  <div class="flex flex-wrap items-center gap-x-3 border-b border-stop bg-stop-wash px-3 py-2" role="alert">
    <strong class="text-stop">{session.store.trouble || msg.common_mallow_is_not_answering}</strong>
    <span>{msg.saving_notice_your_last_change_is_kept}</span>
  </div>
{:else if session.store.saving === 'invalid'}
  <div class="flex flex-wrap items-center gap-x-3 border-b border-stop bg-stop-wash px-3 py-1" role="alert">
    <strong class="text-stop">{msg.saving_notice_not_saved}</strong>
    <span class="min-w-0">
      {#each session.store.errors.slice(0, 3) as e (e.field)}<span
          >{wrongSays(e, session.fieldName(e.field))}
        </span>{/each}
      {msg.saving_notice_the_rest_is_kept}
    </span>
    {#each session.store.ways.slice(0, 3) as w (w.says)}
      <button class="btn btn-main" onclick={() => session.commit(w.edits, w.says)}>{w.says}</button>
    {/each}
    <button class="btn" onclick={() => session.store.revert()}
      >{msg.saving_notice_back_to_what_was_saved}</button
    >
  </div>
{:else if session.store.notice}
  <div class="flex flex-wrap items-center gap-x-3 border-b border-line bg-warn-wash px-3 py-1">
    <span>{session.store.notice}</span>
    <button class="btn btn-plain underline" onclick={() => (session.store.notice = '')}
      >{msg.saving_notice_all_right}</button
    >
  </div>
{:else if session.store.left.length}
  <p class="border-b border-line bg-warn-wash px-3 py-1.5">
    {msg.saving_notice_from_an_older_version({
      v1: session.store.left.slice(0, 3).join('; '),
      v2:
        session.store.left.length > 3
          ? msg.saving_notice_and_more({ v1: session.store.left.length - 3 })
          : '',
    })}
  </p>
{:else if session.store.unknown.length}
  <p class="border-b border-line bg-warn-wash px-3 py-1.5">
    {msg.saving_notice_kept_but_not_used_because({ v1: session.store.unknown.slice(0, 4).join(', ') })}
  </p>
{/if}
