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
  <h2 id="strings-title" class="font-bold">Strings of {session.run.name || session.run.id}</h2>
  {#if s}
    <div class="mt-2 border-l-4 border-l-mallow bg-sheet px-3 py-2" data-testid="constant">
      {#if s.sight}
        <p class="text-[1.15rem] leading-snug">
          No string. Set <strong>{s.order.slice(0, 2).join(' and ')}</strong> first, then
          {#if s.order.length > 2}<strong>{s.order.slice(2, 5).join(', ')}</strong>{s.order.length > 5
              ? ' and on'
              : ''}{/if}, each sighted along both sides to <strong>{s.target}</strong>. Sight the height at a
          mark
          <strong><Fraction mm={s.mark} {units} /></strong> below the tops.
        </p>
      {:else}
        <p class="text-[1.15rem] leading-snug">
          Hold <Figure why={ofString(session.run, 'constant')} of="the constant"
            ><strong class="text-[1.35rem]"><Fraction mm={s.toFace} {units} /></strong></Figure
          >
          from the string to the {s.face} face of every post,
          <strong><Fraction mm={s.toCentre} {units} /></strong>
          to its centre. Tie it to {s.ends === 'boards' ? 'batter boards' : 'stakes'}
          <Fraction mm={s.beyond} {units} /> beyond the end posts, <Fraction mm={s.span} {units} long /> apart.
        </p>
      {/if}
    </div>
    <dl class="mt-2 flex flex-wrap gap-x-7 gap-y-1">
      {#if !s.sight}
        <div>
          <dt class="label">Height string sags at the middle</dt>
          <dd class="text-[1.2rem] font-bold">
            <Figure why={ofString(session.run, 'sag')} of="sag"
              ><Fraction mm={s.props ? s.sagPropped : s.sag} {units} /></Figure
            >{#if s.props}<span class="text-[0.95rem] font-normal">
                on {s.props}
                {s.props === 1 ? 'prop' : 'props'}; <Fraction mm={s.sag} {units} /> without</span
              >{/if}
          </dd>
        </div>
        <div>
          <dt class="label">Props that hold it within <Fraction mm={s.sagAllowed} {units} /></dt>
          <dd class="text-[1.2rem] font-bold">{s.propsFor}</dd>
        </div>
        <div>
          <dt class="label">Today's wind pushes it aside</dt>
          <dd class="text-[1.2rem] font-bold">
            <Figure why={ofString(session.run, 'drift')} of="drift"
              >{#if wind}<Fraction mm={s.drift} {units} />{:else}no wind entered{/if}</Figure
            >
          </dd>
        </div>
        {#if s.sightFrom !== undefined}
          <div>
            <dt class="label">Sight instead when longer than</dt>
            <dd class="text-[1.2rem] font-bold"><Fraction mm={s.sightFrom} {units} long /></dd>
          </div>
        {/if}
      {/if}
    </dl>
  {:else}
    <p class="mt-1 text-pencil">The run needs a length before its strings are worked out.</p>
  {/if}
  <div class="mt-4 grid gap-4">
    <Choice
      label="String position"
      value={school}
      options={session.catalogue.choices['string/position']!}
      onpick={(v) => set('position', v, `String: ${v}`)}
    />
    <div class="grid grid-cols-2 items-start gap-3 sm:grid-cols-3 2xl:grid-cols-4">
      {#if school !== 'sight'}
        <LengthField
          {session}
          path={session.at('/string/off')}
          label="Off the faces"
          optional
          hint="not set: the school's own"
        />
        <LengthField {session} path={session.at('/string/low')} label="Low string above ground" />
        <LengthField {session} path={session.at('/string/beyond')} label="Tied beyond the ends" />
      {/if}
      <LengthField
        {session}
        path={session.at('/string/mark')}
        label={school === 'sight' ? 'Sight mark below tops' : 'Height string below tops'}
      />
      <Choice
        label="Lined face, walking on"
        value={session.choice(session.at('/string/face'))}
        options={session.catalogue.choices['string/face']!}
        onpick={(v) => set('face', v, `Lined on the ${v}`)}
      />
      {#if school !== 'sight'}
        <Choice
          label="Tied to"
          value={session.choice(session.at('/string/ends'))}
          options={session.catalogue.choices['string/ends']!}
          onpick={(v) => set('ends', v, `Tied to ${v}`)}
        />
      {/if}
      {#if school !== 'sight'}
        <Pick
          label="String"
          value={get<string>('kind') ?? ''}
          options={session.catalogue.strings.map((k) => ({ value: k.id, name: k.name }))}
          onpick={kind}
        />
        <NumberEntry
          label={units.system === 'metric' ? 'Pull, N' : 'Pull, lb'}
          value={units.system === 'metric'
            ? get<number>('pull')
            : Math.round(((get<number>('pull') ?? 0) / 4.4482216152605) * 10) / 10}
          error={session.wrongAt(session.at('/string/pull'))}
          oncommit={(n) =>
            set(
              'pull',
              n * (units.system === 'metric' ? 1 : 4.4482216152605),
              `Pull ${n} ${units.system === 'metric' ? 'N' : 'lb'}`,
            )}
        />
        <NumberEntry
          label="Props under it"
          value={get<number>('props') ?? 0}
          error={session.wrongAt(session.at('/string/props'))}
          oncommit={(n) => set('props', n, `${n} props`)}
        />
      {/if}
      <NumberEntry
        label="Today's wind, {speed.name}"
        value={Math.round(wind * speed.per * 10) / 10}
        error={session.wrongAt('/site/wind')}
        oncommit={(n) =>
          session.commit([{ path: '/site/wind', value: n / speed.per }], `Wind ${n} ${speed.name}`)}
      />
    </div>
  </div>
</section>
