<script lang="ts">
  import { onMount, untrack } from 'svelte'
  import Bench from '../bench/Bench.svelte'
  import Patterns from '../drawing/Patterns.svelte'
  import { View } from '../drawing/view.svelte'
  import { provideAsking } from '../lib/asking.svelte'
  import { Gone, own, Refused } from '../lib/api'
  import { Session, Unplannable } from '../lib/session.svelte'
  import type { JobState } from '../gen/api'
  import { addressOf, showAddress, type Spot } from '../lib/address'
  import { stages, type Stage } from '../lib/stages'
  import { layout } from '../lib/layout.svelte'
  import { spelling } from '../lib/spelling.svelte'
  import { MapView } from '../map/mapview.svelte'
  import Drawings from './Drawings.svelte'
  import RunBar from './RunBar.svelte'
  import Masthead from '../parts/Masthead.svelte'
  import JobBar from './JobBar.svelte'
  import SavingNotice from './SavingNotice.svelte'
  import Later from '../parts/Later.svelte'
  import * as msg from '../gen/messages'

  let { params }: { params: { id: string; run?: string; stage?: string; part?: string } } = $props()
  let session = $state.raw<Session | null>(null)
  let view = $state.raw<View | null>(null)
  let mapView = $state.raw<MapView | null>(null)
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
          title:
            said?.title ??
            (e instanceof Gone
              ? msg.job_page_mallow_is_not_answering
              : msg.job_page_this_job_cannot_be_opened),
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
  $effect(() => {
    spelling.british = session?.units.system === 'metric'
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

  /** Goes where a skip link says, and leaves the address as it is. */
  function skip(e: MouseEvent & { currentTarget: HTMLAnchorElement }) {
    e.preventDefault()
    document.querySelector<HTMLElement>(e.currentTarget.hash)?.focus()
  }
  /** The length of the run is on the bench of Walk, which may have to be loaded. */
  async function toLength(e: MouseEvent) {
    e.preventDefault()
    session!.nav.stage = 'walk'
    session!.nav.parts.walk = 'line'
    layout.makeRoom()
    for (let k = 0; k < 50; k++) {
      const field = document.querySelector<HTMLElement>('[data-run-length] input')
      if (field) return field.focus()
      await new Promise((go) => setTimeout(go, 60))
    }
  }
  /** Somebody types there: a letter is a letter. */
  const typing = (e: KeyboardEvent) =>
    e.target instanceof HTMLInputElement ||
    e.target instanceof HTMLTextAreaElement ||
    e.target instanceof HTMLSelectElement

  // Undo and redo as everywhere on the web; inside an entry that is being
  // typed they stay the entry's own.
  function key(e: KeyboardEvent) {
    if (!session || e.altKey || typing(e) || e.defaultPrevented) return
    const k = e.key.toLowerCase()
    if (e.ctrlKey || e.metaKey) {
      if (k === 'z' && !e.shiftKey) void session.store.undo()
      else if (k === 'y' || (k === 'z' && e.shiftKey)) void session.store.redo()
      else return
    } else if (!layout.keys) return
    else if (k === '?') session.nav.keys = true
    else if (stages[Number(k) - 1]) {
      session.nav.stage = stages[Number(k) - 1]!.id
      layout.makeRoom()
    } else if (k === ',') layout.step(-1)
    else if (k === '.') layout.step(1)
    else if (k === 'f') layout.set({ findings: !layout.findings })
    else return
    e.preventDefault()
  }
</script>

<svelte:window onkeydown={key} />

<div class="flex flex-col lg:h-dvh">
  {#if session}
    <nav aria-label={msg.job_page_skip} class="skip">
      <a href="#bench-{session.nav.stage}" onclick={skip}>{msg.job_page_to_the_work}</a>
      <a href="#drawing" onclick={skip}>{msg.job_page_to_the_drawing}</a>
      <a href="#run-length" onclick={toLength}>{msg.job_page_to_the_run_s_length}</a>
    </nav>
  {/if}
  <Masthead slim={!!session}>
    {#if session}<JobBar {session} />{/if}
  </Masthead>
  {#if trouble}
    <main class="mx-auto max-w-xl p-6">
      <h1 class="text-2xl font-bold">{trouble.title}</h1>
      <p class="mt-2">{trouble.detail}</p>
      <p class="mt-4 flex flex-wrap gap-2">
        <button class="btn btn-main" onclick={() => open(params.id)}>{msg.common_try_again}</button>
        <a class="btn" href="/">{msg.common_all_jobs}</a>
      </p>
    </main>
  {:else if unplannable}
    <Later
      load={() => import('./ReadOnly.svelte')}
      name={msg.job_page_the_job}
      props={{ job: unplannable, onchanged: () => open(params.id) }}
    />
  {:else if session && view}
    <SavingNotice {session} />
    <main class="flex min-h-0 flex-1 flex-col">
      {#key session}<Drawings {session} {view} map={mapView!} />{/key}
      {#if session.plan.runs.length > 1}<div class="lg:hidden"><RunBar {session} /></div>{/if}
      <div class="flex min-h-0 flex-1 flex-col" id="bench" tabindex="-1">
        <Bench {session} {view} bind:stage={session.nav.stage} />
      </div>
    </main>
    <Patterns />
    {#if asking.asked}
      <Later load={() => import('../parts/WhyPopover.svelte')} props={{ session }} />
    {/if}
    {#if session.nav.keys}
      <Later load={() => import('./Keys.svelte')} name={msg.job_page_the_keys} props={{ session }} />
    {/if}
    {#if session.store.theirs}
      <Later load={() => import('./Conflict.svelte')} props={{ session }} />
    {/if}
  {:else}
    <p class="p-6 text-pencil" aria-busy="true">{msg.job_page_opening_the_job}</p>
  {/if}
</div>
