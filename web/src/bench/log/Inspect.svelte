<script lang="ts">
  // What is looked at before leaving: each post as it was measured, from above and from the
  // side, drawn larger than it is; the fence as the eye sees it from both ends; the worst of
  // each kind; what is still to do; when to come back; and where posts really stand, as files.
  import Download from '@lucide/svelte/icons/download'
  import Printer from '@lucide/svelte/icons/printer'
  import Picture from '../../drawing/Picture.svelte'
  import type { View } from '../../drawing/view.svelte'
  import type { Log } from '../../gen/api'
  import { scrolls } from '../../lib/scrolls'
  import { goTo } from '../../lib/log'
  import type { Session } from '../../lib/session.svelte'
  import FileLink from '../../parts/FileLink.svelte'
  import Fraction from '../../parts/Fraction.svelte'
  import Words from '../../parts/Words.svelte'
  import * as msg from '../../gen/messages'

  let { session, view, log }: { session: Session; view: View; log: Log } = $props()
  const units = $derived(session.units)
  const name = $derived(session.run.name || session.run.id)
  const runName = (id: string) => session.plan.runs.find((r) => r.id === id)?.name || id
  const day = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeZone: 'UTC' })

  const go = (run: string, post: string) => goTo(session, view, run, post)
</script>

<div class="grid gap-4" data-testid="inspect">
  <p class="text-pencil">{msg.log_inspect_says}</p>
  <div {@attach scrolls} class="relative overflow-x-auto border border-line bg-sheet">
    <div class="min-w-160">
      <Picture
        {session}
        view={{ of: 'strips' }}
        wide={1400}
        tall={230}
        label={msg.log_strips_of({ run: name })}
        of="elevation"
      />
    </div>
  </div>
  <div class="grid grid-cols-2 gap-3">
    {#each [false, true] as fromEnd (fromEnd)}
      <div class="border border-line bg-sheet">
        <Picture
          {session}
          view={{ of: 'along', fromEnd, closer: 1, aside: 100, back: 3000 }}
          wide={620}
          tall={190}
          label={fromEnd ? msg.log_sight_last({ run: name }) : msg.log_sight_first({ run: name })}
          of="along"
        />
      </div>
    {/each}
  </div>
  <div class="grid gap-x-8 gap-y-4 lg:grid-cols-2">
    <section aria-labelledby="log-worst" class="grid content-start gap-1">
      <h2 id="log-worst" class="font-bold">{msg.log_worst}</h2>
      {#if !log.worst.length}<p class="text-pencil">{msg.log_nothing_measured}</p>{/if}
      {#each log.worst as w (w.what)}
        <button
          class="btn h-auto justify-start gap-3 py-1.5 text-left"
          data-worst={w.what}
          onclick={() => go(w.run, w.post)}
          ><strong class="min-w-10 text-[1.1rem]">{w.label}</strong>
          <span class="leading-snug font-normal"
            ><Words says={w.says} {units} />
            <span class="text-pencil"
              >{msg.log_let_go_up_to} <Fraction mm={w.allowed} {units} />. {runName(w.run)}</span
            ></span
          ></button
        >
      {/each}
    </section>
    <section aria-labelledby="log-punch" class="grid content-start gap-1">
      <h2 id="log-punch" class="font-bold">{msg.log_punch}</h2>
      {#if !log.punch.length}<p class="text-pencil">{msg.log_punch_none}</p>{/if}
      <ul class="list-disc pl-5">
        {#each log.punch.slice(0, 60) as p, i (i)}<li>
            {runName(p.run)}: <Words says={p.says} {units} />
          </li>{/each}
      </ul>
      {#if log.punch.length > 60}<p class="text-pencil">
          {msg.log_punch_more({ count: log.punch.length - 60 })}
        </p>{/if}
      {#each log.later as l (l.id)}<p>
          <strong>{day.format(new Date(l.date))}</strong>
          <Words says={l.says} {units} />
        </p>{/each}
    </section>
  </div>
  <div class="flex flex-wrap gap-2">
    <FileLink {session} what="pdf" sheet="handover" class="btn"
      ><Printer size={18} aria-hidden="true" />{msg.log_print_handover}</FileLink
    >
    <FileLink {session} what="asbuilt" class="btn"
      ><Download size={18} aria-hidden="true" />{msg.log_as_built_csv}</FileLink
    >
    <FileLink {session} what="dxf" view="asbuilt" class="btn"
      ><Download size={18} aria-hidden="true" />{msg.log_as_built_dxf}</FileLink
    >
    {#if session.value('/site/place') !== undefined}<FileLink
        {session}
        what="geojson"
        view="asbuilt"
        class="btn"><Download size={18} aria-hidden="true" />{msg.log_as_built_geojson}</FileLink
      >{/if}
    {#if log.later.length}<FileLink {session} what="ics" class="btn"
        ><Download size={18} aria-hidden="true" />{msg.log_reminders}</FileLink
      >{/if}
  </div>
</div>
