<script lang="ts">
  // The head of a page of the field book.
  import Trash2 from '@lucide/svelte/icons/trash-2'
  import type { Book } from '../../gen/api'
  import { at } from '../../lib/doc'
  import type { Session } from '../../lib/session.svelte'
  import * as msg from '../../gen/messages'

  let { session, book, title, says }: { session: Session; book: Book; title: string; says: string } = $props()

  const remove = () =>
    session.commit(
      [{ path: at(session.lineAt('/books'), book.id), value: null }],
      msg.page_head_page_taken_out,
    )
</script>

<div class="flex flex-wrap items-end justify-between gap-2">
  <div class="min-w-60 flex-1">
    <h2 class="font-bold">{title}</h2>
    <p class="text-pencil">{says}</p>
  </div>
  <button class="btn" onclick={remove}
    ><Trash2 size={18} aria-hidden="true" />{msg.page_head_remove_page}</button
  >
</div>
