<script lang="ts">
  // How the gate is sized: any one measure, and the others follow.
  import { wrongSays } from '../../lib/wrong'
  import type { Figure as Address, Hardware, PlannedGate } from '../../gen/api'
  import type { Session } from '../../lib/session.svelte'
  import { short } from '../../lib/tape'
  import Choice from '../../parts/Choice.svelte'
  import Figure from '../../parts/Figure.svelte'
  import Fraction from '../../parts/Fraction.svelte'
  import Pick from '../../parts/Pick.svelte'
  import TapeEntry from '../../parts/TapeEntry.svelte'
  import Words from '../../parts/Words.svelte'
  import LengthField from '../LengthField.svelte'
  import FrontView from './FrontView.svelte'
  import { ofGate } from '../../lib/figure'
  import * as msg from '../../gen/messages'

  let { session, gate }: { session: Session; gate: PlannedGate } = $props()
  const units = $derived(session.units)
  const name = $derived(gate.name || gate.id)
  const at = (field: string) => `${gate.path}/${field}`
  const set = (field: string, value: unknown, what: string) =>
    session.commit([{ path: at(field), value }], what)
  const posts = $derived(
    [gate.first, gate.second].map((id) => session.run.posts.find((p) => p.label === id)!),
  )
  const leaves = $derived(gate.leaves.length)
  const slide = $derived(gate.kind === 'slide')
  const first = $derived(slide ? gate.runBack!.past : (gate.leaves[0]?.width ?? 0))
  const second = $derived(gate.leaves[1]?.width)
  const uneven = $derived(session.value<number>(at('second')) !== undefined)

  /** Sizing by one measure lets the others go. */
  function size(by: 'leaf' | 'clear' | 'opening', mm: number | null) {
    if (mm === null) return
    session.commit(
      [
        { path: at('leaf'), value: null },
        { path: at('clear'), value: null },
        // How many leaves there are must not hang on how they are measured.
        ...(slide ? [] : [{ path: at('leaves'), value: leaves }]),
        { path: at(by), value: mm },
      ],
      `${name}: ${{ leaf: 'leaf', clear: msg.gate_opening_clear_way, opening: 'inside' }[by]} ${short(mm, units)}`,
    )
  }
  function pair(n: number) {
    session.commit(
      [
        { path: at('kind'), value: null },
        { path: at('leaves'), value: n },
        { path: at('leaf'), value: null },
        { path: at('second'), value: null },
        ...(gate.sizedBy === 'leaf' ? [{ path: at('opening'), value: gate.opening }] : []),
      ],
      `${name}: ${n === 2 ? msg.gate_opening_two_leaves : msg.gate_opening_one_leaf}`,
    )
  }
  const kind = $derived(slide ? 'slide' : leaves === 2 ? 'double' : 'single')
  function pickKind(v: string) {
    if (v === 'slide')
      session.commit(
        [
          { path: at('kind'), value: 'slide' },
          { path: at('leaf'), value: null },
          { path: at('second'), value: null },
          ...(gate.sizedBy === 'leaf' ? [{ path: at('opening'), value: gate.opening }] : []),
        ],
        `${name} slides`,
      )
    else pair(v === 'double' ? 2 : 1)
  }
  const hardware = $derived(session.value<Hardware>(at('hardware')))
  const sets = $derived(
    session.catalogue.hardware
      .filter((h) => h.system === units.system || h.takes.kind === hardware?.kind)
      .map((h) => ({ value: h.takes.kind ?? '', name: h.name })),
  )
  const taken = $derived(session.catalogue.hardware.find((h) => h.takes.kind === hardware?.kind))
  const err = (field: string) => {
    const e = session.errorAt(at(field))
    return e ? wrongSays(e) : ''
  }
  /** A gap of one's own is no catalogue's any more. */
  const own = (field: keyof Hardware, mm: number | null) =>
    mm !== null &&
    session.commit(
      [{ path: at('hardware'), value: { ...hardware, [field]: mm, kind: '' } }],
      `${name}: ${field} gap ${short(mm, units)}`,
    )
</script>

