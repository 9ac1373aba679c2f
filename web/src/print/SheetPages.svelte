<script lang="ts">
  // A printed sheet as pages on screen, which the browser prints as they are.
  import Printer from '@lucide/svelte/icons/printer'
  import { api } from '../lib/api'
  import Masthead from '../parts/Masthead.svelte'
  import * as msg from '../gen/messages'

  let { params }: { params: { id: string } } = $props()
  const asked = new URLSearchParams(location.search)
  /** Back is where one came from: the run, and the stage that was worked on. */
  const [run, stage] = [asked.get('run'), asked.get('stage')]
  const back = $derived(
    `/jobs/${params.id}${run ? `/runs/${encodeURIComponent(run)}${stage ? `/${stage}` : ''}` : ''}`,
  )
  const query = new URLSearchParams([...asked].filter(([name]) => name !== 'stage')).toString()
  let count = $state(0)
  let size = $state({ width: 215.9, height: 279.4 })
  let trouble = $state('')
  $effect(() => {
    api
      .pages(params.id, query)
      .then((p) => {
        count = p.count
        size = { width: p.width, height: p.height }
      })
      .catch((e) => (trouble = e instanceof Error ? e.message : String(e)))
  })
</script>

<svelte:head><title>{msg.sheet_pages_sheets_mallow}</title></svelte:head>
<div class="print:hidden">
  <Masthead>
    <a class="btn btn-plain" href={back}>{msg.sheet_pages_back_to_the_job}</a>
    <h1 class="flex-1 font-bold">{msg.sheet_pages_pages({ count })}</h1>
    <button class="btn btn-main" onclick={() => window.print()} disabled={!count}
      ><Printer size={18} aria-hidden="true" />{msg.common_print}</button
    >
  </Masthead>
</div>
{#if trouble}<p class="p-4 font-medium text-stop" role="alert">{trouble}</p>{/if}
<main class="sheet-pages grid justify-items-center gap-4 bg-paper py-4 print:block print:gap-0 print:p-0">
  {#each Array.from({ length: count }, (_, i) => i + 1) as n (n)}
    <img
      class="border border-line bg-white print:border-0"
      style:width="{size.width}mm"
      src="/api/jobs/{params.id}/page.svg?{query}&page={n}"
      alt={msg.sheet_pages_page({ v1: n })}
      loading={n > 3 ? 'lazy' : 'eager'}
    />
  {/each}
</main>

<style>
  .sheet-pages img {
    max-width: 100%;
  }
  @media print {
    .sheet-pages img {
      display: block;
      width: 100% !important;
      break-after: page;
    }
    @page {
      margin: 0;
    }
  }
</style>
