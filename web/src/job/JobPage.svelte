<script lang="ts">
  import Fence from '@lucide/svelte/icons/fence'
  import MapIcon from '@lucide/svelte/icons/map'
  import { onMount, untrack } from 'svelte'
  import Bench from '../bench/Bench.svelte'
  import Elevation from '../drawing/Elevation.svelte'
  import Patterns from '../drawing/Patterns.svelte'
  import ViewControls from '../drawing/ViewControls.svelte'
  import { View } from '../drawing/view.svelte'
  import { provideAsking } from '../lib/asking.svelte'
  import { Gone, own, Refused } from '../lib/api'
  import { Session, Unplannable } from '../lib/session.svelte'
  import type { JobState } from '../gen/api'
  import { addressOf, showAddress, type Spot } from '../lib/address'
  import type { Stage } from '../lib/stages'
  import { MapView } from '../map/mapview.svelte'
  import SiteMap from '../map/SiteMap.svelte'
  import RunBar from './RunBar.svelte'
  import Load from '../load/Load.svelte'
  import Masthead from '../parts/Masthead.svelte'
  import JobBar from './JobBar.svelte'
  import SavingNotice from './SavingNotice.svelte'
  import Later from '../parts/Later.svelte'

  let { params }: { params: { id: string; run?: string; stage?: string; part?: string } } = $props()
  let session = $state.raw<Session | null>(null)
  let view = $state.raw<View | null>(null)
  let mapView = $state.raw<MapView | null>(null)
  const stage = $derived<Stage>(session?.nav.stage ?? 'walk')
  let mapLarge = $state(false)
  /** On a small screen one of the two drawings is shown. */
  let fromAbove = $state(false)
  let trouble = $state.raw<{ title: string; detail: string } | null>(null)
  let unplannable = $state.raw<JobState | null>(null)
  const asking = provideAsking()

  async function open(id: string) {
    trouble = null
    unplannable = null
    session?.close()
    session = null
    try {
      const s = await Session.open(id)
      if (id !== params.id) return s.close()
      view = new View(
        () => s.drawn,
        () => s.strip !== null,
      )
      mapView = new MapView(() => s.plan)
      s.nav.stage = s.plan.findings.some((f) => f.severity === 'missing') ? 'walk' : 'space'
      s.goTo(spot())
      session = s
      document.title = `${s.doc.name} · Mallow`
    } catch (e) {
      if (id !== params.id) return
      if (e instanceof Unplannable) unplannable = e.job
      else {
        const said = e instanceof Refused || e instanceof Gone ? e.problem : undefined
        trouble = {
          title: said?.title ?? (e instanceof Gone ? 'Mallow is not answering' : 'This job cannot be opened'),
          detail: said?.detail ?? (e instanceof Error ? e.message : String(e)),
        }
      }
    }
  }
  /** Where the address leads. */
  function spot(): Spot {
    const asked = new URLSearchParams(location.search)
    return {
      run: params.run,
      stage: params.stage as Stage | undefined,
      part: params.part,
      post: asked.get('post') ?? undefined,
      gate: asked.get('gate') ?? undefined,
    }
  }
  const id = $derived(params.id)
  $effect(() => {
    const opened = id
    untrack(() => void open(opened))
  })
  // Back and forth, and an address typed in, go where they say.
  $effect(() => {
    void params
    untrack(() => {
      if (session && addressOf(session.id, session.spot) !== location.pathname + location.search)
        session.goTo(spot())
    })
  })
  // The page is seen first; then the core is loaded beside it.
  $effect(() => {
    if (!session || own.core || typeof WebAssembly !== 'object') return
    const later = setTimeout(async () => {
      const { Core } = await import('../lib/core').catch(() => ({ Core: undefined })) // the server is gone
      if (!Core) return
      own.core ??= new Core()
      // Keeps the core and the scripts; a browser that does not allow it goes on as it was.
      navigator.serviceWorker?.register('/kept.js').catch(() => undefined)
    })
    return () => clearTimeout(later)
  })
  // What is picked here shows in the address.
  $effect(() => {
    if (!session) return
    const [job, now] = [session.id, session.spot]
    untrack(() => showAddress(job, now))
  })
  onMount(() => () => session?.close())

  // Undo and redo as everywhere on the web; inside an entry that is being
  // typed they stay the entry's own.
  function key(e: KeyboardEvent) {
    if (!session || !(e.ctrlKey || e.metaKey) || e.altKey) return
    if (e.target instanceof HTMLInputElement) return
    const k = e.key.toLowerCase()
    if (k === 'z' && !e.shiftKey) void session.store.undo()
    else if (k === 'y' || (k === 'z' && e.shiftKey)) void session.store.redo()
    else return
    e.preventDefault()
  }
