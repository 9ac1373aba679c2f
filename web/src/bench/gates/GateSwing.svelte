<script lang="ts">
  // The whole swing over the ground: drag a leaf open and watch the gap.
  import type { GroundLevel, PlannedGate } from '../../gen/api'
  import { range, sideOf } from '../../lib/leaf'
  import type { Session } from '../../lib/session.svelte'
  import { short, small } from '../../lib/tape'
  import Choice from '../../parts/Choice.svelte'
  import Figure from '../../parts/Figure.svelte'
  import Fraction from '../../parts/Fraction.svelte'
  import NumberEntry from '../../parts/NumberEntry.svelte'
  import LengthField from '../LengthField.svelte'
  import Levels from './Levels.svelte'
  import PlanView from './PlanView.svelte'
  import SideView from './SideView.svelte'
  import { ofGate } from '../../lib/figure'
  import * as msg from '../../gen/messages'

  let { session, gate }: { session: Session; gate: PlannedGate } = $props()
  const units = $derived(session.units)
  const name = $derived(gate.name || gate.id)
  const at = (field: string) => `${gate.path}/${field}`
  const set = (field: string, value: unknown, what: string) =>
    session.commit([{ path: at(field), value }], what)

  const limits = $derived(range(gate))
  /** Where the leaf is nearest the ground, to begin with. */
  const worst = $derived.by(() => {
    let best: { leaf: string; angle: number; gap: number } | undefined
    for (const l of gate.leaves)
      for (const s of l.sides)
        if (!best || s.gap - s.wanted < best.gap)
          best = { leaf: l.post, angle: s.side === 'out' ? -s.angle : s.angle, gap: s.gap - s.wanted }
    return best
  })
  let swung = $state<number | null>(null)
  const angle = $derived(Math.min(Math.max(swung ?? worst?.angle ?? 0, limits.least), limits.most))
  let picked = $state('')
  const leaf = $derived(
    gate.leaves.find((l) => l.post === picked) ??
      gate.leaves.find((l) => l.post === worst?.leaf) ??
      gate.leaves[0],
  )
  const side = $derived(leaf && sideOf(leaf, angle))
  const cut = $derived(session.value<boolean>(at('cut')) ?? false)
  const earth = $derived(gate.leaves.flatMap((l) => l.sides).reduce((v, s) => v + s.earth, 0))
  const ways = $derived(gate.swing === 'both' ? (['in', 'out'] as const) : ([gate.swing] as const))
</script>

