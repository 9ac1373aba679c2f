<script lang="ts">
  // Points and tracks in from files, with a look at what was understood before
  // anything changes; lines and heights out.
  import Download from '@lucide/svelte/icons/download'
  import { untrack } from 'svelte'
  import FileUp from '@lucide/svelte/icons/file-up'
  import type { EarthPlace, ImportPreview, ImportRequest } from '../../gen/api'
  import { api, Refused } from '../../lib/api'
  import type { Session } from '../../lib/session.svelte'
  import Choice from '../../parts/Choice.svelte'
  import NumberEntry from '../../parts/NumberEntry.svelte'
  import Pick from '../../parts/Pick.svelte'
  import TapeEntry from '../../parts/TapeEntry.svelte'
  import ImportLook from './ImportLook.svelte'
  import FileLink from '../../parts/FileLink.svelte'
  import * as msg from '../../gen/messages'

  let { session }: { session: Session } = $props()
  const units = $derived(session.units)
  let file = $state.raw<{ name: string; text: string } | null>(null)
  let preview = $state.raw<ImportPreview | null>(null)
  let trouble = $state('')
  // A line in which nothing is measured yet is what the file is for.
  let replace = $state(untrack(() => !session.lineRuns.some((r) => r.length)))
  let unit = $state<ImportRequest['unit'] | 'auto'>('auto')
  let off = $state(150)
  let thin = $state(3)
  let busy = $state(false)
  const MOST = 3_500_000

  async function look() {
    if (!file) return
    busy = true
    try {
      preview = await api.importFile({
        doc: session.doc,
        name: file.name,
        text: file.text,
        line: session.line.id,
        replace,
        run: session.run.id,
        unit: unit === 'auto' ? undefined : unit,
        off,
        thin,
      })
      trouble = ''
    } catch (e) {
      preview = null
      trouble = e instanceof Refused ? e.problem.detail : e instanceof Error ? e.message : String(e)
    } finally {
      busy = false
    }
  }
  async function pick(e: Event & { currentTarget: HTMLInputElement }) {
    const f = e.currentTarget.files?.[0]
    e.currentTarget.value = ''
    if (!f) return
    preview = null
    if (f.size > MOST) {
      file = null
      trouble = msg.files_is_mb_at_most_3({ v1: f.name, v2: (f.size / 1e6).toFixed(1) })
      return
    }
    file = { name: f.name, text: await f.text() }
    await look()
  }
  function take() {
    if (!preview?.doc) return
    const fresh = preview.shape === 'plan' && !replace
    session.commitDoc(preview.doc, preview.what)
    const line = fresh
      ? preview.doc.lines[preview.doc.lines.length - 1]
      : preview.doc.lines.find((l) => l.id === session.line.id)
    if (preview.shape === 'plan') session.runID = line!.runs[0]!.id
    session.post = 0
    file = null
    preview = null
  }
  const out = $derived(
    (
      [
        ['csv', 'CSV: x, y, height', ''],
        ['gpx', 'GPX track', ''],
        ['geojson', 'GeoJSON', ''],
        ['ground', msg.files_csv_ground_of({ v1: session.run.name || session.run.id }), session.run.id],
      ] as const
    ).map(([what, name, run]) => ({
      what,
      name,
      run,
    })),
  )
  const place = $derived(session.value<EarthPlace>('/site/place'))
  const onEarth = $derived(
    place !== undefined && session.value<number>(session.lineAt('/bearing')) !== undefined,
  )
  // Half a place is kept here until the other half is typed.
  let half = $state<{ lat?: number; lon?: number }>({})
  const lat = $derived(place?.latitude ?? half.lat)
  const lon = $derived(place?.longitude ?? half.lon)
  function locate(latitude: number | undefined, longitude: number | undefined) {
    half = { lat: latitude, lon: longitude }
    const value = latitude === undefined || longitude === undefined ? null : { latitude, longitude }
    if (value || place)
      session.commit(
        [{ path: '/site/place', value }],
        value ? msg.files_place_on_earth : msg.files_place_not_known,
      )
  }
</script>

