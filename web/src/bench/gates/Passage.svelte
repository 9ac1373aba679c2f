<script lang="ts">
  // Who goes through, the road before it, and what is kept behind it.
  import { wrongSays } from '../../lib/wrong'
  import type { PlannedGate, Vehicle } from '../../gen/api'
  import type { Session } from '../../lib/session.svelte'
  import { short } from '../../lib/tape'
  import Choice from '../../parts/Choice.svelte'
  import Fraction from '../../parts/Fraction.svelte'
  import TapeEntry from '../../parts/TapeEntry.svelte'
  import LengthField from '../LengthField.svelte'

  let { session, gate }: { session: Session; gate: PlannedGate } = $props()
  const units = $derived(session.units)
  const name = $derived(gate.name || gate.id)
  const at = (field: string) => `${gate.path}/${field}`
  const set = (field: string, value: unknown, what: string) =>
    session.commit([{ path: at(field), value }], what)
  const vehicle = $derived(session.value<Vehicle>(at('vehicle')))
  const err = (field: string) => {
    const e = session.errorAt(at(field))
    return e ? wrongSays(e) : ''
  }
  const marked = (field: 'pool' | 'animals') => session.value<boolean>(at(field)) ?? false
</script>

<div class="grid max-w-5xl gap-x-8 gap-y-5 md:grid-cols-2">
  <section class="grid min-w-0 grid-cols-1 content-start gap-3" aria-labelledby="through">
    <h2 id="through" class="font-bold">Through it</h2>
    <Choice
      label="Who goes through"
      value={gate.use}
      options={session.catalogue.choices['gates/use']!}
      onpick={(v) => set('use', v, `${name} is for ${v === 'walk' ? 'people' : 'vehicles'}`)}
    />
    <div class="grid grid-cols-2 items-start gap-2">
      <TapeEntry
        label="Longest vehicle"
        field="vehicle/length"
        {units}
        optional
        value={vehicle?.length}
        error={err('vehicle/length')}
        oncommit={(mm) =>
          mm === null
            ? set('vehicle', null, `${name}: no vehicle`)
            : set('vehicle', { ...vehicle, length: mm }, `${name}: vehicle ${short(mm, units)}`)}
      />
      {#if vehicle}
        <LengthField {session} path={at('vehicle/trailer')} label="Trailer" optional />
        <LengthField {session} path={at('vehicle/width')} label="Widest that goes through" optional />
      {/if}
    </div>
    <p>
      Clear opening past the open {gate.leaves.length > 1 ? 'leaves' : 'leaf'}:
      <strong><Fraction mm={gate.clear} {units} /></strong>.
    </p>
  </section>
  <section class="grid min-w-0 grid-cols-1 content-start gap-3" aria-labelledby="road">
    <h2 id="road" class="font-bold">The road and what stands near</h2>
    <div class="grid grid-cols-2 items-start gap-2">
      <LengthField {session} path={at('road')} label="Line to kerb or road" optional hint="outside" />
      <LengthField {session} path={at('roomIn')} label="Line to a wall" optional hint="inside; empty: open" />
    </div>
    {#if gate.setBack}
      {@const b = gate.setBack}
      <p class={b.road && b.needed > b.road ? 'text-stop' : ''} data-testid="set-back">
        To stand clear of the road while the gate is opened, the vehicle needs
        <strong><Fraction mm={b.needed} {units} /></strong>{#if b.road}; there are
          <Fraction mm={b.road} {units} />{/if}.
      </p>
    {/if}
    <Choice
      label="The fenced side, walking along {session.line.name || session.line.id}, is on the"
      value={session.line.inside}
      options={[
        { value: 'left', name: 'left' },
        { value: 'right', name: 'right' },
      ]}
      onpick={(v) => session.commit([{ path: session.lineAt('/inside'), value: v }], `Inside is on the ${v}`)}
    />
  </section>
  <section class="grid min-w-0 grid-cols-1 content-start gap-2" aria-labelledby="care">
    <h2 id="care" class="font-bold">Water and animals</h2>
    {#each [{ id: 'pool' as const, words: 'It is in a barrier round a pool or pond', says: 'Opens away from the water, closes and latches by itself, latch out of reach, nothing to climb on or slip under. Lives hang on it: only the local code counts.' }, { id: 'animals' as const, words: 'Animals are kept behind it', says: 'Opposed pins, so that none lifts it off; a latch that none noses open; no gap that one creeps through.' }] as o (o.id)}
      <label class="flex min-h-11 items-start gap-2 border border-line bg-sheet px-3 py-2">
        <input
          type="checkbox"
          class="mt-1 size-5 shrink-0 accent-(--mallow)"
          checked={marked(o.id)}
          onchange={(e) =>
            set(
              o.id,
              e.currentTarget.checked || null,
              `${name}: ${o.words.toLowerCase()}${e.currentTarget.checked ? '' : ', no more'}`,
            )}
        />
        <span
          ><span class="font-semibold">{o.words}</span><span class="block text-[0.92rem] text-pencil"
            >{o.says}</span
          ></span
        >
      </label>
    {/each}
  </section>
</div>