{#if !leaf || !side}
  <p class="max-w-prose">{msg.gate_swing_a_sliding_leaf_does_not}</p>
  <div class="mt-3 max-w-md">
    <Choice
      label={msg.gate_swing_it_runs_on_the_side}
      value={gate.swing}
      options={[
        { value: 'in', name: msg.gate_swing_inside },
        { value: 'out', name: msg.gate_swing_outside },
      ]}
      onpick={(v) => set('swing', v, `${name} runs ${v}side`)}
    />
  </div>
{:else}
  <div class="grid max-w-6xl gap-3 border border-line bg-sheet p-2 md:grid-cols-2">
    <SideView {session} {gate} {leaf} {side} {angle} />
    <PlanView {session} {gate} {angle} onswing={(a) => (swung = a)} />
  </div>
  <div class="mt-3 grid max-w-6xl gap-x-8 gap-y-4 lg:grid-cols-2">
    <div class="grid min-w-0 grid-cols-1 content-start gap-4">
      <p class="text-[1.05rem] leading-snug" data-testid="swing">
        {#each gate.leaves as l (l.post)}
          {#each l.sides as s (s.side)}
            {@const bad = !s.clears}
            <span class="block {bad ? 'font-semibold text-stop' : ''}"
              >{gate.leaves.length > 1 ? msg.gate_swing_leaf_on({ post: l.post }) : ''}{s.side}:
              {#if s.gap < -0.01}{msg.gate_swing_strikes_the_ground}{#if s.touch !== undefined}
                  {msg.gate_swing_at({ round: Math.round(s.touch) })}{/if}, <Fraction mm={-s.gap} {units} />
                {msg.gate_swing_too_low}{:else}<Figure
                  why={ofGate(session.run, gate, 'swing')}
                  of={msg.gate_swing_gap_on_the_way({ name })}><Fraction mm={s.gap} {units} /></Figure
                >
                {msg.gate_swing_at_the_least}{/if}, {s.angle < 0.5
                ? 'closed'
                : msg.gate_swing_open({ round: Math.round(s.angle) })}, <Fraction mm={s.out} {units} />
              {msg.gate_swing_from_its_pins}{#if s.short !== undefined && s.gap > 0}{msg.gate_swing_short_from_on(
                  { round: Math.round(s.short) },
                )}{/if}.{#if s.struck}
                {msg.gate_swing_strikes_at({ what: s.struck.what, round: Math.round(s.struck.angle) })}{/if}
            </span>
          {/each}
        {/each}
      </p>
      {#if gate.leaves.length > 1}
        <Choice
          label={msg.gate_swing_leaf_from_the_side}
          value={leaf.post}
          options={gate.leaves.map((l) => ({ value: l.post, name: msg.gate_swing_on({ post: l.post }) }))}
          onpick={(v) => (picked = v)}
        />
      {/if}
      <div class="grid gap-2 sm:grid-cols-2">
        <Choice
          label={msg.gate_swing_swings}
          value={gate.swing}
          options={session.catalogue.choices['gates/swing']!}
          onpick={(v) => {
            swung = null
            set('swing', v, `${name} swings ${v === 'both' ? msg.gate_swing_both_ways : v}`)
          }}
        />
        {#if gate.leaves.length === 1}
          <Choice
            label={msg.gate_swing_hangs_on}
            value={leaf.end}
            options={[
              { value: 'first', name: gate.first },
              { value: 'second', name: gate.second },
            ]}
            onpick={(v) => set('hinge', v, `${name} hangs on ${v === 'first' ? gate.first : gate.second}`)}
          />
        {/if}
      </div>
      <div class="grid grid-cols-2 items-start gap-2 sm:grid-cols-3">
        <LengthField {session} path={at('gap')} label={msg.gate_swing_gap_under_closed} />
        <LengthField {session} path={at('least')} label={msg.gate_swing_least_on_the_way} />
        <LengthField {session} path={at('snow')} label={msg.gate_swing_packed_snow} optional />
        <LengthField {session} path={at('crown')} label={msg.gate_swing_crown_of_the_drive} optional />
        <LengthField
          {session}
          path={at('lift')}
          label={msg.gate_swing_rising_hinges_lift}
          optional
          hint={msg.gate_swing_until_square_open}
        />
        <NumberEntry
          label={msg.gate_swing_opens_to_degrees}
          value={gate.open}
          error={session.wrongAt(at('open'))}
          oncommit={(n) => set('open', n, `${name} opens to ${n}°`)}
        />
      </div>
    </div>
    <div class="grid min-w-0 grid-cols-1 content-start gap-4">
      {#each ways as w (w)}
        <Levels
          {session}
          {gate}
          side={w}
          levels={session.value<GroundLevel[]>(at(w)) ?? []}
          reach={Math.max(...gate.leaves.map((l) => l.reach))}
        />
      {/each}
      {#if cut}
        <p class="flex flex-wrap items-center gap-2 border-l-4 border-l-line bg-sheet px-3 py-2">
          <span
            >{msg.gate_swing_the_ground_in_its_way({ small: small(earth, units) })}
            <Fraction mm={Math.max(...gate.leaves.flatMap((l) => l.sides).map((s) => s.cut))} {units} />
            {msg.gate_swing_deep}</span
          >
          <button class="btn" onclick={() => set('cut', null, `${name}: ground left as it is`)}
            >{msg.gate_swing_leave_the_ground_as_it}</button
          >
        </p>
      {/if}
      <section aria-labelledby="hold">
        <h2 id="hold" class="font-bold">{msg.gate_swing_stop_and_hold_back}</h2>
        <ul class="mt-1 grid gap-1">
          {#each gate.leaves as l (l.post)}
            {#each l.sides as s (s.side)}
              <li>
                {msg.gate_swing_its_tip_stands({
                  v1:
                    gate.leaves.length > 1
                      ? msg.gate_swing_leaf_on_open({ post: l.post, side: s.side })
                      : msg.gate_swing_open_2({ side: s.side }),
                })}
                <strong>{short(s.hold.off, units)}</strong>
                {msg.gate_swing_off_the_line}
                <strong>{short(Math.abs(s.hold.along), units)}</strong>
                {msg.gate_swing_from_the_middle_of({
                  v1:
                    s.hold.along >= 0
                      ? msg.gate_swing_toward_the_other_post
                      : msg.gate_swing_back_along_the_fence,
                  post: l.post,
                })}
              </li>
            {/each}
          {/each}
        </ul>
      </section>
    </div>
  </div>
{/if}
