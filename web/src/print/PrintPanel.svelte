<script lang="ts">
  // Everything that leaves the screen: sheets with a preview, tables, drawings
  // and positions.
  import { Dialog } from 'bits-ui'
  import Printer from '@lucide/svelte/icons/printer'
  import X from '@lucide/svelte/icons/x'
  import ChevronLeft from '@lucide/svelte/icons/chevron-left'
  import ChevronRight from '@lucide/svelte/icons/chevron-right'
  import type { Printing } from '../gen/api'
  import { untrack } from 'svelte'
  import { api, Gone, Refused } from '../lib/api'
  import type { Session } from '../lib/session.svelte'
  import Choice from '../parts/Choice.svelte'
  import FileLink from '../parts/FileLink.svelte'
  import OfferForm from './OfferForm.svelte'
  import * as msg from '../gen/messages'

  let { session }: { session: Session } = $props()
  const open = $derived(session.nav.printing)
  let sheet = $state('')
  let whole = $state(false)
  let paper = $state<'letter' | 'a4'>('letter')
  let page = $state(1)
  let count = $state(0)
  let trouble = $state('')
  let progress = $state.raw<Printing | null>(null)
  let stop: AbortController | null = null

  const sheets = $derived(session.catalogue.sheets)
  const sets = $derived(session.catalogue.sets)
  /** Kinds that make up a set of their own stand among the sets. */
  const kinds = $derived(sheets.filter((k) => !sets.some((s) => s.id === k.id)))
  const kind = $derived(kinds.find((k) => k.id === sheet))
  const named = $derived(sets.find((s) => s.id === sheet)?.name ?? kind?.name ?? '')
  /** A sheet of the job is of no run. */
  const run = $derived(
    kind && (kind.of !== 'job' || kind.id === 'holes' || kind.id === 'strings') && !whole
      ? session.run.id
      : '',
  )
  const query = $derived(new URLSearchParams({ sheet, run, paper }).toString())
  const saved = $derived(session.store.saving === 'saved')

  /** Opens at the sheet of the stage that is worked on. */
  function show() {
    paper = session.units.system === 'metric' ? 'a4' : 'letter'
    sheet = kinds.find((k) => k.stage === session.nav.stage)?.id ?? 'crew'
    whole = false
  }
  $effect(() => {
    if (session.nav.printing) untrack(show)
  })
  // The preview follows what is saved: a page is asked for when it changes.
  $effect(() => {
    if (!open) return
    const asked = query
    void session.store.revision
    api
      .pages(session.id, asked)
      .then((p) => {
        if (asked !== query) return
        count = p.count
        page = Math.min(Math.max(page, 1), p.count)
        trouble = ''
      })
      .catch((e) => {
        if (asked !== query) return
        count = 0
        trouble = e instanceof Refused || e instanceof Gone ? e.message : String(e)
      })
  })

  async function print(what: string) {
    stop = new AbortController()
    progress = { done: 0, of: count }
    trouble = ''
    try {
      await api.print(session.id, what, stop.signal, (p) => {
        progress = p
        if (p.ready) {
          const a = document.createElement('a')
          a.href = `/api/prints/${p.ready}`
          a.download = p.name ?? 'sheets.pdf'
          a.click()
        }
      })
    } catch (e) {
      trouble = e instanceof Error ? e.message : String(e)
    } finally {
      progress = null
      stop = null
    }
  }
  interface File {
    name: string
    says: string
    what: string
    run?: string
    view?: 'map'
  }
  const files = $derived<File[]>([
    {
      name: msg.print_panel_spreadsheet_xlsx,
      says: msg.print_panel_every_table_a_sheet,
      what: 'xlsx',
    },
    {
      name: msg.print_panel_drawing_from_the_side_dxf,
      says: session.run.name || session.run.id,
      what: 'dxf',
      run: session.run.id,
    },
    { name: msg.print_panel_map_dxf, says: msg.print_panel_all_lines, what: 'dxf', view: 'map' },
    {
      name: msg.print_panel_drawing_from_the_side_svg,
      says: session.run.name || session.run.id,
      what: 'svg',
      run: session.run.id,
    },
    { name: msg.print_panel_map_svg, says: msg.print_panel_all_lines, what: 'svg', view: 'map' },
    { name: msg.print_panel_posts_gpx, says: msg.print_panel_waypoints_with_a_place_on, what: 'waypoints' },
    {
      name: msg.print_panel_line_and_posts_geojson,
      says: msg.print_panel_with_a_place_on_earth,
      what: 'geojson',
    },
    { name: msg.print_panel_posts_csv, says: msg.print_panel_of_all_runs, what: 'posts' },
    { name: msg.print_panel_bays_csv, says: msg.print_panel_of_all_runs, what: 'bays' },
    { name: msg.print_panel_load_csv, says: msg.print_panel_run_by_run, what: 'load' },
    {
      name: msg.print_panel_marks_csv,
      says: msg.print_panel_with_map_x_and_y,
      what: 'setout',
      run: session.run.id,
    },
    {
      name: msg.print_panel_job_document_json,
      says: msg.print_panel_everything_to_take_in_again,
      what: 'json',
    },
  ])
</script>