<div class="grid gap-x-8 gap-y-5 xl:grid-cols-[minmax(0,1fr)_17rem]">
  <section class="min-w-0" aria-labelledby="import-title">
    <h2 id="import-title" class="font-bold">{msg.files_from_a_file}</h2>
    <p class="text-pencil">
      {msg.files_csv_with_station_and_height}
    </p>
    <label class="btn mt-2 focus-within:outline-3 focus-within:outline-mallow">
      <FileUp size={18} aria-hidden="true" />{file ? msg.files_another_file : msg.files_choose_a_file}
      <input
        type="file"
        accept=".csv,.txt,.tsv,.gpx,.geojson,.json"
        class="sr-only"
        aria-label={msg.files_choose_a_file_with_points}
        onchange={pick}
      />
    </label>
    {#if busy}<span class="ml-2 text-pencil" aria-busy="true">{msg.common_reading}</span>{/if}
    {#if trouble}<p class="mt-2 border-l-4 border-l-stop bg-stop-wash px-3 py-1.5" role="alert">
        {trouble}
      </p>{/if}
    {#if file && preview}
      <div class="mt-3 grid grid-cols-2 items-start gap-3 sm:grid-cols-4">
        {#if preview.format === 'csv'}
          <Pick
            label={msg.files_bare_numbers_are}
            value={unit ?? 'auto'}
            options={[
              { value: 'auto', name: msg.files_as_the_columns_say },
              { value: 'm', name: msg.files_meters },
              { value: 'mm', name: msg.files_millimeters },
              { value: 'ft', name: msg.files_feet },
              { value: 'in', name: msg.files_inches },
            ]}
            onpick={(v) => {
              unit = v as typeof unit
              void look()
            }}
          />
        {/if}
        {#if preview.shape === 'plan'}
          <TapeEntry
            label={msg.files_off_a_straight_run_by}
            {units}
            value={off}
            hint={msg.files_more_makes_a_corner}
            oncommit={(mm) => {
              off = mm ?? 150
              void look()
            }}
          />
          <TapeEntry
            label={msg.files_heights_matter_from}
            {units}
            value={thin}
            hint={msg.files_less_is_left_out}
            oncommit={(mm) => {
              thin = mm ?? 3
              void look()
            }}
          />
          <div class="col-span-2 sm:col-span-4">
            <Choice
              label={msg.files_it_becomes}
              value={replace ? 'replace' : 'new'}
              options={[
                { value: 'new', name: msg.files_a_line_of_its_own },
                {
                  value: 'replace',
                  name: msg.files_this_line_measured_again,
                  costs: msg.files_its_gates_books_and_what,
                },
              ]}
              onpick={(v) => {
                replace = v === 'replace'
                void look()
              }}
            />
          </div>
        {/if}
      </div>
      <ImportLook {preview} {units} name={file.name} />
      <div class="mt-3 flex flex-wrap gap-2">
        <button class="btn btn-main" disabled={!preview.doc} onclick={take}
          >{preview.badCount ? msg.files_take_the_good_ones_in : msg.files_take_it_in}</button
        >
        <button
          class="btn"
          onclick={() => {
            file = null
            preview = null
          }}>{msg.common_leave_it}</button
        >
      </div>
    {/if}
  </section>
  <section aria-labelledby="export-title">
    <h2 id="export-title" class="font-bold">{msg.files_to_a_file}</h2>
    <ul class="mt-1 grid gap-1.5">
      {#each out as o (o.what)}
        {@const possible = onEarth || (o.what !== 'gpx' && o.what !== 'geojson')}
        <li>
          {#if possible && session.run.length}
            <FileLink {session} what={o.what} run={o.run} class="btn w-full justify-start"
              ><Download size={18} aria-hidden="true" />{o.name}</FileLink
            >
          {:else}
            <p class="text-pencil">
              {o.name}: {session.run.length
                ? msg.files_once_the_place_and_the
                : msg.files_once_the_run_has_a}.
            </p>
          {/if}
        </li>
      {/each}
    </ul>
    <h3 class="mt-4 font-semibold">{msg.files_where_on_earth_the_map}</h3>
    <p class="text-pencil">
      {msg.files_the_first_line_s_first}
    </p>
    <div class="mt-1 grid grid-cols-2 gap-2">
      <NumberEntry
        label={msg.files_latitude}
        value={lat}
        error={session.wrongAt('/site/place/latitude')}
        oncommit={(n) => locate(n, lon)}
        onclear={() => locate(undefined, undefined)}
      />
      <NumberEntry
        label={msg.files_longitude}
        value={lon}
        error={session.wrongAt('/site/place/longitude')}
        oncommit={(n) => locate(lat, n)}
        onclear={() => locate(undefined, undefined)}
      />
    </div>
    {#if (lat === undefined) !== (lon === undefined)}<p class="text-warn">
        {msg.files_the_other_one_is_still}
      </p>{/if}
    <p class="mt-3 text-pencil">
      {msg.files_files_hold_the_job_as}
    </p>
  </section>
</div>
