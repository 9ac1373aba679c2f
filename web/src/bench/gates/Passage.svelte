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
  import * as msg from '../../gen/messages'

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
    <h2 id="through" class="font-bold">{msg.passage_through_it}</h2>
    <Choice
      label={msg.passage_who_goes_through}
      value={gate.use}
      options={session.catalogue.choices['gates/use']!}
      onpick={(v) =>
        set('use', v, `${name} is for ${v === 'walk' ? msg.passage_people : msg.passage_vehicles}`)}
    />
    <div class="grid grid-cols-2 items-start gap-2">
      <TapeEntry
        label={msg.passage_longest_vehicle}
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
        <LengthField {session} path={at('vehicle/trailer')} label={msg.passage_trailer} optional />
        <LengthField
          {session}
          path={at('vehicle/width')}
          label={msg.passage_widest_that_goes_through}
          optional
        />
      {/if}
    </div>
    <p>
      {msg.passage_clear_opening_past_the_open({
        v1: gate.leaves.length > 1 ? msg.passage_leaves : msg.passage_leaf,
      })}
      <strong><Fraction mm={gate.clear} {units} /></strong>.
    </p>
  </section>
  <section class="grid min-w-0 grid-cols-1 content-start gap-3" aria-labelledby="road">
    <h2 id="road" class="font-bold">{msg.passage_the_road_and_what_stands}</h2>
    <div class="grid grid-cols-2 items-start gap-2">
      <LengthField
        {session}
        path={at('road')}
        label={msg.passage_line_to_kerb_or_road}
        optional
        hint={msg.passage_outside}
      />
      <LengthField
        {session}
        path={at('roomIn')}
        label={msg.passage_line_to_a_wall}
        optional
        hint={msg.passage_inside_empty_open}
      />
    </div>
    {#if gate.setBack}
      {@const b = gate.setBack}
      <p class={b.road && b.needed > b.road ? 'text-stop' : ''} data-testid="set-back">
        {msg.passage_to_stand_clear_of_the}
        <strong><Fraction mm={b.needed} {units} /></strong>{#if b.road}{msg.passage_there_are}
          <Fraction mm={b.road} {units} />{/if}.
      </p>
    {/if}
    <Choice
      label={msg.passage_the_fenced_side_walking_along({ v1: session.line.name || session.line.id })}
      value={session.line.inside}
      options={[
        { value: 'left', name: msg.common_to_the_left },
        { value: 'right', name: msg.common_to_the_right },
      ]}
      onpick={(v) =>
        session.commit(
          [{ path: session.lineAt('/inside'), value: v }],
          msg.passage_inside_is_on_the({ v1: v }),
        )}
    />
  </section>
  <section class="grid min-w-0 grid-cols-1 content-start gap-2" aria-labelledby="care">
    <h2 id="care" class="font-bold">{msg.passage_water_and_animals}</h2>
    {#each [{ id: 'pool' as const, words: msg.passage_it_is_in_a_barrier, says: msg.passage_opens_away_from_the_water }, { id: 'animals' as const, words: msg.passage_animals_are_kept_behind_it, says: msg.passage_opposed_pins_so_that_none }] as o (o.id)}
      <label class="flex min-h-11 items-start gap-2 border border-line bg-sheet px-3 py-2">
        <input
          type="checkbox"
          class="mt-1 size-5 shrink-0 accent-(--mallow)"
          checked={marked(o.id)}
          onchange={(e) =>
            set(
              o.id,
              e.currentTarget.checked || null,
              `${name}: ${o.words.toLowerCase()}${e.currentTarget.checked ? '' : msg.passage_no_more}`,
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
