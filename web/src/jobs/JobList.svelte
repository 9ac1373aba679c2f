<script lang="ts">
  import Plus from '@lucide/svelte/icons/plus'
  import Trash2 from '@lucide/svelte/icons/trash-2'
  import { onMount } from 'svelte'
  import type { Found, JobSummary } from '../gen/api'
  import { api, Refused } from '../lib/api'
  import { go } from '../lib/router'
  import { Live } from '../lib/live'
  import { tape } from '../lib/tape'
  import Masthead from '../parts/Masthead.svelte'
  import Fraction from '../parts/Fraction.svelte'
  import Later from '../parts/Later.svelte'
  import Silhouette from './Silhouette.svelte'
  import * as msg from '../gen/messages'

  const PAGE = 50
  let jobs = $state.raw<JobSummary[] | null>(null)
  /** How many fit the words, and how many are in the bin. */
  let count = $state(0)
  let binned = $state(0)
  let bin = $state.raw<JobSummary[]>([])
  let binOpen = $state(false)
  let words = $state(new URLSearchParams(location.search).get('code') ?? '')
  let trouble = $state('')
  let making = $state(false)
  let removed = $state.raw<JobSummary | null>(null)
  let asking: AbortController | null = null

  /** How many are wanted: a list that is read again while more of it come has those too. */
  let wanted = PAGE
  const AT_ONCE = 200

  /** Reads as many as are wanted, or one page more. */
  async function load(more = 0) {
    asking?.abort()
    const mine = (asking = new AbortController())
    try {
      const had = more ? (jobs ?? []) : []
      if (more) wanted = Math.max(wanted, had.length + more)
      let shown = had
      for (let skip = had.length; skip < wanted; skip += AT_ONCE) {
        const most = Math.min(AT_ONCE, wanted - skip)
        const page = await api.list({ words, skip, most }, mine.signal)
        shown = [...shown, ...page.jobs]
        count = page.count
        binned = page.binned
        if (page.jobs.length < most) break
      }
      // What was saved meanwhile can stand on two pages.
      jobs = [...new Map(shown.map((j) => [j.id, j])).values()]
      if (binOpen) bin = (await api.list({ bin: true, most: 200 }, mine.signal)).jobs
      trouble = ''
    } catch (e) {
      if (!mine.signal.aborted) trouble = e instanceof Error ? e.message : String(e)
    }
  }
  onMount(() => {
    document.title = msg.common_mallow
    void load()
    // Many changes at once are one reading of the list.
    let soon: ReturnType<typeof setTimeout> | undefined
    const live = new Live('', () => {
      clearTimeout(soon)
      soon = setTimeout(() => void load(), 150)
    })
    return () => {
      clearTimeout(soon)
      live.close()
    }
  })

  /** That a job was planned may be told before this window listens: it is asked for, too. */
  const ASK = 1000
  $effect(() => {
    if (!jobs?.some((j) => j.pending)) return
    const timer = setTimeout(() => void load(), ASK)
    return () => clearTimeout(timer)
  })

  let typed: ReturnType<typeof setTimeout> | undefined
  function search(text: string) {
    words = text
    clearTimeout(typed)
    typed = setTimeout(() => {
      jobs = jobs && []
      wanted = PAGE
      void load()
    }, 120)
  }

  /** A code from a sheet, such as K7QF-S2, leads to its place. Whether it is one, the server says. */
  const code = $derived(words.includes('-') && words.trim().length <= 10 ? words.trim() : '')
  let found = $state.raw<Found[]>([])
  let unknown = $state('')
  $effect(() => {
    const asked = code
    found = []
    unknown = ''
    if (!asked) return
    api.place(asked).then(
      (all) => asked === code && (found = all),
      (e) => {
        const isNone = e instanceof Refused && e.problem.status === 422
        if (asked === code && !isNone) unknown = e instanceof Error ? e.message : String(e)
      },
    )
  })

  async function act(what: () => Promise<void>, job: JobSummary | null) {
    try {
      await what()
      removed = job
    } catch (e) {
      trouble = e instanceof Error ? e.message : String(e)
      return
    }
    await load()
  }

  let examples = $state.raw<string[]>([])
  $effect(() => {
    if (jobs && !jobs.length)
      api.examples().then(
        (all) => (examples = all.names),
        () => undefined,
      )
  })
  async function example(n: number) {
    try {
      const job = await api.create({ example: n + 1 })
      await go(`/jobs/${job.id}`)
    } catch (e) {
      trouble = e instanceof Error ? e.message : String(e)
    }
  }

  const counts = (j: JobSummary) => `${j.posts} posts${j.bags ? ` · ${j.bags} bags` : ''}`
  const day = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium' })
  const when = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' })
