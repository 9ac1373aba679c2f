<script lang="ts">
  // What is known of the weather: from the office, a file, or typed in by the day.
  import Plus from '@lucide/svelte/icons/plus'
  import Trash2 from '@lucide/svelte/icons/trash-2'
  import type { WeatherDay, WeatherHour } from '../../gen/api'
  import { api } from '../../lib/api'
  import { after, clock, date } from '../../lib/clock'
  import type { Session } from '../../lib/session.svelte'
  import { temperature } from '../../lib/tape'
  import NumberEntry from '../../parts/NumberEntry.svelte'
  import * as msg from '../../gen/messages'

  let { session }: { session: Session } = $props()
  const units = $derived(session.units)
  const hours = $derived(session.value<WeatherHour[]>('/weather/hours') ?? [])
  const days = $derived(session.value<WeatherDay[]>('/weather/days') ?? [])
  const source = $derived(session.value<string>('/weather/source') ?? '')
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone
  let trouble = $state('')
  let notes = $state<string[]>([])

  async function office() {
    notes = []
    if (session.value('/site/place') === undefined) {
      trouble = msg.pour_office_needs_place
      return
    }
    const day = new Date().toISOString().slice(0, 10)
    trouble = (await session.takeMade(() => api.askWeather({ doc: session.doc, zone, day }))) ?? ''
  }

  /** The site's clock ahead of UTC: what the weather says, or this device's on that day. */
  const offset = () =>
    session.value<number>('/weather/offset') ??
    -new Date(
      `${session.value<string>('/pour/date') ?? new Date().toISOString().slice(0, 10)}T12:00:00`,
    ).getTimezoneOffset() / 60

  async function file(f: File | undefined) {
    if (!f) return
    trouble = ''
    try {
      const read = await api.readWeather({ text: await f.text(), offset: offset() })
      notes = read.notes
      session.commit(
        [
          { path: '/weather/hours', value: read.hours },
          { path: '/weather/source', value: f.name.slice(0, 200) },
        ],
        msg.pour_weather_from({ name: f.name }),
      )
    } catch (e) {
      trouble = e instanceof Error ? e.message : String(e)
    }
  }

  /** Temperatures are typed as they are said in the job's units. */
  const shown = (c: number) => (units.system === 'metric' ? c : Math.round((c * 1.8 + 32) * 10) / 10)
  const stored = (v: number) => (units.system === 'metric' ? v : (v - 32) / 1.8)
  const degree = $derived(units.system === 'metric' ? '°C' : '°F')
  const speed = $derived(
    units.system === 'metric' ? { unit: 'km/h', by: 3.6 } : { unit: 'mph', by: 3600 / 1609.344 },
  )

  const put = (value: WeatherDay[], what: string) =>
    session.commit(
      [
        { path: '/weather/days', value: value.length ? value : null },
        ...(session.value<number>('/weather/offset') === undefined
          ? [{ path: '/weather/offset', value: offset() }]
          : []),
      ],
      what,
    )
  // A day counts once all three are typed: nothing is made up.
  type Draft = { date: string } & Partial<WeatherDay>
  let draft = $state<Draft | undefined>()
  function add() {
    const last = days[days.length - 1]
    const today = new Date().toISOString().slice(0, 10)
    draft = { date: last ? after(last.date, 1) : (session.value<string>('/pour/date') ?? today) }
  }
  function typed(by: Partial<WeatherDay>) {
    const next = { ...draft!, ...by }
    const { morning, noon, night } = next
    if (morning === undefined || noon === undefined || night === undefined) {
      draft = next
      return
    }
    draft = undefined
    put([...days, { ...next, morning, noon, night }], msg.pour_weather_typed({ date: next.date }))
  }
  const change = (i: number, by: Partial<WeatherDay>) =>
    put(
      days.map((d, k) => (k === i ? { ...d, ...by } : d)),
      msg.pour_weather_typed({ date: days[i]!.date }),
    )
  /** The warmest and coldest of each day that hours are known of. */
  const spans = $derived.by(() => {
    const out: { day: string; low: number; high: number; rain: number; from: string }[] = []
    for (const h of hours) {
      const day = h.at.slice(0, 10)
      const last = out[out.length - 1]
      if (last?.day === day) {
        last.low = Math.min(last.low, h.temp)
        last.high = Math.max(last.high, h.temp)
        last.rain += h.rain ?? 0
      } else out.push({ day, low: h.temp, high: h.temp, rain: h.rain ?? 0, from: h.at })
    }
    return out
  })
  const fields = [
    { id: 'morning', name: msg.pour_morning },
    { id: 'noon', name: msg.pour_noon },
    { id: 'night', name: msg.pour_night },
  ] as const
</script>

