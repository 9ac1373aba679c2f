<script lang="ts">
  // Every crew's days on all of its jobs, so that none is in two places.
  import { onMount } from 'svelte'
  import type { Board, BoardLine, CrewDays, Edit, OnBoard } from '../gen/api'
  import { api } from '../lib/api'
  import { after, date } from '../lib/clock'
  import { scrolls } from '../lib/scrolls'
  import Masthead from '../parts/Masthead.svelte'
  import * as msg from '../gen/messages'

  let board = $state.raw<Board | null>(null)
  let step = $state.raw<BoardLine | null>(null)
  let trouble = $state('')
  let done = $state('')
  let busy = $state(false)
  let asking: AbortController | undefined

  async function load() {
    asking?.abort()
    const mine = (asking = new AbortController())
    step = null
    let got = false
    try {
      await api.board(mine.signal, (l) => {
        step = l
        if (l.board) {
          board = l.board
          got = true
        }
      })
      if (!mine.signal.aborted) trouble = got ? '' : msg.board_broke_off
    } catch (e) {
      if (!mine.signal.aborted) trouble = e instanceof Error ? e.message : String(e)
    }
  }
  onMount(() => {
    document.title = msg.board_title
    void load()
    return () => asking?.abort()
  })

  /** Keeps a job clear of the days on which its crew is elsewhere. */
  async function clear(o: OnBoard) {
    busy = true
    try {
      const taken = o.clear!.taken
      const value: unknown = taken.length ? taken : null
      await api.edit(o.id, {
        base: o.revision,
        edits: [{ path: '/days/taken', value } as Edit],
        what: msg.board_kept_clear,
      })
      done = msg.board_done({ name: o.name })
    } catch (e) {
      trouble = e instanceof Error ? e.message : String(e)
    }
    busy = false
    await load()
  }

  const on = (day: string) => date(`${day}T12:00`)
  /** All days on which a crew works. */
  const span = (c: CrewDays) => [...new Set(c.jobs.flatMap((o) => o.days.map((d) => d.date)))].sort()
  /** Days off lie before it. */
  const apart = (days: string[], i: number) => i > 0 && after(days[i - 1]!, 1) !== days[i]
  const minutes = (clock: string) => Number(clock.slice(0, 2)) * 60 + Number(clock.slice(3))
  const hours = (from: string, to: string) => (minutes(to) - minutes(from)) / 60
  const jobs = $derived(board?.crews.reduce((n, c) => n + c.jobs.length, 0) ?? 0)
</script>

<Masthead />
<main class="mx-auto max-w-7xl p-3 pb-24 sm:p-6">
  <h1 class="text-2xl font-bold">{msg.board_heading}</h1>
  <p class="mt-1 max-w-prose text-pencil">{msg.board_says}</p>
  {#if trouble}<p class="mt-4 border border-stop bg-stop-wash p-3 font-semibold text-stop" role="alert">
      {trouble}
    </p>{/if}
  {#if done}<p class="mt-4 border border-good p-3 font-semibold text-good" role="status">{done}</p>{/if}
  {#if !board && !trouble}
    <p class="mt-6 text-pencil" aria-busy="true">
      {step?.of ? msg.board_planning({ done: step.done, of: step.of }) : msg.board_reading}
    </p>
    {#if step?.of}<progress class="mt-2 w-full max-w-md" value={step.done} max={step.of}></progress>{/if}
  {/if}
  {#if board && !jobs}<p class="mt-6">{msg.board_none}</p>{/if}
  {#each board?.crews ?? [] as c (c.name)}
    {@const days = span(c)}
    <section class="mt-6" data-crew={c.name}>
      <div class="flex flex-wrap items-center justify-between gap-3">
        <h2 class="text-[1.2rem] font-bold">{c.name || msg.board_no_name}</h2>
        <a class="btn inline-flex" href="/api/board.ics?crew={encodeURIComponent(c.name)}" download="crew.ics"
          >{msg.board_calendar}</a
        >
      </div>
      <div class="mt-2 overflow-x-auto border border-line bg-sheet" {@attach scrolls}>
        <table class="border-collapse text-[0.85rem]">
          <thead>
            <tr>
              <th scope="col" class="sticky left-0 bg-sheet px-2 text-left">{msg.board_job}</th>
              {#each days as d, i (d)}<th
                  scope="col"
                  class="min-w-14 px-1 py-1 text-center font-normal whitespace-nowrap {apart(days, i)
                    ? 'border-l-4 border-rule'
                    : ''}"><span class="block">{on(d).split(', ')[0]}</span>{on(d).split(', ')[1] ?? ''}</th
                >{/each}
            </tr>
          </thead>
          <tbody>
            {#each c.jobs as o (o.id)}
              <tr class="border-t border-rule" data-job={o.name}>
                <th scope="row" class="sticky left-0 max-w-48 bg-sheet px-2 py-1 text-left font-semibold"
                  ><a class="underline" href="/jobs/{o.id}">{o.name}</a></th
                >
                {#each days as d, i (d)}
                  {@const work = o.days.find((w) => w.date === d)}
                  {@const hit = o.clash.some((h) => h.date === d)}
                  <td class="h-11 {apart(days, i) ? 'border-l-4' : 'border-l'} border-rule p-0.5">
                    {#if work}<div
                        class="grid h-full place-items-center font-semibold {hit
                          ? 'bg-stop text-paper'
                          : 'bg-mallow-wash text-mallow'}"
                        title="{on(d)}, {work.from}–{work.to}: {work.tasks.join(', ')}"
                        data-day={d}
                      >
                        <span class="sr-only">{work.tasks.join(', ')}</span><span aria-hidden="true"
                          >{hit ? '2×' : Math.round(hours(work.from, work.to))}</span
                        >
                      </div>{/if}
                  </td>
                {/each}
              </tr>
            {/each}
          </tbody>
        </table>
      </div>
      <ul class="mt-2">
        {#each c.jobs as o (o.id)}
          <li class="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule py-2" data-end={o.name}>
            <span class="min-w-64 flex-1">
              <strong>{o.name}</strong>
              {o.finish ? msg.board_ends({ date: on(o.finish) }) : msg.board_no_end}
              {#if o.clash.length}<span class="font-medium text-stop"
                  >{msg.board_clash({
                    days: o.clash.map((h) => on(h.date)).join('; '),
                    other: o.clash[0]!.other,
                  })}</span
                >{/if}
            </span>
            {#if o.clear}
              <button class="btn" disabled={busy} onclick={() => clear(o)}
                >{o.clear.finish
                  ? msg.board_clear({ date: on(o.clear.finish) })
                  : msg.board_clear_open}</button
              >
            {/if}
          </li>
        {/each}
      </ul>
    </section>
  {/each}
  {#each board?.wrong ?? [] as w (w.id)}
    <p class="mt-3 text-stop">{msg.board_wrong({ name: w.name, why: w.why })}</p>
  {/each}
  {#if board?.left}<p class="mt-3">{msg.board_left({ n: board.left })}</p>{/if}
</main>