<div class="grid max-w-6xl gap-x-8 gap-y-4 lg:grid-cols-[minmax(0,1.1fr)_minmax(0,1fr)]">
  <div class="self-start border border-line bg-sheet p-2 lg:sticky lg:top-0">
    <FrontView {session} {gate} show="opening" />
  </div>
  <div class="grid min-w-0 grid-cols-1 content-start gap-4">
    <Choice
      label={msg.gate_opening_kind}
      value={kind}
      options={[
        {
          value: 'single',
          name: msg.gate_opening_one_leaf_2,
          costs: msg.gate_opening_the_widest_swing_the_most,
        },
        {
          value: 'double',
          name: msg.gate_opening_two_leaves_2,
          costs: msg.gate_opening_half_the_swing_a_drop,
        },
        { value: 'slide', name: msg.gate_opening_sliding, costs: 'no swing; its run-back must stay clear' },
      ]}
      onpick={pickKind}
    />
    <section aria-labelledby="size">
      <h2 id="size" class="font-bold">{msg.gate_opening_size_enter_one_the_others}</h2>
      <div class="mt-1 grid grid-cols-2 items-start gap-2 sm:grid-cols-3">
        <TapeEntry
          label={leaves === 2 && !slide
            ? msg.gate_opening_leaf_width_on({ first: gate.first })
            : msg.gate_opening_leaf_width}
          field="leaf"
          {units}
          value={first}
          error={err('leaf')}
          hint={gate.sizedBy === 'leaf' ? msg.gate_opening_decides : msg.gate_opening_follows}
          oncommit={(mm) => size('leaf', mm)}
        />
        <TapeEntry
          label={msg.gate_opening_clear_opening}
          field="clear"
          {units}
          value={gate.clear}
          error={err('clear')}
          hint={gate.sizedBy === 'clear' ? msg.gate_opening_decides : msg.gate_opening_follows}
          oncommit={(mm) => size('clear', mm)}
        />
        <TapeEntry
          label={msg.common_between_posts}
          field="opening"
          {units}
          value={gate.opening}
          error={err('opening')}
          hint={gate.sizedBy === 'inside' ? msg.gate_opening_decides : msg.gate_opening_follows}
          oncommit={(mm) => size('opening', mm)}
        />
        {#if leaves === 2}
          <TapeEntry
            label={msg.gate_opening_leaf_width_on_2({ second: gate.second })}
            field="second"
            {units}
            value={second}
            optional
            error={err('second')}
            hint={uneven ? msg.gate_opening_a_width_of_its_own : msg.gate_opening_as_the_other}
            oncommit={(mm) =>
              set(
                'second',
                mm,
                mm === null
                  ? msg.gate_opening_equal_leaves({ name })
                  : msg.gate_opening_second_leaf({ name, short: short(mm, units) }),
              )}
          />
        {/if}
        <LengthField {session} path={at('at')} label={msg.gate_opening_middle_of_the_opening} long />
        <LengthField
          {session}
          path={at('gap')}
          label={msg.gate_opening_gap_under}
          hint={msg.gate_opening_over_the_highest_ground}
        />
      </div>
      <dl class="mt-3 flex flex-wrap gap-x-6 gap-y-1" data-testid="distances">
        {#snippet figure(words: string, mm: number, why?: Address)}
          <div>
            <dt class="text-[0.88rem] text-pencil">{words}</dt>
            <dd class="text-[1.15rem] font-bold">
              {#if why !== undefined}<Figure {why} of="{name}, {words}"><Fraction {mm} {units} /></Figure
                >{:else}<Fraction {mm} {units} />{/if}
            </dd>
          </div>
        {/snippet}
        {@render figure(msg.gate_opening_inside, gate.opening, ofGate(session.run, gate, 'inside'))}
        {@render figure(msg.gate_opening_centre_to_centre, gate.centre)}
        {@render figure(msg.gate_opening_outside, gate.outside)}
        {@render figure(msg.gate_opening_clear_opening, gate.clear, ofGate(session.run, gate, 'clear'))}
        {@render figure(msg.gate_opening_leaf_high, gate.leaf)}
      </dl>
    </section>
    {#if !slide}
      <section aria-labelledby="hw">
        <h2 id="hw" class="font-bold">{msg.gate_opening_hinges_and_latch}</h2>
        <div class="mt-1 grid items-start gap-2 sm:grid-cols-2">
          <Pick
            label={msg.gate_opening_hardware}
            value={hardware?.kind ?? ''}
            options={[
              ...sets,
              ...(hardware?.kind ? [] : [{ value: '', name: msg.gate_opening_your_own_gaps }]),
            ]}
            onpick={(v) => {
              const h = session.catalogue.hardware.find((s) => s.takes.kind === v)
              if (h) set('hardware', h.takes, `${name}: ${h.name}`)
            }}
          />
          {#if taken}<p class="self-end text-[0.92rem] leading-snug text-pencil">{taken.says}</p>{/if}
        </div>
        <div class="mt-2 grid grid-cols-2 gap-2 sm:grid-cols-4">
          <TapeEntry
            label={msg.gate_opening_hinge_gap}
            {units}
            value={hardware?.hinge}
            error={err('hardware/hinge')}
            oncommit={(mm) => own('hinge', mm)}
          />
          {#if leaves === 2}<TapeEntry
              label={msg.gate_opening_between_leaves}
              {units}
              value={hardware?.meeting}
              error={err('hardware/meeting')}
              oncommit={(mm) => own('meeting', mm)}
            />{:else}<TapeEntry
              label={msg.gate_opening_latch_gap}
              {units}
              value={hardware?.latch}
              error={err('hardware/latch')}
              oncommit={(mm) => own('latch', mm)}
            />{/if}
          <LengthField {session} path={at('thick')} label={msg.gate_opening_leaf_thick} />
          <Pick
            label={msg.gate_opening_made_of}
            value={session.value<string>(at('make')) ?? ''}
            options={[
              { value: '', name: msg.gate_opening_not_said },
              ...session.catalogue.makes.map((m) => ({ value: m.id, name: m.name })),
            ]}
            onpick={(v) =>
              set(
                'make',
                v,
                `${name}: ${session.catalogue.makes.find((m) => m.id === v)?.name.toLowerCase() ?? v}`,
              )}
          />
        </div>
      </section>
    {:else}
      <div class="grid gap-2 sm:grid-cols-2">
        <Choice
          label={msg.gate_opening_runs_back_past}
          value={session.choice(at('slides'))}
          options={[
            { value: 'first', name: gate.first },
            { value: 'second', name: gate.second },
          ]}
          onpick={(v) =>
            set('slides', v, `${name} runs back past ${v === 'first' ? gate.first : gate.second}`)}
        />
        <LengthField {session} path={at('overlap')} label={msg.gate_opening_longer_than_the_opening_by} />
      </div>
      <p>
        {msg.gate_opening_open_it_stands} <strong><Fraction mm={gate.runBack!.past} {units} /></strong>
        {msg.gate_opening_past_there_are({ v1: gate.runBack!.post })}
        <Fraction mm={gate.runBack!.room} {units} />
        {msg.gate_opening_to_the_runs_end_and}
        <Fraction mm={gate.runBack!.gap} {units} />
        {msg.gate_opening_under_it_at_the_least}
      </p>
    {/if}
    <div>
      <Choice
        label={msg.gate_opening_tops_across_the_opening}
        value={session.choice(session.at('/grade/across'))}
        options={session.catalogue.choices['grade/across']!}
        onpick={(v) =>
          session.commit(
            [{ path: session.at('/grade/across'), value: v }],
            v === 'flat' ? msg.gate_opening_tops_flat_across_gates : msg.common_tops_go_on_over_gates,
          )}
      />
      <p class="mt-1 text-pencil">
        {#each posts as p, i (p.label)}{i ? ', ' : ''}{p.label}
          {#if Math.abs(p.step) < units.smallestMark / 2}{msg.gate_opening_meets_its_neighbour_level}{:else}{msg.gate_opening_steps}
            <Fraction mm={Math.abs(p.step)} {units} />{/if}{/each}.
      </p>
    </div>
    <section aria-labelledby="prove">
      <h2 id="prove" class="font-bold">{msg.gate_opening_prove_the_posts_before_anything}</h2>
      <dl class="mt-1 grid gap-1">
        {#each gate.checks as c (c.name)}
          <div class="grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-3 border-t border-rule pt-1">
            <dt>{c.name}</dt>
            <dd class="text-[1.1rem] font-bold"><Fraction mm={c.length} {units} /></dd>
            <dd class="text-[0.92rem] text-pencil col-span-2"><Words says={c.says} {units} /></dd>
          </div>
        {/each}
      </dl>
    </section>
  </div>
</div>
