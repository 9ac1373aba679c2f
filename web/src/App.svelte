<script lang="ts">
  // One page for each kind of address; each is loaded when it is first shown.
  import type { Component } from 'svelte'
  import NotFound from './jobs/NotFound.svelte'
  import { listen } from './lib/router'
  import { theme } from './lib/theme.svelte'
  import NotLoaded from './parts/NotLoaded.svelte'

  type Page = Component<{ params: never }>
  type Load = () => Promise<{ default: unknown }>
  const list: Load = () => import('./jobs/JobList.svelte')
  const job: Load = () => import('./job/JobPage.svelte')
  const routes: Record<string, Load> = {
    '/': list,
    '/keeping': () => import('./jobs/Keeping.svelte'),
    '/jobs/:id': job,
    '/jobs/:id/runs/:run/:stage?/:part?': job,
    '/jobs/:id/strings/:run': () => import('./print/StringSheet.svelte'),
    '/jobs/:id/sheets': () => import('./print/SheetPages.svelte'),
  }
  let shown = $state.raw<{ page: Page; params: Record<string, string> } | null>(null)
  let lost = $state(false)
  let trouble = $state(false)

  async function show(load: Load, params: Record<string, string>) {
    trouble = lost = false
    try {
      shown = { page: (await load()).default as Page, params }
    } catch {
      trouble = true // an older page asks for a part that a newer Mallow has not
    }
  }
  listen(
    Object.fromEntries(
      Object.entries(routes).map(([pattern, load]) => [pattern, (params) => void show(load, params)]),
    ),
    () => (lost = true),
  )
  $effect(() => {
    document.documentElement.dataset.theme = theme.current
  })
</script>

{#if trouble}<NotLoaded />
{:else if lost}<NotFound />
{:else if shown}<shown.page params={shown.params as never} />{/if}
