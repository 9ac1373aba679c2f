<script lang="ts">
  // The strings of one run: the school, where they are tied, how they hang.
  import type { Session } from '../../lib/session.svelte'
  import { perHour } from '../../lib/tape'
  import Choice from '../../parts/Choice.svelte'
  import Figure from '../../parts/Figure.svelte'
  import Fraction from '../../parts/Fraction.svelte'
  import NumberEntry from '../../parts/NumberEntry.svelte'
  import Pick from '../../parts/Pick.svelte'
  import LengthField from '../LengthField.svelte'
  import { ofString } from '../../lib/figure'
  import * as msg from '../../gen/messages'

  let { session }: { session: Session } = $props()
  const units = $derived(session.units)
  const s = $derived(session.run.string)
  const get = <T,>(field: string) => session.value<T>(session.at(`/string/${field}`))
  const school = $derived(session.choice(session.at('/string/position')))
  const set = (field: string, value: unknown, what: string) =>
    session.commit([{ path: session.at(`/string/${field}`), value }], what)
  const speed = $derived(perHour(units))
  const wind = $derived(session.value<number>('/site/wind') ?? 0)

  function kind(id: string) {
    const k = session.catalogue.strings.find((x) => x.id === id)!
    session.commit(
      [
        { path: session.at('/string/kind'), value: id },
        { path: session.at('/string/pull'), value: k.pull },
      ],
      k.name,
    )
  }
</script>

