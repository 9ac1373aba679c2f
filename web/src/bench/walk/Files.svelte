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
      trouble = `${f.name} is ${(f.size / 1e6).toFixed(1)} MB; at most 3.5 MB are read. Thin the track out, or send it in parts.`
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
        ['ground', `CSV: ground of ${session.run.name || session.run.id}`, session.run.id],
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
      session.commit([{ path: '/site/place', value }], value ? 'Place on earth' : 'Place not known')
  }
</script>

<div class="grid gap-x-8 gap-y-5 xl:grid-cols-[minmax(0,1fr)_17rem]">
  <section class="min-w-0" aria-labelledby="import-title">
    <h2 id="import-title" class="font-bold">From a file</h2>
    <p class="text-pencil">
      CSV with station and height, or with x, y and height; GPX; GeoJSON. Nothing changes until you take it.
    </p>
    <label class="btn mt-2 focus-within:outline-3 focus-within:outline-mallow">
      <FileUp size={18} aria-hidden="true" />{file ? 'Another file' : 'Choose a file'}
      <input
        type="file"
        accept=".csv,.txt,.tsv,.gpx,.geojson,.json"
        class="sr-only"
        aria-label="Choose a file with points"
        onchange={pick}
      />
    </label>
    {#if busy}<span class="ml-2 text-pencil" aria-busy="true">Reading …</span>{/if}
    {#if trouble}<p class="mt-2 border-l-4 border-l-stop bg-stop-wash px-3 py-1.5" role="alert">
        {trouble}
      </p>{/if}
    {#if file && preview}
      <div class="mt-3 grid grid-cols-2 items-start gap-3 sm:grid-cols-4">
        {#if preview.format === 'csv'}
          <Pick
            label="Bare numbers are"
            value={unit ?? 'auto'}
            options={[
              { value: 'auto', name: 'as the columns say' },
              { value: 'm', name: 'metres' },
              { value: 'mm', name: 'millimetres' },
              { value: 'ft', name: 'feet' },
              { value: 'in', name: 'inches' },
            ]}
            onpick={(v) => {
              unit = v as typeof unit
              void look()
            }}
          />
        {/if}
        {#if preview.shape === 'plan'}
          <TapeEntry
            label="Off a straight run by"
            {units}
            value={off}
            hint="More makes a corner."
            oncommit={(mm) => {
              off = mm ?? 150
              void look()
            }}
          />
          <TapeEntry
            label="Heights matter from"
            {units}
            value={thin}
            hint="Less is left out."
            oncommit={(mm) => {
              thin = mm ?? 3
              void look()
            }}
          />
          <div class="col-span-2 sm:col-span-4">
            <Choice
              label="It becomes"
              value={replace ? 'replace' : 'new'}
              options={[
                { value: 'new', name: 'A line of its own' },
                {
                  value: 'replace',
                  name: 'This line, measured again',
                  costs: 'its gates, books and what is in the way go; undo brings them back',
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
          >{preview.badCount ? 'Take the good ones in' : 'Take it in'}</button
        >
        <button
          class="btn"
          onclick={() => {
            file = null
            preview = null
          }}>Leave it</button
        >
      </div>
    {/if}
  </section>
  <section aria-labelledby="export-title">
    <h2 id="export-title" class="font-bold">To a file</h2>
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
                ? 'once the place and the bearing are known'
                : 'once the run has a length'}.
            </p>
          {/if}
        </li>
      {/each}
    </ul>
    <h3 class="mt-4 font-semibold">Where on earth the map's zero lies</h3>
    <p class="text-pencil">
      The first line's first post, unless that was moved. With the line's bearing it puts GPX and GeoJSON in
      their place.
    </p>
    <div class="mt-1 grid grid-cols-2 gap-2">
      <NumberEntry
        label="Latitude, °"
        value={lat}
        error={session.wrongAt('/site/place/latitude')}
        oncommit={(n) => locate(n, lon)}
        onclear={() => locate(undefined, undefined)}
      />
      <NumberEntry
        label="Longitude, °"
        value={lon}
        error={session.wrongAt('/site/place/longitude')}
        oncommit={(n) => locate(lat, n)}
        onclear={() => locate(undefined, undefined)}
      />
    </div>
    {#if (lat === undefined) !== (lon === undefined)}<p class="text-warn">
        The other one is still needed.
      </p>{/if}
    <p class="mt-3 text-pencil">
      Files hold the job as it was last saved, or as it stands here while the server is away. Read again, it
      is the same line.
    </p>
  </section>
</div>
