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
  const local = ['parts', 'startGap', 'endGap'] as const
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
      `${name} kept as a system of this job`,
    )
    naming = ''
    open = false
  }

  const set = (field: string, value: unknown, what: string) =>
    session.commit([{ path: session.at(`/spacing/${field}`), value }], what)
  const piece: Record<string, string> = {
    'panels between': 'Panel',
    'panels on faces': 'Panel',
    module: 'Board',
    'stock rails': 'Rail',
    'overlapping rails': 'Rail',
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
      label="Fence type"
      value={picked}
      options={[
        { value: '', name: 'None of these: own values' },
        ...known.map((s) => ({ value: s.id, name: s.name + (own.includes(s) ? ' (own)' : '') })),
      ]}
      onpick={(id) => outfit(id)}
    />
    {#if session.lineRuns.length > 1 && others}
      <button class="btn mt-1.5" onclick={() => outfit(picked, true)}
        >Use it on all {session.lineRuns.length} runs</button
      >
    {/if}
    {#if system}
      <p class="mt-1.5 text-pencil">{system.says ?? 'A fence type of this job.'}</p>
      <dl class="mt-1.5 grid grid-cols-[auto_1fr] gap-x-3 gap-y-0.5 text-[0.95rem]" data-testid="system">
        <dt class="text-pencil">Posts</dt>
        <dd>
          {system.post.shape}, <Fraction mm={system.post.width ?? 0} {units} />{#if system.terminal}; ends,
            corners and gates <Fraction mm={system.terminal.width ?? 0} {units} />{/if}
        </dd>
        <dt class="text-pencil">Gap under it</dt>
        <dd>
          <Fraction mm={system.fence.gapLeast ?? 0} {units} /> to <Fraction
            mm={system.fence.gapMost ?? 0}
            {units}
          />
        </dd>
        <dt class="text-pencil">On a slope</dt>
        <dd>
          {#if system.grade.rack === undefined}follows it{:else if system.grade.rack === 0}steps: it cannot
            rack{:else}racks at most <Fraction mm={system.grade.rack} {units} /> a bay{/if}
        </dd>
        <dt class="text-pencil">Holes</dt>
        <dd>
          {#if system.hole?.driven === 'all'}none: posts are driven{#if system.hole?.collar}, with a collar of <Fraction
                mm={system.hole?.collar}
                {units}
              />{/if}{:else}{system.hole?.widthFactor ?? session.run.levels[0]!.values['hole/widthFactor']} × the
            post{#if system.hole?.driven === 'line'}; line posts are driven{/if}{/if}
        </dd>
        <dt class="text-pencil">Source</dt>
        <dd>{source}</dd>
      </dl>
      <p class="mt-1.5 text-[0.95rem]">
        <strong>Set:</strong>
        {system.allowed.map(done).join('; ')}.
      </p>
      {#each system.cautions ?? [] as c (c)}
        <p class="mt-1 border-l-4 border-l-warn bg-warn-wash px-2 py-1 text-[0.95rem] text-warn">{c}</p>
      {/each}
      {#each system.forbidden ?? [] as f (f.method)}
        <p class="mt-1 text-[0.95rem]"><strong>Not {done(f.method)}:</strong> {f.why}</p>
      {/each}
    {:else}
      <p class="mt-1.5 text-pencil">
        A system sets the material and every rule that goes with it. What was measured on site stays.
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
          <label class="label mb-1" for="own-name">Name of your system</label>
          <input id="own-name" class="field" maxlength="120" bind:value={naming} />
        </div>
        <button class="btn btn-main" disabled={!naming.trim()}>Keep</button>
      </form>
    {:else}
      <button class="btn btn-plain mt-1 px-0 underline" onclick={() => (open = true)}
        >Keep this run's values as a system</button
      >
    {/if}
  </div>
  <div class="grid min-w-0 grid-cols-1 gap-4">
    <Choice label="Layout method" value={way} options={ways} onpick={setWay} />
    <div class="grid grid-cols-2 gap-3 sm:grid-cols-3 xl:grid-cols-4">
      {#if way === 'equal'}
        <LengthField {session} path={session.at('/spacing/most')} label="Most spacing, centre to centre" />
      {:else}
        <LengthField {session} path={session.at('/spacing/piece')} label="{piece[way]} length" />
      {/if}
      {#if way === 'panels between'}
        <LengthField {session} path={session.at('/spacing/play')} label="Play at each joint" />
        <LengthField {session} path={session.at('/spacing/slot')} label="Into each slot or rout" />
      {:else if way === 'overlapping rails'}
        <LengthField {session} path={session.at('/spacing/overlap')} label="Overlap in the post" />
      {:else if way === 'stock rails'}
        <NumberField {session} path={session.at('/spacing/span')} label="Bays that a rail spans" />
        <NumberField
          {session}
          path={session.at('/spacing/rails')}
          label="Rails, one over the other"
          least={1}
        />
      {:else if way === 'panels on faces'}
        <LengthField {session} path={session.at('/spacing/thickness')} label="Panel thickness" />
      {/if}
      <LengthField
        {session}
        path={session.at('/spacing/least')}
        label="Least bay"
        hint="Blank: 1/3 of a full bay."
        optional
      />
      {#if session.run.inTheWay.some((o) => o.kind === 'footing' || o.kind === 'old post')}
        <LengthField
          {session}
          path={session.at('/spacing/soil')}
          label="Firm soil by old footings"
          optional
        />
      {/if}
    </div>
    {#if way !== 'equal'}
      <Pick
        label="Short bay goes"
        value={session.choice(session.at('/spacing/remainder'))}
        options={session.catalogue.choices['spacing/remainder']!}
        onpick={(v) => set('remainder', v, 'Short bay goes')}
      />
    {/if}
    {#if way === 'panels on faces'}
      <Choice
        label="Panels at a corner"
        value={session.choice(session.at('/spacing/turning'))}
        options={session.catalogue.choices['spacing/turning']!}
        onpick={(v) => set('turning', v, `Panels ${v} at corners`)}
      />
      <Choice
        label="Face that the panels are on"
        value={spacing?.face ?? ''}
        options={session.catalogue.choices['spacing/face']!}
        onpick={(v) => set('face', v, `Panels on the ${v}`)}
      />
      <Choice
        label="At a free end"
        value={session.choice(session.at('/spacing/ends'))}
        options={session.catalogue.choices['spacing/ends']!}
        onpick={(v) => set('ends', v, `Panels end on the ${v} of the end post`)}
      />
    {/if}
    {#if session.run.inTheWay.some((o) => o.handTo - o.handFrom > o.to - o.from)}
      <Choice
        label="Beside a service"
        value={spacing?.handDig ? 'hand' : 'out'}
        options={[
          { value: 'out', name: 'Stay out', costs: 'every hole by machine; bays give way' },
          { value: 'hand', name: 'Dig by hand', costs: 'bays stay as they are; slow holes' },
        ]}
        onpick={(v) =>
          set(
            'handDig',
            v === 'hand',
            v === 'out' ? 'Holes stay out of the hand-dig width' : 'Dug by hand beside services',
          )}
      />
    {/if}
  </div>
</div>
