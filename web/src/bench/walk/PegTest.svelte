<script lang="ts">
  // The two-peg test: is the level true, and by how much is it out.
  import { Dialog } from 'bits-ui'
  import Crosshair from '@lucide/svelte/icons/crosshair'
  import type { PegTest } from '../../gen/api'
  import { api, Refused } from '../../lib/api'
  import { at } from '../../lib/doc'
  import type { Session } from '../../lib/session.svelte'
  import { wrongSays } from '../../lib/wrong'
  import Fraction from '../../parts/Fraction.svelte'
  import TapeEntry from '../../parts/TapeEntry.svelte'
  import * as msg from '../../gen/messages'

  let { session, page }: { session: Session; page: string | undefined } = $props()
  const units = $derived(session.units)
  type Key = 'midA' | 'midB' | 'endA' | 'endB' | 'farA' | 'farB'
  const names: Record<Key, string> = {
    midA: msg.peg_test_peg_a_from_midway,
    midB: msg.peg_test_peg_b_from_midway,
    endA: msg.peg_test_peg_a_from_beyond_a,
    endB: msg.peg_test_peg_b_from_beyond_a,
    farA: msg.peg_test_from_there_to_a,
    farB: msg.peg_test_from_there_to_b,
  }
  const keys = Object.keys(names) as Key[]
  let open = $state(false)
  let values = $state<Partial<Record<Key, number>>>({})
  let result = $state.raw<PegTest | null>(null)
  let trouble = $state('')
  let stop = new AbortController()

  async function judge() {
    result = null
    if (!keys.every((k) => values[k] !== undefined)) return
    try {
      result = await api.pegs(values as Record<Key, number>)
      trouble = ''
    } catch (e) {
      const f = e instanceof Refused ? e.problem.fields?.[0] : undefined
      trouble = f ? wrongSays(f) : e instanceof Error ? e.message : String(e)
    }
  }
  async function readThem() {
    values = {}
    trouble = ''
    stop = new AbortController()
    try {
      await api.walkPegs(stop.signal, (r) => {
        values[r.name] = r.reading
        if (r.name === 'endA') values.farA = r.sight
        if (r.name === 'endB') values.farB = r.sight
      })
      await judge()
    } catch (e) {
      trouble = e instanceof Error ? e.message : String(e)
    }
  }
  function correct() {
    session.commit(
      [{ path: at(session.lineAt('/books'), page!, 'tilt'), value: Math.round(result!.tilt * 1e4) / 1e4 }],
      'Page corrected by the two-peg test',
    )
    open = false
  }
</script>

<Dialog.Root bind:open onOpenChange={(o) => !o && stop.abort()}>
  <Dialog.Trigger class="btn justify-start"
    ><Crosshair size={18} aria-hidden="true" />{msg.peg_test_two_peg_test}</Dialog.Trigger
  >
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-40 bg-black/50" />
    <Dialog.Content
      class="fixed top-1/2 left-1/2 z-50 max-h-[92dvh] w-[min(34rem,calc(100vw-1.5rem))] -translate-x-1/2 -translate-y-1/2 overflow-auto border border-ink bg-sheet p-5 text-ink"
    >
      <Dialog.Title class="text-xl font-bold">{msg.peg_test_two_peg_test}</Dialog.Title>
      <Dialog.Description class="mt-1 text-pencil">
        {msg.peg_test_midway_between_two_pegs_a}
      </Dialog.Description>
      <div class="mt-3 grid grid-cols-2 gap-3">
        {#each keys as k (k)}
          <TapeEntry
            label={names[k]}
            field="reading"
            optional
            {units}
            value={values[k]}
            oncommit={(mm) => {
              values[k] = mm ?? undefined
              void judge()
            }}
          />
        {/each}
      </div>
      <button class="btn mt-3" onclick={readThem}>{msg.peg_test_read_them_with_the_simulated}</button>
      {#if trouble}<p class="mt-2 font-medium text-stop" role="alert">{trouble}</p>{/if}
      {#if result}
        <div
          class="mt-3 border-l-4 px-3 py-2 {result.passes ? 'border-l-good' : 'border-l-warn bg-warn-wash'}"
          data-testid="peg-result"
        >
          <p class="text-[1.1rem]">
            {msg.peg_test_the_sight({ v1: result.tilt >= 0 ? msg.peg_test_climbs : msg.peg_test_falls })}
            <strong>{msg.peg_test_mm_in_each_metre({ v1: Math.abs(result.tilt).toFixed(3) })}</strong>:
            <strong><Fraction mm={Math.abs(result.atThirty)} {units} /></strong>
            {msg.peg_test_at_30_m_100_ft}
          </p>
          <p class="mt-1">
            {result.passes
              ? msg.peg_test_within_what_a_builders_level
              : msg.peg_test_more_than_a_builders_level}
          </p>
        </div>
      {/if}
      <div class="mt-4 flex flex-wrap gap-2">
        {#if result && page !== undefined}
          <button class="btn btn-main" onclick={correct}>{msg.peg_test_correct_the_open_page_by}</button>
        {/if}
        <Dialog.Close class="btn">{msg.common_close}</Dialog.Close>
      </div>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
