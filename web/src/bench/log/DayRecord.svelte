<script lang="ts">
  // The record of one day: done, found, used, weather, hours.
  import type { Daily } from '../../gen/api'
  import { wayName } from '../../lib/log'
  import { choiceName } from '../../lib/names'
  import type { Session } from '../../lib/session.svelte'
  import Photo from './Photo.svelte'
  import Words from '../../parts/Words.svelte'
  import * as msg from '../../gen/messages'

  let { session, day }: { session: Session; day: Daily } = $props()
  const units = $derived(session.units)
  const runName = (id: string) => session.plan.runs.find((r) => r.id === id)?.name || id
  const date = new Intl.DateTimeFormat(undefined, { dateStyle: 'full', timeZone: 'UTC' })
  const photos = $derived(day.notes.filter((n) => n.photo))
  const within = $derived(day.found.filter((f) => f.state === 'let go').length)
</script>

<section class="grid gap-1 border-t border-rule pt-2" data-day={day.date}>
  <h3 class="font-bold">
    {date.format(new Date(day.date))}
    <span class="font-normal text-pencil"
      >{msg.log_day_from({ from: day.from, to: day.to })}{day.who.length
        ? `, ${day.who.join(', ')}`
        : ''}{day.low !== undefined && day.high !== undefined
        ? `, ${units.system === 'metric' ? `${Math.round(day.low)} – ${Math.round(day.high)} °C` : `${Math.round(day.low * 1.8 + 32)} – ${Math.round(day.high * 1.8 + 32)} °F`}`
        : ''}</span
    >
  </h3>
  {#each day.done as d, i (i)}<p>
      <strong>{choiceName(d.what, 'observed/what')}</strong>: {runName(d.run)}
      {d.gate ?? d.posts.join(' ')}
    </p>{/each}
  {#each day.found.filter((f) => f.state !== 'let go') as f, i (i)}<p
      class="border-l-4 {f.state === 'open' ? 'border-l-warn' : 'border-l-line'} pl-2"
    >
      {runName(f.run)}: <Words says={f.says} {units} />
      {#if f.way}<span class="text-pencil">{msg.log_way({ way: wayName(session, f.way) })}</span>{/if}
    </p>{/each}
  {#if within}<p class="text-pencil">{msg.log_day_within({ count: within })}</p>{/if}
  {#if day.holes}<p>{msg.log_day_bags({ bags: day.bags.toFixed(1), holes: day.holes })}</p>{/if}
  {#each day.notes.filter((n) => n.says) as n, i (i)}<p>{n.on ? `${n.on}: ` : ''}“{n.says}”</p>{/each}
  {#if photos.length}<div class="flex flex-wrap gap-1">
      {#each photos as n (n.photo)}<Photo
          {session}
          id={n.photo!}
          label={n.on || ''}
          size="h-20 w-20"
        />{/each}
    </div>{/if}
</section>
