<script lang="ts">
  import Router from 'svelte-spa-router'
  import JobPage from './job/JobPage.svelte'
  import JobList from './jobs/JobList.svelte'
  import SheetPages from './print/SheetPages.svelte'
  import StringSheet from './print/StringSheet.svelte'
  import Keeping from './jobs/Keeping.svelte'
  import NotFound from './jobs/NotFound.svelte'
  import { theme } from './lib/theme.svelte'

  const routes = {
    '/': JobList,
    '/keeping': Keeping,
    '/jobs/:id': JobPage,
    '/jobs/:id/strings/:run': StringSheet,
    '/jobs/:id/sheets': SheetPages,
    '*': NotFound,
  }
  $effect(() => {
    document.documentElement.dataset.theme = theme.current
  })
</script>

<Router {routes} />
