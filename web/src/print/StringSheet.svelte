<script lang="ts">
  // The string picture on paper: the line from above with its strings, boards
  // and diagonals, the run from the side with its hanging string, and what to
  // hold at every post.
  import Printer from '@lucide/svelte/icons/printer'
  import { onMount, untrack } from 'svelte'
  import Patterns from '../drawing/Patterns.svelte'
  import Picture from '../drawing/Picture.svelte'
  import { Session } from '../lib/session.svelte'
  import { turnText } from '../lib/turn'
  import Fraction from '../parts/Fraction.svelte'
  import Masthead from '../parts/Masthead.svelte'
  import Words from '../parts/Words.svelte'

  let { params }: { params: { id: string; run: string } } = $props()
  const W = 720
  let session = $state.raw<Session | null>(null)
  let trouble = $state('')

  async function open(id: string, run: string) {
    try {
      const s = await Session.open(id)
      if (s.plan.runs.some((r) => r.id === run)) s.runID = run
      session = s
      document.title = `${s.doc.name}, strings · Mallow`
    } catch (e) {
      trouble = e instanceof Error ? e.message : String(e)
    }
  }
  $effect(() => {
    const { id, run } = params
    untrack(() => void open(id, run))
  })
  onMount(() => () => session?.close())
  const run = $derived(session?.run)
  const s = $derived(run?.string)
  const today = new Date().toLocaleDateString(undefined, { dateStyle: 'medium' })
</script>