<Dialog.Root bind:open={session.nav.printing}>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-40 bg-black/40" />
    <Dialog.Content
      class="fixed inset-2 z-50 mx-auto flex max-w-6xl flex-col border border-ink bg-paper text-ink shadow-lg sm:inset-4"
    >
      <div class="flex items-center justify-between border-b border-line px-4 py-2">
        <Dialog.Title class="text-[1.15rem] font-bold">{msg.common_print_and_files}</Dialog.Title>
        <Dialog.Close class="btn btn-plain btn-icon" aria-label={msg.common_close}
          ><X size={20} /></Dialog.Close
        >
      </div>
      <div class="grid min-h-0 flex-1 gap-4 overflow-auto p-4 md:grid-cols-[17rem_minmax(0,1fr)]">
        <div class="grid content-start gap-4">
          <ul class="grid gap-1.5" aria-label={msg.print_panel_who_gets_which_sheets}>
            {#each sets as set (set.id)}
              <li
                class="flex border {sheet === set.id
                  ? 'border-mallow bg-mallow-wash'
                  : 'border-line bg-sheet'}"
              >
                <button
                  aria-pressed={sheet === set.id}
                  class="min-h-11 flex-1 px-3 py-1 text-left leading-tight"
                  onclick={() => {
                    sheet = set.id
                    page = 1
                  }}
                  ><span class="block font-semibold">{set.name}</span><span class="text-[0.88rem] text-pencil"
                    >{set.says}</span
                  ></button
                >
                <button
                  class="btn btn-plain"
                  disabled={!!progress || !saved}
                  aria-label={msg.print_panel_print_the_s_sheets({ name: set.name.toLowerCase() })}
                  onclick={() => print(new URLSearchParams({ sheet: set.id, paper }).toString())}
                  ><Printer size={18} aria-hidden="true" />{msg.print_panel_pdf}</button
                >
              </li>
            {/each}
          </ul>
          <div role="radiogroup" aria-label={msg.print_panel_one_kind_of_sheet} class="grid gap-1">
            <p class="label">{msg.print_panel_one_kind_of_sheet}</p>
            {#each kinds as k (k.id)}
              <button
                role="radio"
                aria-checked={sheet === k.id}
                class="min-h-11 border px-3 py-1 text-left font-semibold {sheet === k.id
                  ? 'border-mallow bg-mallow-wash'
                  : 'border-line bg-sheet'}"
                onclick={() => {
                  sheet = k.id
                  page = 1
                }}>{k.name}</button
              >
            {/each}
          </div>
          {#if kind && kind.id !== 'load' && session.plan.runs.length > 1}
            <Choice
              label={msg.print_panel_of}
              value={whole ? 'all' : 'run'}
              options={[
                { value: 'run', name: session.run.name || session.run.id },
                { value: 'all', name: msg.print_panel_all_runs },
              ]}
              onpick={(v) => (whole = v === 'all')}
            />
          {/if}
          <Choice
            label={msg.print_panel_paper}
            value={paper}
            options={[
              { value: 'letter', name: msg.print_panel_letter },
              { value: 'a4', name: 'A4' },
            ]}
            onpick={(v) => (paper = v as typeof paper)}
          />
        </div>
        <div class="grid min-w-0 content-start gap-3">
          <div class="flex flex-wrap items-center gap-2">
            <button
              class="btn btn-main"
              disabled={!count || !!progress || !saved}
              onclick={() => print(query)}
              >{msg.print_panel_pdf_2({
                count,
                v2: count === 1 ? msg.print_panel_page : msg.print_panel_pages,
              })}</button
            >
            <a
              class="btn"
              href="/jobs/{session.id}/sheets?{query}&stage={session.nav.stage}"
              target="_blank"
              rel="noopener">{msg.print_panel_as_pages_on_screen}</a
            >
            {#if progress}
              <progress class="h-3 w-40 accent-(--mallow)" max={progress.of || 1} value={progress.done ?? 0}
              ></progress>
              <span role="status"
                >{progress.waiting
                  ? msg.print_waiting
                  : msg.print_panel_of_2({ v1: progress.done ?? 0, v2: progress.of ?? count })}</span
              >
              <button class="btn" onclick={() => stop?.abort()}>{msg.print_panel_stop}</button>
            {/if}
            <span class="flex-1"></span>
            <button
              class="btn btn-icon"
              aria-label={msg.print_panel_page_before}
              disabled={page <= 1}
              onclick={() => page--}><ChevronLeft size={18} /></button
            >
            <span data-testid="sheet-page">{count ? msg.print_panel_of_3({ page, count }) : '—'}</span>
            <button
              class="btn btn-icon"
              aria-label={msg.print_panel_next_page}
              disabled={page >= count}
              onclick={() => page++}><ChevronRight size={18} /></button
            >
          </div>
          {#if !saved}<p class="text-pencil">
              {msg.print_panel_a_change_is_not_saved}
            </p>{/if}
          {#if trouble}<p class="font-medium text-stop" role="alert">{trouble}</p>{/if}
          {#if count}
            <img
              class="w-full max-w-3xl border border-line bg-white"
              src="/api/jobs/{session.id}/page.svg?{query}&page={page}&r={session.store.revision}"
              alt={msg.print_panel_page_of({ page, named })}
            />
          {/if}
          {#if sheet === 'customer'}<OfferForm {session} />{/if}
        </div>
        <section class="md:col-span-2" aria-labelledby="files">
          <h2 id="files" class="font-bold">{msg.print_panel_files_for_other_programs}</h2>
          <ul class="mt-1 grid gap-1.5 sm:grid-cols-2 lg:grid-cols-3">
            {#each files as f (f.name)}
              <li>
                <FileLink {session} what={f.what} run={f.run} view={f.view} class="btn w-full justify-start"
                  ><span class="text-left"
                    >{f.name}<span class="block text-[0.88rem] font-normal text-pencil">{f.says}</span></span
                  ></FileLink
                >
              </li>
            {/each}
          </ul>
        </section>
      </div>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