<div class="flex flex-wrap items-center gap-2">
  <button class="btn" onclick={office}>{msg.pour_ask_office}</button>
  <label class="btn cursor-pointer"
    >{msg.pour_weather_file}<input
      type="file"
      accept=".csv,text/csv"
      class="sr-only"
      onchange={(e) => file(e.currentTarget.files?.[0])}
    /></label
  >
  <button class="btn" onclick={add}><Plus size={18} aria-hidden="true" />{msg.pour_type_a_day}</button>
</div>
<p class="mt-1 text-pencil">{msg.pour_weather_says}</p>
{#if trouble}<p class="mt-2 font-medium text-stop" role="alert">{trouble}</p>{/if}
{#each notes as n (n)}<p class="mt-1 text-warn">{n}</p>{/each}

{#if draft}
  <fieldset
    class="mt-4 flex flex-wrap items-start gap-2 border border-line bg-sheet p-2"
    data-testid="weather-draft"
  >
    <legend class="sr-only">{msg.pour_type_a_day}</legend>
    <div>
      <label class="label mb-1" for="day-new">{msg.pour_day}</label>
      <input
        id="day-new"
        type="date"
        class="field"
        value={draft.date}
        onchange={(e) => e.currentTarget.value && typed({ date: e.currentTarget.value })}
      />
    </div>
    {#each fields as f (f.id)}
      <div class="w-24">
        <NumberEntry
          label="{f.name}, {degree}"
          value={draft[f.id] === undefined ? undefined : shown(draft[f.id]!)}
          oncommit={(v) => typed({ [f.id]: stored(v) })}
        />
      </div>
    {/each}
    <p class="w-full text-[0.9rem] text-pencil">{msg.pour_type_all_three}</p>
  </fieldset>
{/if}
{#if days.length}
  <h2 class="mt-4 font-bold">{msg.pour_typed_days}</h2>
  <ul class="mt-1" data-testid="weather-days">
    {#each days as d, i (i)}
      <li class="flex flex-wrap items-start gap-2 border-b border-rule py-1">
        <div>
          <label class={i ? 'sr-only' : 'label mb-1'} for="day-{i}">{msg.pour_day}</label>
          <input
            id="day-{i}"
            type="date"
            class="field"
            value={d.date}
            onchange={(e) => e.currentTarget.value && change(i, { date: e.currentTarget.value })}
          />
        </div>
        {#each fields as f (f.id)}
          <div class="w-24">
            <NumberEntry
              hideLabel={i > 0}
              label="{f.name}, {degree}"
              value={shown(d[f.id])}
              oncommit={(v) => change(i, { [f.id]: stored(v) })}
            />
          </div>
        {/each}
        <div class="w-24">
          <NumberEntry
            hideLabel={i > 0}
            label="{msg.pour_humidity}, %"
            value={d.humidity === undefined ? undefined : Math.round(d.humidity * 100)}
            oncommit={(v) => change(i, { humidity: v / 100 })}
            onclear={() => change(i, { humidity: undefined })}
          />
        </div>
        <div class="w-24">
          <NumberEntry
            hideLabel={i > 0}
            label="{msg.pour_wind}, {speed.unit}"
            value={d.wind === undefined ? undefined : Math.round(d.wind * speed.by)}
            oncommit={(v) => change(i, { wind: v / speed.by })}
            onclear={() => change(i, { wind: undefined })}
          />
        </div>
        <button
          class="btn btn-plain btn-icon {i ? '' : 'mt-6'}"
          aria-label={msg.pour_take_day_out({ date: d.date })}
          onclick={() =>
            put(
              days.filter((_, k) => k !== i),
              msg.pour_take_day_out({ date: d.date }),
            )}><Trash2 size={18} /></button
        >
      </li>
    {/each}
  </ul>
{/if}
{#if hours.length}
  <h2 class="mt-4 font-bold">
    {msg.pour_hours_known({ source: source || msg.pour_a_file, count: hours.length })}
  </h2>
  <ul class="mt-1 grid max-w-3xl grid-cols-2 border-t border-rule sm:grid-cols-3" data-testid="weather-hours">
    {#each spans as s (s.day)}
      <li class="border-b border-rule py-1.5">
        <strong>{date(s.from)}</strong>
        {temperature(s.low, units)}–{temperature(s.high, units)}
        {#if s.rain >= 1}<span class="text-pencil">{msg.pour_some_rain}</span>{/if}
        {#if s.from.slice(11, 16) !== '00:00'}<span class="text-pencil"
            >{msg.pour_from_clock({ clock: clock(s.from) })}</span
          >{/if}
      </li>
    {/each}
  </ul>
  <button
    class="btn mt-2"
    onclick={() =>
      session.commit(
        [
          { path: '/weather/hours', value: null },
          { path: '/weather/source', value: null },
        ],
        msg.pour_forget_hours,
      )}>{msg.pour_forget_hours}</button
  >
{/if}