<div class="print:hidden">
  <Masthead>
    {#if session}
      <a class="btn btn-plain" href="/jobs/{params.id}">Back to the job</a>
      <span class="flex-1"></span>
      <button class="btn btn-main" onclick={() => window.print()}
        ><Printer size={18} aria-hidden="true" />Print</button
      >
    {/if}
  </Masthead>
</div>
{#if trouble}
  <main class="mx-auto max-w-xl p-6">
    <h1 class="text-2xl font-bold">This sheet cannot be drawn</h1>
    <p class="mt-2">{trouble}</p>
  </main>
{:else if session && run}
  <Patterns />
  {@const units = session.units}
  <main class="sheet mx-auto my-4 max-w-[46rem] bg-white p-5 text-black print:m-0 print:max-w-none print:p-0">
    <header class="flex items-start justify-between gap-4 border-b-2 border-black pb-1">
      <div>
        <h1 class="text-[1.3rem] leading-tight font-bold">{session.doc.name}: strings</h1>
        <p>
          {session.line.name ? `${session.line.name}, ` : ''}{run.name || run.id},
          <strong><Fraction mm={run.length} {units} long /></strong> · {today}
        </p>
      </div>
      {#if !session.plan.before.ready}
        <p class="border-3 border-black px-3 py-1 text-[1.15rem] font-bold" data-testid="not-cleared">
          NOT CLEARED TO DIG
        </p>
      {/if}
    </header>
    <div class="mt-2">
      <Picture
        {session}
        view={{ of: 'map', stress: 'string' }}
        wide={W}
        tall={400}
        label="The line from above with its strings"
        of="map"
      />
    </div>
    {#if s}
      <div class="mt-1 border-y border-black">
        <Picture
          {session}
          view={{ of: 'elevation', stress: 'string' }}
          wide={W}
          tall={190}
          stretch={40}
          label="The run from the side with its hanging string"
          of="elevation"
        />
      </div>
      <section class="mt-2 text-[1.12rem] leading-snug">
        {#if s.sight}
          <p>
            <strong>By sight.</strong> Set {s.order.slice(0, 2).join(' and ')}, then the rest in order, each
            sighted along both sides to <strong>{s.target}</strong>. Sight mark
            <strong><Fraction mm={s.mark} {units} /></strong>
            below the tops.
          </p>
        {:else}
          <p>
            Hold <strong class="text-[1.4rem]"><Fraction mm={s.toFace} {units} /></strong> from the string to
            the
            <strong>{s.face}</strong> face of every post (<Fraction mm={s.toCentre} {units} /> to its centre). Tied
            to
            {s.ends} <strong><Fraction mm={s.beyond} {units} /></strong> beyond the end posts,
            <Fraction mm={session.value<number>(session.at('/string/low')) ?? 0} {units} /> above ground.
          </p>
        {/if}
        {#if !s.sight}
          <p>
            Height string <strong><Fraction mm={s.mark} {units} /></strong> below the tops. {s.kind}; it sags
            <strong><Fraction mm={s.sagPropped} {units} /></strong>{s.props
              ? ` on ${s.props} ${s.props === 1 ? 'prop' : 'props'}`
              : ' at the middle'}.{#if s.drift > 0}&#32;Today's wind pushes the low one <Fraction
                mm={s.drift}
                {units}
              /> aside.{/if}
          </p>
        {/if}
        {#each run.reminders as r, i (i)}<p class="mt-0.5"><Words says={r.says} {units} /></p>{/each}
      </section>
      <h2 class="mt-3 font-bold">Corners</h2>
      <table class="w-full border-collapse">
        <thead
          ><tr class="border-b border-black text-left"
            ><th>Corner</th><th>Turns</th><th>Leg</th><th>Leg</th><th>Diagonal</th></tr
          ></thead
        >
        <tbody>
          {#each session.line.corners.filter((c) => c.square) as c, i (i)}
            <tr class="border-b border-black/40">
              <td class="py-1 font-semibold"
                >{session.plan.runs.find((r) => r.id === c.before)?.name} to {session.plan.runs.find(
                  (r) => r.id === c.after,
                )?.name}</td
              >
              <td>{turnText(c)}</td>
              <td><Fraction mm={c.square!.legA} {units} long /></td>
              <td><Fraction mm={c.square!.legB} {units} long /></td>
              <td class="text-[1.15rem] font-bold"><Fraction mm={c.square!.diagonal} {units} long /></td>
            </tr>
          {/each}
        </tbody>
      </table>
      <h2 class="mt-3 font-bold">At each post of {run.name || run.id}</h2>
      <table class="w-full border-collapse">
        <thead
          ><tr class="border-b border-black text-left"
            ><th>Post</th><th>Station</th><th>Low string above ground</th><th
              >{s.sight ? 'Line of sight' : 'Height string'} above ground</th
            ><th>Mark over it</th></tr
          ></thead
        >
        <tbody>
          {#each s.posts as h, i (h.post)}
            {@const p = run.posts[i]!}
            <tr class="border-b border-black/40">
              <td class="py-0.5 font-semibold">{p.kind === 'line' ? p.label : `${p.label} ${p.kind}`}</td>
              <td><Fraction mm={p.station} {units} long /></td>
              <td
                >{#if s.sight}–{:else}<Fraction mm={h.low} {units} />{/if}</td
              >
              <td><Fraction mm={h.high} {units} /></td>
              <td class="font-bold"><Fraction mm={h.mark} {units} /></td>
            </tr>
          {/each}
        </tbody>
      </table>
    {/if}
  </main>
{:else}
  <p class="p-6 text-pencil" aria-busy="true">Drawing the sheet …</p>
{/if}

<style>
  /* Paper is black on white, whatever the screen shows. */
  .sheet {
    --ink: #000;
    --pencil: #000;
    --sheet: #fff;
    --paper: #fff;
    --line: #777;
    --rule: #999;
    --mallow: #000;
    --timber: #fff;
    --timber-edge: #000;
    --stop: #000;
    --service-electric: #000;
    --service-gas: #000;
    --service-telecom: #000;
    --service-water: #000;
    --service-irrigation: #000;
    --service-sewer: #000;
  }
  tr {
    break-inside: avoid;
  }
  @page {
    margin: 12mm;
  }
</style>
