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

  let { session, page }: { session: Session; page: string | undefined } = $props()
  const units = $derived(session.units)
  type Key = 'midA' | 'midB' | 'endA' | 'endB' | 'farA' | 'farB'
  const names: Record<Key, string> = {
    midA: 'Peg A from midway',
    midB: 'Peg B from midway',
    endA: 'Peg A from beyond A',
    endB: 'Peg B from beyond A',
    farA: 'From there to A',
    farB: 'From there to B',
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
    ><Crosshair size={18} aria-hidden="true" />Two-peg test</Dialog.Trigger
  >
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-40 bg-black/50" />
    <Dialog.Content
      class="fixed top-1/2 left-1/2 z-50 max-h-[92dvh] w-[min(34rem,calc(100vw-1.5rem))] -translate-x-1/2 -translate-y-1/2 overflow-auto border border-ink bg-sheet p-5 text-ink"
    >
      <Dialog.Title class="text-xl font-bold">Two-peg test</Dialog.Title>
      <Dialog.Description class="mt-1 text-pencil">
        Midway between two pegs a tilted sight is out by as much on both, and cancels. From beyond one of them
        it does not: the difference is the tilt.
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
      <button class="btn mt-3" onclick={readThem}>Read them with the simulated level</button>
      {#if trouble}<p class="mt-2 font-medium text-stop" role="alert">{trouble}</p>{/if}
      {#if result}
        <div
          class="mt-3 border-l-4 px-3 py-2 {result.passes ? 'border-l-good' : 'border-l-warn bg-warn-wash'}"
          data-testid="peg-result"
        >
          <p class="text-[1.1rem]">
            The sight {result.tilt >= 0 ? 'climbs' : 'falls'}
            <strong>{Math.abs(result.tilt).toFixed(3)} mm in each metre</strong>:
            <strong><Fraction mm={Math.abs(result.atThirty)} {units} /></strong> at 30 m (100 ft).
          </p>
          <p class="mt-1">
            {result.passes
              ? 'Within what a builder’s level may be out, 1.5 mm (1/16 in) at 30 m.'
              : 'More than a builder’s level may be out, 1.5 mm (1/16 in) at 30 m: have it adjusted, keep the sights back and fore alike, or correct the page.'}
          </p>
        </div>
      {/if}
      <div class="mt-4 flex flex-wrap gap-2">
        {#if result && page !== undefined}
          <button class="btn btn-main" onclick={correct}>Correct the open page by it</button>
        {/if}
        <Dialog.Close class="btn">Close</Dialog.Close>
      </div>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
