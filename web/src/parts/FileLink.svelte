<script lang="ts">
  // A file of the job. The server writes it, of what is saved; while the server
  // is away this window's own core does, of what stands here.
  import type { Snippet } from 'svelte'
  import { api } from '../lib/api'
  import type { Session } from '../lib/session.svelte'

  interface Props {
    session: Session
    what: string
    run?: string
    view?: 'elevation' | 'map' | 'asbuilt' | 'strips'
    /** Of printed sheets: which. */
    sheet?: string
    class?: string
    children: Snippet
  }
  let { session, what, run, view, sheet, class: look = 'underline', children }: Props = $props()

  const line = $derived(session.lineIndex)
  const href = $derived(
    `/api/jobs/${session.id}/export?${new URLSearchParams({ what, line: String(line), ...(run && { run }), ...(view && { view }), ...(sheet && { sheet }) })}`,
  )
  let trouble = $state('')

  async function write(e: MouseEvent) {
    if (session.store.saving !== 'gone') return
    e.preventDefault()
    try {
      const file = await api.exportFile({ doc: session.doc, what, run, line, view, revision: 0 })
      const url = URL.createObjectURL(new Blob([file.text], { type: file.type }))
      const a = document.createElement('a')
      a.href = url
      a.download = file.name
      a.click()
      setTimeout(() => URL.revokeObjectURL(url), 60_000)
      trouble = ''
    } catch (e) {
      trouble = e instanceof Error ? e.message : String(e)
    }
  }
</script>

<a {href} download class={look} onclick={write}>{@render children()}</a>
{#if trouble}<span role="alert" class="block border-l-4 border-l-stop bg-stop-wash px-2">{trouble}</span>{/if}
