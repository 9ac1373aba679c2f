<script lang="ts">
  // Frost, soil, wind and the crew: what the holes depend on.
  import { wrongSays } from '../../lib/wrong'
  import type { Session } from '../../lib/session.svelte'
  import { short } from '../../lib/tape'
  import Choice from '../../parts/Choice.svelte'
  import Fraction from '../../parts/Fraction.svelte'
  import NumberEntry from '../../parts/NumberEntry.svelte'
  import Pick from '../../parts/Pick.svelte'
  import HolePicture from './HolePicture.svelte'
  import LengthField from '../LengthField.svelte'
  import * as msg from '../../gen/messages'

  let { session }: { session: Session } = $props()
  const units = $derived(session.units)
  const metric = $derived(units.system === 'metric')
  const office = $derived(session.value<number>('/site/frostDepth'))
  const index = $derived(session.value<number>('/site/frost/index'))
  const soilID = $derived(session.value<string>(session.at('/soil')) ?? session.choice('/site/soil'))
  const soil = $derived(
    session.catalogue.soils.find((s) => s.id === soilID) ?? session.catalogue.soils.at(-1)!,
  )
  const crew = $derived(session.catalogue.supply.crew)
  /** Degree-days and pounds where the job is in feet. */
  const perDay = $derived(metric ? 1 : 1.8)
  const perDensity = $derived(metric ? 1 : 1 / 16.01846337396)
  const perVolume = $derived(metric ? 1 : 1 / 0.028316846592)

  function set(path: string, value: unknown, what: string) {
    session.commit([{ path, value }], what)
  }
  /** A number of the site that may be left empty, shown in `per` of its unit. */
  function number(path: string, per: number, name: string) {
    const value = session.value<number>(path)
    const error = session.errorAt(path)
    return {
      value: value === undefined ? undefined : Math.round(value * per * 100) / 100,
      oncommit: (n: number) => set(path, n / per, `${name} ${n}`),
      onclear: () => set(path, null, `${name} not set`),
      error: error ? wrongSays(error) : '',
    }
  }
  const estimate = $derived([
    {
      field: 'moisture',
      label: msg.site_water_in_the_soil,
      per: 1,
      hint: msg.site_usual_here({ moisture: soil.moisture }),
    },
    {
      field: 'density',
      label: msg.site_dry_density({ v1: metric ? msg.site_kg_m : msg.site_lb_ft }),
      per: perDensity,
      hint: msg.site_usual_here_2({ v1: (soil.density * perDensity).toFixed(0) }),
    },
    {
      field: 'conductivity',
      label: msg.site_conductivity_w_m_k,
      per: 1,
      hint: msg.site_usual_here_3({ conductivity: soil.conductivity }),
    },
    { field: 'surface', label: msg.site_surface_factor, per: 1, hint: msg.site_0_5_turf_and_snow },
    { field: 'lambda', label: msg.site_correction, per: 1, hint: msg.site_1_errs_on_the_deep },
  ])
  const line = $derived(
    session.run.posts.find((p) => p.kind === 'line' && p.card >= 0) ??
      session.run.posts.find((p) => p.card >= 0),
  )
  const taken = $derived(
    session.catalogue.soils.find((s) => s.id === session.usual('/site/soil'))?.name.toLowerCase() ?? '',
  )
  const soils = $derived(
    session.catalogue.soils.map((s) => ({
      value: s.id,
      name: msg.site_psf_ft({ v1: s.name, bearing: s.bearing }),
    })),
  )
</script>

