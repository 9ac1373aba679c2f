<script lang="ts">
  // The record: how far the work is, how far the bags last, and post by post what was
  // written down.
  import type { View } from '../../drawing/view.svelte'
  import type { Log } from '../../gen/api'
  import { goTo, marks } from '../../lib/log'
  import { choiceName } from '../../lib/names'
  import type { Session } from '../../lib/session.svelte'
  import { short } from '../../lib/tape'
  import Words from '../../parts/Words.svelte'
  import Download from '@lucide/svelte/icons/download'
  import Printer from '@lucide/svelte/icons/printer'
  import FileLink from '../../parts/FileLink.svelte'
  import DayRecord from './DayRecord.svelte'
  import Pager from '../Pager.svelte'
  import { pageOf } from '../page'
  import * as msg from '../../gen/messages'

  let { session, view, log }: { session: Session; view: View; log: Log } = $props()
  const units = $derived(session.units)
  const seen = $derived(
    log.posts.filter((p) => p.stage > 0 || p.when || p.notes.length || p.deviations.length),
  )
  let page = $state(0)
  let days = $state(3)
  const b = $derived(log.bags)
  const length = (mm: number | undefined) => (mm === undefined ? '' : short(mm, units))
  const hit = (p: Log['posts'][number]) =>
    p.hit ? `${choiceName(p.hit, 'observed/what')} ${length(p.hitAt)}` : ''

  const go = (run: string, post: string) => goTo(session, view, run, post)
</script>

<div class="grid gap-3" data-testid="record">
  <p class="font-medium">
    {msg.log_counts({
      staked: log.staked,
      dug: log.dug,
      set: log.set,
      poured: log.poured,
      built: log.built,
      posts: log.posts.length,
    })}
  </p>
  {#if b}<p>
      {msg.log_bags({
        used: b.used.toFixed(1),
        holes: b.holes,
        planned: b.planned.toFixed(1),
        bought: b.bought,
        expect: b.expect.toFixed(1),
      })}
    </p>{/if}
  {#each log.paces as p (p.what)}<p data-pace={p.what}>
      {msg.log_pace({
        what: choiceName(p.what, 'observed/what'),
        minutes: Math.round(p.minutes),
        plan: Math.round(p.planned),
        posts: p.posts,
        left: p.left,
        hours: p.hours.toFixed(1),
      })}
    </p>{/each}
  {#each log.findings.filter((f) => f.rule !== 'record-off') as f, i (i)}
    <p class="border-l-4 border-l-warn bg-sheet px-3 py-1.5"><Words says={f.says} {units} /></p>
  {/each}
  {#if log.days.length}<div class="flex flex-wrap gap-2">
      <FileLink {session} what="pdf" sheet="records" class="btn"
        ><Printer size={18} aria-hidden="true" />{msg.log_print_record}</FileLink
      >
      <FileLink {session} what="record" class="btn"
        ><Download size={18} aria-hidden="true" />{msg.log_record_csv}</FileLink
      >
      {#if log.days.some((d) => d.notes.some((n) => n.photo))}<a
          class="btn"
          download
          href={`/api/jobs/${session.id}/photos.zip`}
          ><Download size={18} aria-hidden="true" />{msg.log_photos_zip}</a
        >{/if}
    </div>{/if}
  {#each log.days.slice().reverse().slice(0, days) as d (d.date)}<DayRecord {session} day={d} />{/each}
  {#if log.days.length > days}<button class="btn" onclick={() => (days += 10)}
      >{msg.log_earlier({ count: log.days.length - days })}</button
    >{/if}
  {#if log.cut.length}<p>
      {msg.log_cut_fits({ fits: log.cut.filter((c) => c.fits).length, count: log.cut.length })}
    </p>{/if}
  {#if !seen.length}<p class="text-pencil">{msg.log_nothing_written}</p>{:else}
    <div class="overflow-x-auto">
      <table class="min-w-full border-collapse text-left">
        <thead>
          <tr class="border-b border-ink">
            {#each [msg.common_post, msg.log_so_far, msg.log_depth, msg.log_off_string, msg.log_plumb_along, msg.log_plumb_across, msg.log_met, msg.common_bags_2, msg.log_note] as h (h)}<th
                class="px-2 py-1 font-semibold">{h}</th
              >{/each}
          </tr>
        </thead>
        <tbody>
          {#each pageOf(seen, page) as { row: p } (p.id)}
            <tr class="border-b border-rule">
              <td class="p-0"
                ><button class="btn btn-plain font-bold" onclick={() => go(p.run, p.id)}>{p.label}</button
                ></td
              >
              <td class="px-2">{p.stage ? choiceName(marks[p.stage - 1]!, 'observed/what') : ''}</td>
              <td class="px-2 whitespace-nowrap">{length(p.depth)}</td>
              <td class="px-2 whitespace-nowrap">{length(p.off)}</td>
              <td class="px-2 whitespace-nowrap">{length(p.plumb)}</td>
              <td class="px-2 whitespace-nowrap">{length(p.across)}</td>
              <td class="px-2 whitespace-nowrap">{hit(p)}</td>
              <td class="px-2">{p.bags ?? ''}</td>
              <td class="px-2">{p.notes.join('; ')}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
    <Pager count={seen.length} {page} onpage={(n) => (page = n)} />
  {/if}
</div>
