<script lang="ts">
  // The fence system and the way its bays are found, with the figures of that
  // way. Each way says what it costs.
  import type { FenceSystem, Grade, Spacing } from '../../gen/api'
  import type { Session } from '../../lib/session.svelte'
  import { at, newID } from '../../lib/doc'
  import Choice from '../../parts/Choice.svelte'
  import Fraction from '../../parts/Fraction.svelte'
  import Pick from '../../parts/Pick.svelte'
  import LengthField from '../LengthField.svelte'
  import NumberField from '../NumberField.svelte'
  import * as msg from '../../gen/messages'

  let { session }: { session: Session } = $props()
  const spacing = $derived(session.value<Spacing>(session.at('/spacing')))
  const way = $derived(session.choice(session.at('/spacing/way')))
  const own = $derived(session.value<FenceSystem[]>('/systems') ?? [])
  const known = $derived<FenceSystem[]>([
    ...own,
    ...session.catalogue.systems.filter((s) => s.system === session.units.system),
    // One of the other unit system stays named where it was picked.
    ...session.catalogue.systems.filter((s) => s.system !== session.units.system && s.id === picked),
  ])
  const picked = $derived(session.value<string>(session.at('/system')) ?? '')
  const system = $derived(known.find((s) => s.id === picked))
  const units = $derived(session.units)
  const source = $derived.by(() => {
    const from = session.catalogue.systems.find((c) => c.id === picked)?.source
    return from
      ? (from.name ?? from.kind) + (from.name && from.kind !== 'published' ? ` (${from.kind})` : '')
      : 'yours'
  })
  const done = (method: string) => session.catalogue.methods.find((m) => m.id === method)?.done ?? method

  /** The server fits a run out with a fence type: a bare gate gets its gate. */
  /** Some run of the line is of another type. */
  const others = $derived(
    session.lineRuns.some(
      (r) => (session.value<string>(at('/lines', session.line.id, 'runs', r.id, 'system')) ?? '') !== picked,
    ),
  )
  async function outfit(id: string, all = false) {
    const trouble = await session.reshape({
      do: 'outfit',
      line: session.line.id,
      run: all ? undefined : session.run.id,
      system: id || undefined,
    })
    if (trouble) session.store.notice = trouble
  }
  const local = ['parts', 'startGap', 'endGap', 'placed'] as const
  /** A grade without what stands on one run only: parts, and string ends by hand. */
  function general(grade: Grade): Grade {
    const out = { ...grade }
    for (const field of local) delete out[field]
    return out
  }
  let naming = $state('')
  let open = $state(false)
  /** The run's own values, kept in the job under a name. */
  function keep() {
    const name = naming.trim()
    if (!name) return
    const part = <T,>(p: string) => session.value<T>(session.at(p))
    const copy: FenceSystem = {
      id: newID(own, 'own-'),
      name,
      system: session.units.system,
      from: system?.from ?? system?.id,
      fence: part('/fence')!,
      post: part('/post')!,
      terminal: part('/terminal'),
      spacing: part('/spacing')!,
      grade: general(part<Grade>('/grade')!),
      hole: part('/hole'),
      setting: part('/setting'),
      kinds: part('/kinds'),
      inConcrete: system?.inConcrete,
      neverFilled: system?.neverFilled,
      allowed: system?.allowed ?? ['braced'],
      forbidden: system?.forbidden,
      cautions: system?.cautions,
    }
    session.commit(
      [
        { path: at('/systems', copy.id), value: copy },
        { path: session.at('/system'), value: copy.id },
      ],
      msg.ways_kept_as_a_system_of({ name }),
    )
    naming = ''
    open = false
  }

  const set = (field: string, value: unknown, what: string) =>
    session.commit([{ path: session.at(`/spacing/${field}`), value }], what)
  const piece: Record<string, string> = {
    'panels between': msg.ways_panel,
    'panels on faces': msg.ways_panel,
    module: msg.ways_board,
    'stock rails': msg.ways_rail,
    'overlapping rails': msg.ways_rail,
  }
  const ways = $derived(session.catalogue.choices['spacing/way']!)
  function setWay(v: string) {
    const changes = [{ path: session.at('/spacing/way'), value: v as unknown }]
    // A way that goes by a piece needs one.
    const like = session.catalogue.ways[units.system]![v]
    if (like && !spacing?.piece)
      for (const [field, value] of Object.entries(like))
        if (value && field !== 'way') changes.push({ path: session.at(`/spacing/${field}`), value })
    session.commit(changes, ways.find((w) => w.value === v)!.name)
  }