</script>

<svelte:window onkeydown={key} />

<div class="flex flex-col lg:h-dvh">
  <Masthead>
    {#if session}<JobBar {session} />{/if}
  </Masthead>
  {#if trouble}
    <main class="mx-auto max-w-xl p-6">
      <h1 class="text-2xl font-bold">{trouble.title}</h1>
      <p class="mt-2">{trouble.detail}</p>
      <p class="mt-4 flex flex-wrap gap-2">
        <button class="btn btn-main" onclick={() => open(params.id)}>Try again</button>
        <a class="btn" href="/">All jobs</a>
      </p>
    </main>
  {:else if unplannable}
    <Later
      load={() => import('./ReadOnly.svelte')}
      name="The job"
      props={{ job: unplannable, onchanged: () => open(params.id) }}
    />
  {:else if session && view}
    <SavingNotice {session} />
    <main class="flex min-h-0 flex-1 flex-col">
      <section
        class="grid h-64 flex-none border-b-2 border-ink max-lg:sticky max-lg:top-0 max-lg:z-10 sm:h-72 lg:h-[43%] {mapLarge
          ? 'lg:grid-cols-[minmax(0,2fr)_minmax(0,3fr)]'
          : 'lg:grid-cols-[minmax(0,1fr)_19rem]'}"
        aria-label="Drawing"
      >
        <div class="relative min-h-0 min-w-0 {fromAbove ? 'max-lg:hidden' : ''}">
          {#key session}
            <Elevation {session} {view} {stage}>
              {#snippet empty()}
                <p
                  class="pointer-events-none absolute inset-x-4 top-8 text-center text-[1.1rem] font-medium text-pencil"
                >
                  The fence is drawn here as soon as the run has a length.
                </p>
              {/snippet}
            </Elevation>
          {/key}
          {#if session.run.posts.length}
            <div class="absolute top-1 right-1 lg:hidden"><ViewControls {view} {session} /></div>
          {/if}
        </div>
        <div
          class="relative min-h-0 min-w-0 border-ink lg:border-l-2 {fromAbove ? '' : 'max-lg:hidden'}"
          aria-label="From above"
          role="group"
        >
          {#key session}<SiteMap {session} view={mapView!} strings={stage === 'string'} />{/key}
          <div
            class="absolute right-1 bottom-1 flex border border-line bg-sheet"
            role="group"
            aria-label="Map view"
          >
            <button
              class="btn btn-plain px-2 text-[0.88rem] max-lg:hidden"
              aria-pressed={mapLarge}
              onclick={() => (mapLarge = !mapLarge)}>{mapLarge ? 'smaller' : 'larger'}</button
            >
            <button class="btn btn-plain px-2 text-[0.88rem]" onclick={() => mapView!.whole()}>all</button>
          </div>
        </div>
        <button
          class="btn btn-icon absolute top-1 left-1 z-10 lg:hidden"
          aria-label={fromAbove ? 'From the side' : 'From above'}
          onclick={() => (fromAbove = !fromAbove)}
          >{#if fromAbove}<Fence size={20} />{:else}<MapIcon size={20} />{/if}</button
        >
      </section>
      {#if session.plan.runs.length > 1}<RunBar {session} />{/if}
      <div class="flex min-h-0 flex-1 max-lg:flex-col">
        <Bench {session} {view} bind:stage={session.nav.stage} />
        <Load {session} />
      </div>
    </main>
    <Patterns />
    {#if asking.asked}
      <Later load={() => import('../parts/WhyPopover.svelte')} props={{ session }} />
    {/if}
    {#if session.store.theirs}
      <Later load={() => import('./Conflict.svelte')} props={{ session }} />
    {/if}
  {:else}
    <p class="p-6 text-pencil" aria-busy="true">Opening the job …</p>
  {/if}
</div>
