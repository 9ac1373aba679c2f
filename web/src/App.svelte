<script lang="ts">
  // One page for each kind of address; each is loaded when it is first shown.
  import NotFound from './jobs/NotFound.svelte'
  import { leavePage } from './lib/api'
  import { layout } from './lib/layout.svelte'
  import { listen } from './lib/router'
  import { theme } from './lib/theme.svelte'
  import Later from './parts/Later.svelte'

  type Load = () => Promise<{ default: unknown }>
  const list: Load = () => import('./jobs/JobList.svelte')
  const job: Load = () => import('./job/JobPage.svelte')
  const routes: Record<string, Load> = {
    '/': list,
    '/keeping': () => import('./jobs/Keeping.svelte'),
    '/board': () => import('./jobs/Board.svelte'),
    '/jobs/:id': job,
    '/jobs/:id/runs/:run/:stage?/:part?': job,
    '/jobs/:id/sheets': () => import('./print/SheetPages.svelte'),
  }
  let shown = $state.raw<{ load: Load; params: Record<string, string> } | null>(null)
  let lost = $state(false)

  function show(load: Load, params: Record<string, string>) {
    lost = false
    if (shown?.load !== load) leavePage()
    shown = { load, params }
  }
  listen(
    Object.fromEntries(
      Object.entries(routes).map(([pattern, load]) => [pattern, (params) => show(load, params)]),
    ),
    () => (lost = true),
  )
  $effect(() => {
    document.documentElement.dataset.theme = theme.current
    document.documentElement.toggleAttribute('data-site', layout.site)
  })
</script>

{#if lost}<NotFound />
{:else if shown}{#key shown.load}<Later load={shown.load} props={{ params: shown.params }} />{/key}{/if}