</script>

<div class="grid max-w-6xl gap-x-8 gap-y-4 lg:grid-cols-[minmax(0,1fr)_minmax(0,1.3fr)]">
  <div>
    <Pick
      label={msg.ways_fence_type}
      value={picked}
      options={[
        { value: '', name: msg.ways_none_of_these_own_values },
        ...known.map((s) => ({ value: s.id, name: s.name + (own.includes(s) ? msg.ways_own : '') })),
      ]}
      onpick={(id) => outfit(id)}
    />
    {#if session.lineRuns.length > 1 && others}
      <button class="btn mt-1.5" onclick={() => outfit(picked, true)}
        >{msg.ways_use_it_on_all_runs({ count: session.lineRuns.length })}</button
      >
    {/if}
    {#if system}
      <p class="mt-1.5 text-pencil">{system.says ?? msg.ways_a_fence_type_of_this}</p>
      <dl class="mt-1.5 grid grid-cols-[auto_1fr] gap-x-3 gap-y-0.5 text-[0.95rem]" data-testid="system">
        <dt class="text-pencil">{msg.common_posts}</dt>
        <dd>
          {system.post.shape}, <Fraction
            mm={system.post.width ?? 0}
            {units}
          />{#if system.terminal}{msg.ways_ends_corners_and_gates}
            <Fraction mm={system.terminal.width ?? 0} {units} />{/if}
        </dd>
        <dt class="text-pencil">{msg.ways_gap_under_it}</dt>
        <dd>
          <Fraction mm={system.fence.gapLeast ?? 0} {units} />
          {msg.ways_to}
          <Fraction mm={system.fence.gapMost ?? 0} {units} />
        </dd>
        <dt class="text-pencil">{msg.ways_on_a_slope}</dt>
        <dd>
          {#if system.grade.rack === undefined}{msg.ways_follows_it}{:else if system.grade.rack === 0}{msg.ways_steps_it_cannot_rack}{:else}{msg.ways_racks_at_most}
            <Fraction mm={system.grade.rack} {units} />
            {msg.ways_a_bay}{/if}
        </dd>
        <dt class="text-pencil">{msg.common_holes}</dt>
        <dd>
          {#if system.hole?.driven === 'all'}{msg.ways_none_posts_are_driven}{#if system.hole?.collar}{msg.ways_with_a_collar_of}
              <Fraction mm={system.hole?.collar} {units} />{/if}{:else}{msg.ways_the_post({
              v1: Number(system.hole?.widthFactor ?? session.run.levels[0]!.values['hole/widthFactor']),
            })}{#if system.hole?.driven === 'line'}{msg.ways_line_posts_are_driven}{/if}{/if}
        </dd>
        <dt class="text-pencil">{msg.ways_source}</dt>
        <dd>{source}</dd>
      </dl>
      <p class="mt-1.5 text-[0.95rem]">
        <strong>{msg.ways_set}</strong>
        {system.allowed.map(done).join('; ')}.
      </p>
      {#each system.cautions ?? [] as c (c)}
        <p class="mt-1 border-l-4 border-l-warn bg-warn-wash px-2 py-1 text-[0.95rem] text-warn">{c}</p>
      {/each}
      {#each system.forbidden ?? [] as f (f.method)}
        <p class="mt-1 text-[0.95rem]"><strong>{msg.ways_not({ done: done(f.method) })}</strong> {f.why}</p>
      {/each}
    {:else}
      <p class="mt-1.5 text-pencil">
        {msg.ways_a_system_sets_the_material}
      </p>
    {/if}
    {#if open}
      <form
        class="mt-2 flex items-end gap-2"
        onsubmit={(e) => {
          e.preventDefault()
          keep()
        }}
      >
        <div class="flex-1">
          <label class="label mb-1" for="own-name">{msg.ways_name_of_your_system}</label>
          <input id="own-name" class="field" maxlength="120" bind:value={naming} />
        </div>
        <button class="btn btn-main" disabled={!naming.trim()}>{msg.ways_keep}</button>
      </form>
    {:else}
      <button class="btn btn-plain mt-1 px-0 underline" onclick={() => (open = true)}
        >{msg.ways_keep_this_run_s_values}</button
      >
    {/if}
  </div>
  <div class="grid min-w-0 grid-cols-1 gap-4">
    <Choice label={msg.ways_layout_method} value={way} options={ways} onpick={setWay} />
    <div class="grid grid-cols-2 gap-3 sm:grid-cols-3 xl:grid-cols-4">
      {#if way === 'equal'}
        <LengthField
          {session}
          path={session.at('/spacing/most')}
          label={msg.ways_most_spacing_centre_to_centre}
        />
      {:else}
        <LengthField
          {session}
          path={session.at('/spacing/piece')}
          label={msg.ways_length({ v1: piece[way] ?? '' })}
        />
      {/if}
      {#if way === 'panels between'}
        <LengthField {session} path={session.at('/spacing/play')} label={msg.ways_play_at_each_joint} />
        <LengthField {session} path={session.at('/spacing/slot')} label={msg.ways_into_each_slot_or_rout} />
      {:else if way === 'overlapping rails'}
        <LengthField {session} path={session.at('/spacing/overlap')} label={msg.ways_overlap_in_the_post} />
      {:else if way === 'stock rails'}
        <NumberField {session} path={session.at('/spacing/span')} label={msg.ways_bays_that_a_rail_spans} />
        <NumberField
          {session}
          path={session.at('/spacing/rails')}
          label={msg.ways_rails_one_over_the_other}
          least={1}
        />
      {:else if way === 'panels on faces'}
        <LengthField {session} path={session.at('/spacing/thickness')} label={msg.ways_panel_thickness} />
      {/if}
      <LengthField
        {session}
        path={session.at('/spacing/least')}
        label={msg.ways_least_bay}
        hint={msg.ways_blank_1_3_of_a}
        optional
      />
      {#if session.run.inTheWay.some((o) => o.kind === 'footing' || o.kind === 'old post')}
        <LengthField
          {session}
          path={session.at('/spacing/soil')}
          label={msg.ways_firm_soil_by_old_footings}
          optional
        />
      {/if}
    </div>
    {#if way !== 'equal'}
      <Pick
        label={msg.ways_short_bay_goes}
        value={session.choice(session.at('/spacing/remainder'))}
        options={session.catalogue.choices['spacing/remainder']!}
        onpick={(v) => set('remainder', v, msg.ways_short_bay_goes)}
      />
    {/if}
    {#if way === 'panels on faces'}
      <Choice
        label={msg.ways_panels_at_a_corner}
        value={session.choice(session.at('/spacing/turning'))}
        options={session.catalogue.choices['spacing/turning']!}
        onpick={(v) => set('turning', v, msg.ways_panels_at_corners({ v1: v }))}
      />
      <Choice
        label={msg.ways_face_that_the_panels_are}
        value={spacing?.face ?? ''}
        options={session.catalogue.choices['spacing/face']!}
        onpick={(v) => set('face', v, msg.ways_panels_on_the({ v1: v }))}
      />
      <Choice
        label={msg.ways_at_a_free_end}
        value={session.choice(session.at('/spacing/ends'))}
        options={session.catalogue.choices['spacing/ends']!}
        onpick={(v) => set('ends', v, msg.ways_panels_end_on_the_of({ v1: v }))}
      />
    {/if}
    {#if session.run.inTheWay.some((o) => o.handTo - o.handFrom > o.to - o.from)}
      <Choice
        label={msg.ways_beside_a_service}
        value={spacing?.handDig ? 'hand' : 'out'}
        options={[
          { value: 'out', name: msg.ways_stay_out, costs: msg.ways_every_hole_by_machine_bays },
          { value: 'hand', name: msg.ways_dig_by_hand, costs: msg.ways_bays_stay_as_they_are },
        ]}
        onpick={(v) =>
          set(
            'handDig',
            v === 'hand',
            v === 'out' ? msg.ways_holes_stay_out_of_the : msg.ways_dug_by_hand_beside_services,
          )}
      />
    {/if}
  </div>
</div>