</script>

<Masthead />
<main class="mx-auto max-w-6xl p-3 pb-24 sm:p-6">
  <div class="flex items-center justify-between gap-3">
    <h1 class="text-2xl font-bold">{msg.job_list_jobs}</h1>
    <a class="btn btn-plain ml-auto inline-flex" href="/board">{msg.board_heading}</a>
    <a class="btn btn-plain inline-flex" href="/keeping">{msg.common_keeping}</a>
    <button class="btn btn-main" onclick={() => (making = true)}
      ><Plus size={20} aria-hidden="true" />{msg.common_new_job}</button
    >
  </div>
  {#if jobs?.length || words || count}
    <label class="mt-3 flex items-center gap-3">
      <span class="sr-only">{msg.job_list_search_the_jobs}</span>
      <input
        type="search"
        class="min-h-11 w-full max-w-md border border-line bg-sheet px-3"
        placeholder={msg.job_list_name_or_the_code_on}
        maxlength="200"
        value={words}
        oninput={(e) => search(e.currentTarget.value)}
      />
      <span class="whitespace-nowrap text-pencil" role="status">{count} {count === 1 ? 'job' : 'jobs'}</span>
    </label>
  {/if}

  {#if unknown}<p class="mt-3 text-stop" role="alert">{unknown}</p>{/if}
  {#each found as f (f.path)}
    <p class="mt-3">
      <a class="btn btn-main" href={f.path}
        >{msg.job_list_open_in({ code: code.toUpperCase(), v2: f.name })}</a
      >
    </p>
  {/each}

  {#if trouble}
    <div class="mt-4 border border-stop bg-stop-wash p-4 text-stop" role="alert">
      <p class="font-semibold">{trouble}</p>
      <p class="mt-1 text-ink">
        {msg.job_list_what_was_saved_is_kept}
      </p>
      <button class="btn mt-3" onclick={() => load()}>{msg.common_try_again}</button>
    </div>
  {/if}

  {#if !jobs && !trouble}
    <p class="mt-6 text-pencil" aria-busy="true">{msg.job_list_reading_the_jobs}</p>
  {:else if jobs && words && !count && !code}
    <p class="mt-6">
      {msg.job_list_no_jobs_name_holds_that}
      <button class="btn" onclick={() => search('')}>{msg.job_list_show_all}</button>
    </p>
  {:else if jobs && !jobs.length && !words}
    <div class="mt-6 border border-line bg-sheet p-6">
      <p class="text-lg font-semibold">{msg.job_list_no_jobs_yet}</p>
      <p class="mt-1 max-w-prose">
        {msg.job_list_start_with_what_the_customer}
      </p>
      <p class="mt-3 flex flex-wrap gap-2">
        <button class="btn btn-main" onclick={() => (making = true)}>{msg.common_new_job}</button>
        {#each examples as e, i (e)}
          <button class="btn" onclick={() => example(i)}>{msg.job_list_try({ v1: e })}</button>
        {/each}
      </p>
    </div>
  {/if}

  <ul class="mt-4 grid gap-3">
    {#each jobs ?? [] as j (j.id)}
      <li
        class="grid grid-cols-[1fr_auto] border border-line bg-sheet hover:border-ink sm:grid-cols-[17rem_1fr_auto]"
      >
        <a href="/jobs/{j.id}" class="flex flex-col justify-center p-3 sm:p-4">
          <span class="text-[1.15rem] leading-snug font-bold">{j.name}</span>
          {#if j.problem}
            <span class="text-stop">{msg.job_list_cannot_be_read({ problem: j.problem })}</span>
          {:else if j.pending}
            <span class="text-pencil">{msg.job_list_being_planned}</span>
          {:else if j.posts}
            <span><Fraction mm={j.outline.length} units={j.units} long /> · {counts(j)}</span>
          {:else}
            <span class="text-pencil">{msg.job_list_nothing_measured_yet}</span>
          {/if}
          {#if j.missing}<span class="font-medium text-warn"
              >{msg.job_list_still_to_take({
                missing: j.missing,
                v2: j.missing === 1 ? msg.job_list_measure : msg.job_list_measures,
              })}</span
            >{/if}
          {#if j.problems}<span class="font-medium text-warn"
              >{msg.job_list_to_check({ problems: j.problems })}</span
            >{/if}
          <span class="text-[0.9rem] text-pencil"
            >{msg.job_list_saved({ v1: when.format(new Date(j.savedAt)) })}</span
          >
        </a>
        <a
          href="/jobs/{j.id}"
          class="flex items-end px-2 max-sm:order-last max-sm:col-span-2 sm:pt-2"
          tabindex="-1"
          aria-hidden="true"
        >
          {#if j.posts}<Silhouette outline={j.outline} /><span class="sr-only"
              >{tape(j.outline.length, j.units)}</span
            >{/if}
        </a>
        <button
          class="btn btn-plain btn-icon m-1 self-center"
          aria-label={msg.job_list_delete({ v1: j.name })}
          onclick={() => act(() => api.delete(j.id), j)}><Trash2 size={20} /></button
        >
      </li>
    {/each}
  </ul>

  {#if jobs && jobs.length < count}
    <p class="mt-4 text-center">
      <button class="btn" onclick={() => load(PAGE)}
        >{msg.job_list_show_more_of({ min: Math.min(PAGE, count - jobs.length), count })}</button
      >
    </p>
  {/if}

  {#if binned}
    <details
      class="mt-8"
      open={binOpen}
      ontoggle={(e) => {
        if (binOpen === e.currentTarget.open) return
        binOpen = e.currentTarget.open
        if (binOpen) void load()
      }}
    >
      <summary class="min-h-11 cursor-pointer py-2 font-semibold">{msg.job_list_deleted({ binned })}</summary>
      <ul class="mt-1 grid gap-1">
        {#each bin as j (j.id)}
          <li class="flex items-center justify-between gap-3 border-t border-rule py-1">
            <span
              >{j.name}
              {#if j.goneAt}<span class="text-[0.9rem] text-pencil"
                  >{msg.job_list_kept_until_at_least({ v1: day.format(new Date(j.goneAt)) })}</span
                >{/if}</span
            >
            <button class="btn" onclick={() => act(() => api.undelete(j.id), null)}
              >{msg.common_put_back}</button
            >
          </li>
        {/each}
      </ul>
    </details>
  {/if}
</main>

{#if removed}
  {@const job = removed}
  <div
    class="fixed bottom-4 left-1/2 z-30 flex w-max max-w-[calc(100vw-1rem)] -translate-x-1/2 items-center gap-3 border border-ink bg-ink px-4 py-1.5 text-paper"
    role="status"
  >
    <span>{msg.job_list_is_deleted({ job: job.name })}</span>
    <button class="min-h-11 px-2 font-bold underline" onclick={() => act(() => api.undelete(job.id), null)}
      >{msg.common_undo}</button
    >
  </div>
{/if}
{#if making}
  <Later
    load={() => import('./NewJob.svelte')}
    name={msg.job_list_a_new_job}
    props={{ onclose: () => (making = false) }}
  />
{/if}
