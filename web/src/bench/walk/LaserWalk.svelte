<script lang="ts">
  // The simulated level with its digital rod walks the line; readings come in
  // one by one and stand in the field book as they come.
  import { wrongSays } from '../../lib/wrong'
  import { onDestroy } from 'svelte'
  import Square from '@lucide/svelte/icons/square'
  import Footprints from '@lucide/svelte/icons/footprints'
  import type { Book, BookRow, WalkReading } from '../../gen/api'
  import { api, Refused } from '../../lib/api'
  import type { Session } from '../../lib/session.svelte'
  import Fraction from '../../parts/Fraction.svelte'
  import TapeEntry from '../../parts/TapeEntry.svelte'
  import * as msg from '../../gen/messages'

  interface Props {
    session: Session
    id: () => string
    onpage: (id: string) => void
  }
  let { session, id, onpage }: Props = $props()
  const units = $derived(session.units)
  let chosen = $state<number | undefined>(undefined)
  const every = $derived(chosen ?? (units.system === 'metric' ? 3000 : 10 * 304.8))
  let latest = $state.raw<WalkReading | null>(null)
  let walking = $state(false)
  let trouble = $state('')
  let stop = new AbortController()

  async function walk() {
    trouble = ''
    walking = true
    stop = new AbortController()
    const before = session.value<Book[]>(session.lineAt('/books')) ?? []
    const path = session.lineAt('/books')
    const page: Book = { id: id(), kind: 'rod', name: msg.laser_walk_laser_walk, rows: [] }
    let rows: BookRow[] = []
    const value = () => [...before, { ...page, rows }]
    try {
      await api.walk({ doc: session.doc, line: session.line.id, every }, stop.signal, (r) => {
        latest = r
        rows = [...rows.slice(0, r.row), { id: `w${r.row + 1}`, ...r.entry }]
        session.preview([{ path, value: value() }], true)
        if (r.number === 1) onpage(page.id)
      })
    } catch (e) {
      const f = e instanceof Refused ? e.problem.fields?.[0] : undefined
      trouble = f ? wrongSays(f) : e instanceof Error ? e.message : String(e)
    } finally {
      walking = false
      latest = null
      // What was read stays, also when the walk was stopped half way.
      if (rows.length)
        session.commit([{ path, value: value() }], msg.laser_walk_laser_walk_points({ count: rows.length }))
    }
  }
  onDestroy(() => stop.abort())
</script>

<div class="grid gap-1.5">
  <TapeEntry
    label={msg.laser_walk_a_reading_every}
    field="every"
    {units}
    value={every}
    disabled={walking}
    oncommit={(mm) => (chosen = mm ?? undefined)}
  />
  {#if walking}
    <button class="btn" onclick={() => stop.abort()}
      ><Square size={18} aria-hidden="true" />{msg.laser_walk_stop_keep_what_is_read}</button
    >
    {#if latest}
      <p aria-live="off" data-testid="live-reading">
        {msg.laser_walk_of({ v1: latest.number, of: latest.of })}
        <strong><Fraction mm={latest.reading} {units} /></strong>
        {latest.stop.look}, <Fraction mm={latest.sight} {units} />
        {msg.laser_walk_away}
      </p>
      <progress class="h-2 w-full accent-(--mallow)" max={latest.of} value={latest.number}></progress>
    {/if}
  {:else}
    <button class="btn justify-start" disabled={!session.lineRuns.some((r) => r.length)} onclick={walk}
      ><Footprints size={18} aria-hidden="true" />{msg.laser_walk_walk_the_line_with_it}</button
    >
  {/if}
  {#if trouble}<p class="font-medium text-stop" role="alert">{trouble}</p>{/if}
</div>
