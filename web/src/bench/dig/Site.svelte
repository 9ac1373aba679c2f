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
    { field: 'moisture', label: 'Water in the soil, %', per: 1, hint: `usual here ${soil.moisture}` },
    {
      field: 'density',
      label: `Dry density, ${metric ? 'kg/m³' : 'lb/ft³'}`,
      per: perDensity,
      hint: `usual here ${(soil.density * perDensity).toFixed(0)}`,
    },
    {
      field: 'conductivity',
      label: 'Conductivity, W/(m·K)',
      per: 1,
      hint: `usual here ${soil.conductivity}`,
    },
    { field: 'surface', label: 'Surface factor', per: 1, hint: '0.5 turf and snow, 0.7 bare, 0.9 paved' },
    { field: 'lambda', label: 'Correction λ', per: 1, hint: '1 errs on the deep side' },
  ])
  const line = $derived(
    session.run.posts.find((p) => p.kind === 'line' && p.card >= 0) ??
      session.run.posts.find((p) => p.card >= 0),
  )
  const taken = $derived(
    session.catalogue.soils.find((s) => s.id === session.usual('/site/soil'))?.name.toLowerCase() ?? '',
  )
  const soils = $derived(
    session.catalogue.soils.map((s) => ({ value: s.id, name: `${s.name}, ${s.bearing} psf/ft` })),
  )
</script>

<div class="grid max-w-6xl gap-x-10 gap-y-6 lg:grid-cols-2">
  <section aria-labelledby="frost">
    <h2 id="frost" class="mb-2 border-b-2 border-ink pb-1 font-bold">Frost</h2>
    <div class="grid grid-cols-2 gap-3">
      <LengthField {session} path="/site/frostDepth" label="Frost depth, by the local office" optional />
      <div class="self-end pb-1">
        {#if session.run.frost !== undefined}
          <span class="text-pencil">In force</span>
          <strong class="block text-[1.3rem]"
            ><Fraction mm={session.run.frost} {units} />
            {#if session.run.frostEstimated}<span class="text-[0.95rem] text-warn">estimate</span
              >{/if}</strong
          >
        {:else}<strong class="text-warn">Not known: frost is not counted</strong>{/if}
      </div>
    </div>
    <details class="mt-3" open={office === undefined && index !== undefined}>
      <summary class="min-h-11 cursor-pointer py-2 font-semibold">Estimate it from a winter</summary>
      <p class="mb-2 max-w-prose text-pencil">
        By the modified Berggren formula (TM 5-852-6, from memory). An estimate until the office is asked; its
        figure goes before it.
      </p>
      <div class="grid grid-cols-2 gap-3 sm:grid-cols-3">
        <NumberEntry
          label="Freezing index, {metric ? '°C' : '°F'} days"
          {...number('/site/frost/index', perDay, 'Freezing index')}
          onclear={() => set('/site/frost', null, 'No frost estimate')}
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
          {line.label}: the concrete's bottom, <strong>{short(line.underFinished, units)}</strong> under the
          ground as it will be,
          {#if session.run.frost !== undefined}
            {#if line.heaves}<strong class="text-stop">stays above the frost depth.</strong>{:else}lies below
              the frost depth.{/if}
          {:else}is compared with no frost depth: none is known.{/if}
          The gravel lies under it, down to {short(line.holeDepth, units)}.
        </p>
      </div>
    {/if}
  </section>
  <section class="grid min-w-0 grid-cols-1 content-start gap-4" aria-labelledby="soil">
    <h2 id="soil" class="border-b-2 border-ink pb-1 font-bold">Soil, wind and the crew</h2>
    <div class="grid gap-3 sm:grid-cols-2">
      <Pick
        label="Soil of the site"
        value={session.own<string>('/site/soil') ?? ''}
        options={[{ value: '', name: `not known: taken as ${taken}` }, ...soils]}
        onpick={(v) => set('/site/soil', v || null, `Soil: ${v || 'not known'}`)}
      />
      <Pick
        label="Along {session.run.name || session.run.id}"
        value={session.value<string>(session.at('/soil')) ?? 'site'}
        options={[{ value: 'site', name: "the site's" }, ...soils]}
        onpick={(v) => set(session.at('/soil'), v === 'site' ? null : v, `Soil of ${session.run.name}: ${v}`)}
      />
    </div>
    <p class="-mt-2 text-pencil">{soil.says} Loosens by {Math.round(100 * soil.bulking)} % when dug.</p>
    <Choice
      label="How open to wind"
      value={session.choice('/site/exposure')}
      options={session.catalogue.choices['site/exposure']!}
      onpick={(v) => set('/site/exposure', v, `Exposure ${v}`)}
    />
    <div class="grid grid-cols-2 gap-3 sm:grid-cols-3">
      <NumberEntry
        label="Solid part of the fence, %"
        value={Math.round(100 * session.run.solid)}
        error={session.errorAt(session.at('/fence/solidity')) ? 'Allowed is 1 to 100.' : ''}
        oncommit={(n) => set(session.at('/fence/solidity'), n / 100, `${n} % solid`)}
      />
      <NumberEntry
        label="Wind the local code asks, {metric ? 'km/h' : 'mph'}"
        hint="left empty: ask your building office"
        {...number('/site/codeWind', metric ? 3.6 : 1 / 0.44704, 'Wind by the local code')}
      />
      <div>
        <div class="label mb-1">May move ½ in (13 mm)</div>
        <button
          class="btn w-full"
          role="switch"
          aria-checked={session.value<boolean>('/site/movement') ?? false}
          aria-label="May move half an inch at the ground"
          onclick={() =>
            set(
              '/site/movement',
              session.value<boolean>('/site/movement') ? null : true,
              'Movement at the ground',
            )}>{session.value<boolean>('/site/movement') ? 'Yes: bearing doubled' : 'No'}</button
        >
      </div>
    </div>
    <h3 class="mt-2 font-bold">How fast the crew digs, in easy soil</h3>
    <div class="grid grid-cols-2 gap-3 sm:grid-cols-3">
      <NumberEntry
        label="By hand, {metric ? 'm³' : 'ft³'} an hour"
        hint="usual {(crew.hand * perVolume).toFixed(metric ? 2 : 1)}"
        {...number('/site/crew/hand', perVolume, 'Digging by hand')}
      />
      <LengthField
        {session}
        path="/site/crew/auger"
        label="Auger, hole an hour"
        optional
        long
        hint="usual {short(crew.auger, units)}"
      />
      <NumberEntry
        label="Minutes at each hole"
        hint="usual {crew.setup}"
        {...number('/site/crew/setup', 1, 'Setting up')}
      />
    </div>
  </section>
</div>