<div class="grid max-w-6xl gap-x-10 gap-y-6 lg:grid-cols-2">
  <section aria-labelledby="frost">
    <h2 id="frost" class="mb-2 border-b-2 border-ink pb-1 font-bold">{msg.site_frost}</h2>
    <div class="grid grid-cols-2 gap-3">
      <LengthField {session} path="/site/frostDepth" label={msg.site_frost_depth_by_the_local} optional />
      <div class="self-end pb-1">
        {#if session.run.frost !== undefined}
          <span class="text-pencil">{msg.site_in_force}</span>
          <strong class="block text-[1.3rem]"
            ><Fraction mm={session.run.frost} {units} />
            {#if session.run.frostEstimated}<span class="text-[0.95rem] text-warn">{msg.site_estimate}</span
              >{/if}</strong
          >
        {:else}<strong class="text-warn">{msg.site_not_known_frost_is_not}</strong>{/if}
      </div>
    </div>
    <details class="mt-3" open={office === undefined && index !== undefined}>
      <summary class="min-h-11 cursor-pointer py-2 font-semibold"
        >{msg.site_estimate_it_from_a_winter}</summary
      >
      <p class="mb-2 max-w-prose text-pencil">
        {msg.site_by_the_modified_berggren_formula}
      </p>
      <div class="grid grid-cols-2 gap-3 sm:grid-cols-3">
        <NumberEntry
          label={msg.site_freezing_index_days({ v1: metric ? '°C' : '°F' })}
          {...number('/site/frost/index', perDay, msg.site_freezing_index)}
          onclear={() => set('/site/frost', null, msg.site_no_frost_estimate)}
        />
        {#if index !== undefined}
          {#each estimate as e (e.field)}
            <NumberEntry
              label={e.label}
              hint={e.hint}
              {...number(`/site/frost/${e.field}`, e.per, e.label)}
            />
          {/each}
        {/if}
      </div>
    </details>
    {#if line}
      <div class="mt-4 flex gap-4 border border-line bg-sheet p-2">
        <div class="w-40 flex-none">
          <HolePicture {session} card={session.run.cards[line.card]!} bare />
        </div>
        <p class="self-center leading-snug">
          {msg.site_the_concrete_s_bottom({ label: line.label })}
          <strong>{short(line.underFinished, units)}</strong>
          {msg.site_under_the_ground_as_it}
          {#if session.run.frost !== undefined}
            {#if line.heaves}<strong class="text-stop">{msg.site_stays_above_the_frost_depth}</strong
              >{:else}{msg.site_lies_below_the_frost_depth}{/if}
          {:else}{msg.site_is_compared_with_no_frost}{/if}
          {msg.site_the_gravel_lies_under_it({ short: short(line.holeDepth, units) })}
        </p>
      </div>
    {/if}
  </section>
  <section class="grid min-w-0 grid-cols-1 content-start gap-4" aria-labelledby="soil">
    <h2 id="soil" class="border-b-2 border-ink pb-1 font-bold">{msg.site_soil_wind_and_the_crew}</h2>
    <div class="grid gap-3 sm:grid-cols-2">
      <Pick
        label={msg.site_soil_of_the_site}
        value={session.own<string>('/site/soil') ?? ''}
        options={[{ value: '', name: msg.site_not_known_taken_as({ taken }) }, ...soils]}
        onpick={(v) => set('/site/soil', v || null, `Soil: ${v || msg.site_not_known}`)}
      />
      <Pick
        label={msg.site_along({ v1: session.run.name || session.run.id })}
        value={session.value<string>(session.at('/soil')) ?? 'site'}
        options={[{ value: 'site', name: msg.site_the_site_s }, ...soils]}
        onpick={(v) =>
          set(
            session.at('/soil'),
            v === 'site' ? null : v,
            msg.site_soil_of({ run: session.run.name, v2: v }),
          )}
      />
    </div>
    <p class="-mt-2 text-pencil">
      {msg.site_loosens_by_when_dug({ says: soil.says, round: Math.round(100 * soil.bulking) })}
    </p>
    <Choice
      label={msg.site_how_open_to_wind}
      value={session.choice('/site/exposure')}
      options={session.catalogue.choices['site/exposure']!}
      onpick={(v) => set('/site/exposure', v, msg.site_exposure({ v }))}
    />
    <div class="grid grid-cols-2 gap-3 sm:grid-cols-3">
      <NumberEntry
        label={msg.site_solid_part_of_the_fence}
        value={Math.round(100 * session.run.solid)}
        error={session.errorAt(session.at('/fence/solidity')) ? msg.site_allowed_is_1_to_100 : ''}
        oncommit={(n) => set(session.at('/fence/solidity'), n / 100, `${n} % solid`)}
      />
      <NumberEntry
        label={msg.site_wind_the_local_code_asks({ v1: metric ? msg.common_km_h : msg.site_mph })}
        hint={msg.site_left_empty_ask_your_building}
        {...number('/site/codeWind', metric ? 3.6 : 1 / 0.44704, msg.site_wind_by_the_local_code)}
      />
      <div>
        <div class="label mb-1">{msg.site_may_move_in_13_mm}</div>
        <button
          class="btn w-full"
          role="switch"
          aria-checked={session.value<boolean>('/site/movement') ?? false}
          aria-label={msg.site_may_move_half_an_inch}
          onclick={() =>
            set(
              '/site/movement',
              session.value<boolean>('/site/movement') ? null : true,
              msg.site_movement_at_the_ground,
            )}
          >{session.value<boolean>('/site/movement') ? msg.site_yes_bearing_doubled : msg.common_no}</button
        >
      </div>
    </div>
    <h3 class="mt-2 font-bold">{msg.site_how_fast_the_crew_digs}</h3>
    <div class="grid grid-cols-2 gap-3 sm:grid-cols-3">
      <NumberEntry
        label={msg.site_by_hand_an_hour({ v1: metric ? 'm³' : msg.site_ft })}
        hint={msg.site_usual({ v1: (crew.hand * perVolume).toFixed(metric ? 2 : 1) })}
        {...number('/site/crew/hand', perVolume, msg.site_digging_by_hand)}
      />
      <LengthField
        {session}
        path="/site/crew/auger"
        label={msg.site_auger_hole_an_hour}
        optional
        long
        hint={msg.site_usual_2({ short: short(crew.auger, units) })}
      />
      <NumberEntry
        label={msg.site_minutes_at_each_hole}
        hint={msg.site_usual_3({ setup: crew.setup })}
        {...number('/site/crew/setup', 1, msg.site_setting_up)}
      />
    </div>
  </section>
</div>
