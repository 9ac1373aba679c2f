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
  import * as msg from '../gen/messages'

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
      <a class="btn btn-plain" href="/jobs/{params.id}">{msg.string_sheet_back_to_the_job}</a>
      <span class="flex-1"></span>
      <button class="btn btn-main" onclick={() => window.print()}
        ><Printer size={18} aria-hidden="true" />{msg.common_print}</button
      >
    {/if}
  </Masthead>
</div>
{#if trouble}
  <main class="mx-auto max-w-xl p-6">
    <h1 class="text-2xl font-bold">{msg.string_sheet_this_sheet_cannot_be_drawn}</h1>
    <p class="mt-2">{trouble}</p>
  </main>
{:else if session && run}
  <Patterns />
  {@const units = session.units}
  <main class="sheet mx-auto my-4 max-w-[46rem] bg-white p-5 text-black print:m-0 print:max-w-none print:p-0">
    <header class="flex items-start justify-between gap-4 border-b-2 border-black pb-1">
      <div>
        <h1 class="text-[1.3rem] leading-tight font-bold">
          {msg.string_sheet_strings({ doc: session.doc.name })}
        </h1>
        <p>
          {session.line.name ? `${session.line.name}, ` : ''}{run.name || run.id},
          <strong><Fraction mm={run.length} {units} long /></strong> · {today}
        </p>
      </div>
      {#if !session.plan.before.ready}
        <p class="border-3 border-black px-3 py-1 text-[1.15rem] font-bold" data-testid="not-cleared">
          {msg.string_sheet_not_cleared_to_dig}
        </p>
      {/if}
    </header>
    <div class="mt-2">
      <Picture
        {session}
        view={{ of: 'map', stress: 'string' }}
        wide={W}
        tall={400}
        label={msg.string_sheet_the_line_from_above_with}
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
          label={msg.string_sheet_the_run_from_the_side}
          of="elevation"
        />
      </div>
      <section class="mt-2 text-[1.12rem] leading-snug">
        {#if s.sight}
          <p>
            <strong>{msg.string_sheet_by_sight}</strong>
            {msg.string_sheet_set_then_the_rest_in({ v1: s.order.slice(0, 2).join(' and ') })}
            <strong>{s.target}</strong>{msg.string_sheet_sight_mark}
            <strong><Fraction mm={s.mark} {units} /></strong>
            {msg.common_below_the_tops}
          </p>
        {:else}
          <p>
            {msg.common_hold} <strong class="text-[1.4rem]"><Fraction mm={s.toFace} {units} /></strong>
            {msg.string_sheet_from_the_string_to_the}
            <strong>{s.face}</strong>
            {msg.string_sheet_face_of_every_post}<Fraction mm={s.toCentre} {units} />
            {msg.string_sheet_to_its_centre_tied_to({ ends: s.ends })}
            <strong><Fraction mm={s.beyond} {units} /></strong>
            {msg.common_beyond_the_end_posts}
            <Fraction mm={session.value<number>(session.at('/string/low')) ?? 0} {units} />
            {msg.common_above_ground}
          </p>
        {/if}
        {#if !s.sight}
          <p>
            {msg.string_sheet_height_string} <strong><Fraction mm={s.mark} {units} /></strong>
            {msg.string_sheet_below_the_tops_it_sags({ kind: s.kind })}
            <strong><Fraction mm={s.sagPropped} {units} /></strong>{s.props
              ? msg.string_sheet_on({
                  props: s.props,
                  v2: s.props === 1 ? msg.common_prop : msg.common_props,
                })
              : msg.string_sheet_at_the_middle}.{#if s.drift > 0}&{msg.string_sheet_today_s_wind_pushes_the}
              <Fraction mm={s.drift} {units} />
              {msg.string_sheet_aside}{/if}
          </p>
        {/if}
        {#each run.reminders as r, i (i)}<p class="mt-0.5"><Words says={r.says} {units} /></p>{/each}
      </section>
      <h2 class="mt-3 font-bold">{msg.string_sheet_corners}</h2>
      <table class="w-full border-collapse">
        <thead
          ><tr class="border-b border-black text-left"
            ><th>{msg.common_corner}</th><th>{msg.common_turns}</th><th>{msg.string_sheet_leg}</th><th
              >{msg.string_sheet_leg}</th
            ><th>{msg.common_diagonal}</th></tr
          ></thead
        >
        <tbody>
          {#each session.line.corners.filter((c) => c.square) as c, i (i)}
            <tr class="border-b border-black/40">
              <td class="py-1 font-semibold"
                >{msg.string_sheet_to({
                  v1: session.plan.runs.find((r) => r.id === c.before)?.name ?? '',
                  v2: session.plan.runs.find((r) => r.id === c.after)?.name ?? '',
                })}</td
              >
              <td>{turnText(c)}</td>
              <td><Fraction mm={c.square!.legA} {units} long /></td>
              <td><Fraction mm={c.square!.legB} {units} long /></td>
              <td class="text-[1.15rem] font-bold"><Fraction mm={c.square!.diagonal} {units} long /></td>
            </tr>
          {/each}
        </tbody>
      </table>
      <h2 class="mt-3 font-bold">{msg.string_sheet_at_each_post_of({ v1: run.name || run.id })}</h2>
      <table class="w-full border-collapse">
        <thead
          ><tr class="border-b border-black text-left"
            ><th>{msg.common_post}</th><th>{msg.string_sheet_station}</th><th
              >{msg.common_low_string_above_ground}</th
            ><th
              >{msg.string_sheet_above_ground({
                v1: s.sight ? msg.string_sheet_line_of_sight : msg.string_sheet_height_string,
              })}</th
            ><th>{msg.string_sheet_mark_over_it}</th></tr
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
  <p class="p-6 text-pencil" aria-busy="true">{msg.string_sheet_drawing_the_sheet}</p>
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
