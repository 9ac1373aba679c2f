<script lang="ts">
  // Every day on site: its hours, tasks, load, who comes, and what would end sooner.
  import type { Part, Schedule } from '../../gen/api'
  import { date } from '../../lib/clock'
  import type { Session } from '../../lib/session.svelte'
  import { say } from '../../lib/say'
  import { temperature } from '../../lib/tape'
  import FileLink from '../../parts/FileLink.svelte'
  import Words from '../../parts/Words.svelte'
  import { take } from '../../lib/answer.svelte'
  import Found from '../Found.svelte'
  import * as msg from '../../gen/messages'

  let { session, schedule, fresh }: { session: Session; schedule: Schedule; fresh: boolean } = $props()
  const units = $derived(session.units)
  const on = (day: string) => date(`${day}T12:00`)
  const most = $derived(Math.max(8, ...schedule.days.map((d) => d.hours)))
  const words = (says: Part[]) => says.map((p) => say(p, units)).join('')
  const sooner = (says: string) =>
    take(
      session,
      () => fresh,
      () => schedule.sooner.find((o) => words(o.says) === says),
      says,
    )
</script>

<div class="flex flex-wrap items-end gap-3">
  <div>
    <label class="label mb-1" for="days-start">{msg.days_start}</label>
    <input
      id="days-start"
      type="date"
      class="field"
      value={session.value<string>('/days/start') ?? ''}
      onchange={(e) =>
        session.commit(
          [{ path: '/days/start', value: e.currentTarget.value || null }],
          msg.days_start_on({ date: e.currentTarget.value }),
        )}
    />
  </div>
  {#if schedule.days.length}
    <FileLink {session} what="ics" class="btn">{msg.days_calendar_file}</FileLink>
  {/if}
</div>
{#if schedule.finish}
  <p class="mt-3 text-[1.15rem]" data-testid="days-sum">
    <strong>{msg.days_ends({ date: on(schedule.finish) })}</strong>
    {msg.days_on_site({
      days: schedule.trips,
      hours: schedule.hours.toFixed(1),
      people: schedule.people,
    })}
    {#if !schedule.best && schedule.bound}{msg.days_bound({ date: on(schedule.bound) })}{/if}
  </p>
{/if}
{#each schedule.asks as a (a.field)}
  <p class="mt-2 border-l-4 border-l-warn bg-warn-wash px-3 py-2">
    <strong>{msg.pour_enter}</strong>
    <Words says={a.says} {units} />
  </p>
{/each}
<Found {session} findings={schedule.findings} {fresh} />
<ol class="mt-3 border-t border-ink" data-testid="days-list">
  {#each schedule.days as d, i (d.date)}
    <li class="grid gap-x-4 border-b border-ink py-3 md:grid-cols-[11rem_minmax(0,1fr)]" data-day={d.date}>
      <div>
        <strong class="text-[1.15rem]">{on(d.date)}</strong>
        <p>{d.from}–{d.to}</p>
        <div class="mt-1 h-2 w-full max-w-36 bg-rule" aria-hidden="true">
          <div class="h-2 bg-mallow" style:width="{(d.hours / most) * 100}%"></div>
        </div>
        <p class="mt-1 text-[0.9rem] text-pencil">
          {msg.days_day_of({ n: i + 1, of: schedule.days.length })}
          {#if d.low !== undefined && d.high !== undefined}{temperature(d.low, units)} –
            {temperature(d.high, units)}{/if}{#if (d.rain ?? 0) >= 1}, {msg.pour_some_rain}{/if}
        </p>
      </div>
      <div class="min-w-0">
        <ul>
          {#each d.parts as p, k (k)}
            <li class="flex flex-wrap items-baseline gap-x-3" data-task={p.task}>
              <span class="w-24 text-pencil">{p.from}–{p.to}</span>
              <strong>{p.name}</strong>
              {#if p.more}<span class="text-pencil">{msg.days_goes_on}</span>{/if}
              {#if p.posts?.length}<span class="text-[0.95rem] text-pencil"
                  >{msg.days_posts({
                    first: p.posts[0]!,
                    last: p.posts[p.posts.length - 1]!,
                    count: p.posts.length,
                  })}</span
                >{/if}
            </li>
          {/each}
        </ul>
        {#if d.who.length}<p class="mt-1 font-medium">{msg.days_comes({ who: d.who.join(', ') })}</p>{/if}
        {#if d.load.length}
          <details class="mt-1">
            <summary class="cursor-pointer pointer-coarse:min-h-11"
              >{msg.days_load({ count: d.load.length })}</summary
            >
            <ul class="mt-1 columns-1 gap-6 text-[0.95rem] lg:columns-2">
              {#each d.load as l, k (k)}
                <li class="break-inside-avoid">
                  <strong><Words says={l.many} {units} /></strong>
                  {l.what} <span class="text-pencil"><Words says={l.of} {units} /></span>
                </li>
              {/each}
            </ul>
          </details>
        {/if}
        {#if d.checks.length || d.cautions.length}
          <details class="mt-1">
            <summary class="cursor-pointer pointer-coarse:min-h-11">{msg.days_checks}</summary>
            <ul class="mt-1 list-disc pl-5 text-[0.95rem]">
              {#each d.checks as c, k (k)}<li>{c}</li>{/each}
              {#each d.cautions as c, k (k)}<li class="text-warn"><Words says={c} {units} /></li>{/each}
            </ul>
          </details>
        {/if}
      </div>
    </li>
  {/each}
</ol>
{#if schedule.waits.length}
  <h2 class="mt-4 font-bold">{msg.days_waits}</h2>
  <ul class="mt-1 max-w-2xl border-t border-rule">
    {#each schedule.waits as w (w.for)}
      <li class="flex flex-wrap justify-between gap-x-4 border-b border-rule py-1.5">
        <span>{w.for}</span>
        <strong
          >{on(w.until.slice(0, 10))}{w.until.length > 10 ? `, ${w.until.slice(11, 16)}` : ''}
          {#if w.usual}<span class="font-normal text-pencil">{msg.days_usual}</span>{/if}</strong
        >
      </li>
    {/each}
  </ul>
{/if}
{#if schedule.sooner.length}
  <h2 class="mt-4 font-bold">{msg.days_sooner}</h2>
  <ul class="mt-1 max-w-2xl border-t border-rule" data-testid="sooner">
    {#each schedule.sooner as o, k (k)}
      <li class="flex flex-wrap items-center gap-x-4 border-b border-rule py-1.5">
        <span class="flex-1"
          ><strong><Words says={o.says} {units} /></strong>
          <span class="text-pencil"
            >{msg.days_ends_sooner({ date: on(o.finish), days: o.days, hours: o.hours.toFixed(0) })}</span
          ></span
        >
        <button class="btn" onclick={() => sooner(words(o.says))}>{msg.common_take_it}</button>
      </li>
    {/each}
  </ul>
{/if}