<section aria-labelledby="strings-title" class="min-w-0">
  <h2 id="strings-title" class="font-bold">
    {msg.run_strings_strings_of({ v1: session.run.name || session.run.id })}
  </h2>
  {#if s}
    <div class="mt-2 border-l-4 border-l-mallow bg-sheet px-3 py-2" data-testid="constant">
      {#if s.sight}
        <p class="text-[1.15rem] leading-snug">
          {msg.run_strings_no_string_set} <strong>{s.order.slice(0, 2).join(' and ')}</strong>
          {msg.run_strings_first_then}
          {#if s.order.length > 2}<strong>{s.order.slice(2, 5).join(', ')}</strong>{s.order.length > 5
              ? msg.run_strings_and_on
              : ''}{/if}{msg.run_strings_each_sighted_along_both_sides}
          <strong>{s.target}</strong>{msg.run_strings_sight_the_height_at_a}
          <strong><Fraction mm={s.mark} {units} /></strong>
          {msg.common_below_the_tops}
        </p>
      {:else}
        <p class="text-[1.15rem] leading-snug">
          {msg.common_hold}
          <Figure why={ofString(session.run, 'constant')} of={msg.run_strings_the_constant}
            ><strong class="text-[1.35rem]"><Fraction mm={s.toFace} {units} /></strong></Figure
          >
          {msg.run_strings_from_the_string_to_the({ face: s.face })}
          <strong><Fraction mm={s.toCentre} {units} /></strong>
          {msg.run_strings_to_its_centre_tie_it({
            v1: s.ends === 'boards' ? msg.run_strings_batter_boards : msg.run_strings_stakes,
          })}
          <Fraction mm={s.beyond} {units} />
          {msg.common_beyond_the_end_posts}
          <Fraction mm={s.span} {units} long />
          {msg.run_strings_apart}
        </p>
      {/if}
    </div>
    <dl class="mt-2 flex flex-wrap gap-x-7 gap-y-1">
      {#if !s.sight}
        <div>
          <dt class="label">{msg.run_strings_height_string_sags_at_the}</dt>
          <dd class="text-[1.2rem] font-bold">
            <Figure why={ofString(session.run, 'sag')} of="sag"
              ><Fraction mm={s.props ? s.sagPropped : s.sag} {units} /></Figure
            >{#if s.props}<span class="text-[0.95rem] font-normal">
                {msg.run_strings_on({
                  props: s.props,
                  v2: s.props === 1 ? msg.common_prop : msg.common_props,
                })}
                <Fraction mm={s.sag} {units} />
                {msg.run_strings_without}</span
              >{/if}
          </dd>
        </div>
        <div>
          <dt class="label">
            {msg.run_strings_props_that_hold_it_within}
            <Fraction mm={s.sagAllowed} {units} />
          </dt>
          <dd class="text-[1.2rem] font-bold">{s.propsFor}</dd>
        </div>
        <div>
          <dt class="label">{msg.run_strings_today_s_wind_pushes_it}</dt>
          <dd class="text-[1.2rem] font-bold">
            <Figure why={ofString(session.run, 'drift')} of="drift"
              >{#if wind}<Fraction
                  mm={s.drift}
                  {units}
                />{:else}{msg.run_strings_no_wind_entered}{/if}</Figure
            >
          </dd>
        </div>
        {#if s.sightFrom !== undefined}
          <div>
            <dt class="label">{msg.run_strings_sight_instead_when_longer_than}</dt>
            <dd class="text-[1.2rem] font-bold"><Fraction mm={s.sightFrom} {units} long /></dd>
          </div>
        {/if}
      {/if}
    </dl>
  {:else}
    <p class="mt-1 text-pencil">{msg.run_strings_the_run_needs_a_length}</p>
  {/if}
  <div class="mt-4 grid gap-4">
    <Choice
      label={msg.run_strings_string_position}
      value={school}
      options={session.catalogue.choices['string/position']!}
      onpick={(v) => set('position', v, `String: ${v}`)}
    />
    <div class="grid grid-cols-2 items-start gap-3 sm:grid-cols-3 2xl:grid-cols-4">
      {#if school !== 'sight'}
        <LengthField
          {session}
          path={session.at('/string/off')}
          label={msg.run_strings_off_the_faces}
          optional
          hint={msg.run_strings_not_set_the_school_s}
        />
        <LengthField {session} path={session.at('/string/low')} label={msg.common_low_string_above_ground} />
        <LengthField
          {session}
          path={session.at('/string/beyond')}
          label={msg.run_strings_tied_beyond_the_ends}
        />
      {/if}
      <LengthField
        {session}
        path={session.at('/string/mark')}
        label={school === 'sight'
          ? msg.run_strings_sight_mark_below_tops
          : msg.run_strings_height_string_below_tops}
      />
      <Choice
        label={msg.run_strings_lined_face_walking_on}
        value={session.choice(session.at('/string/face'))}
        options={session.catalogue.choices['string/face']!}
        onpick={(v) => set('face', v, msg.run_strings_lined_on_the({ v1: v }))}
      />
      {#if school !== 'sight'}
        <Choice
          label={msg.run_strings_tied_to}
          value={session.choice(session.at('/string/ends'))}
          options={session.catalogue.choices['string/ends']!}
          onpick={(v) => set('ends', v, msg.run_strings_tied_to_2({ v1: v }))}
        />
      {/if}
      {#if school !== 'sight'}
        <Pick
          label={msg.common_string}
          value={get<string>('kind') ?? ''}
          options={session.catalogue.strings.map((k) => ({ value: k.id, name: k.name }))}
          onpick={kind}
        />
        <NumberEntry
          label={units.system === 'metric' ? msg.run_strings_pull_n : msg.run_strings_pull_lb}
          value={units.system === 'metric'
            ? get<number>('pull')
            : Math.round(((get<number>('pull') ?? 0) / 4.4482216152605) * 10) / 10}
          error={session.wrongAt(session.at('/string/pull'))}
          oncommit={(n) =>
            set(
              'pull',
              n * (units.system === 'metric' ? 1 : 4.4482216152605),
              msg.run_strings_pulled_with({ n, unit: units.system === 'metric' ? 'N' : msg.common_lb }),
            )}
        />
        <NumberEntry
          label={msg.run_strings_props_under_it}
          value={get<number>('props') ?? 0}
          error={session.wrongAt(session.at('/string/props'))}
          oncommit={(n) => set('props', n, `${n} props`)}
        />
      {/if}
      <NumberEntry
        label={msg.run_strings_today_s_wind({ speed: speed.name })}
        value={Math.round(wind * speed.per * 10) / 10}
        error={session.wrongAt('/site/wind')}
        oncommit={(n) =>
          session.commit(
            [{ path: '/site/wind', value: n / speed.per }],
            msg.run_strings_wind({ v1: n, speed: speed.name }),
          )}
      />
    </div>
  </div>
</section>
