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
  <p class="max-w-prose">A sliding leaf does not swing. What it needs is its run-back, under Opening.</p>
  <div class="mt-3 max-w-md">
    <Choice
      label="It runs on the side of the fence that is"
      value={gate.swing}
      options={[
        { value: 'in', name: 'inside' },
        { value: 'out', name: 'outside' },
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
              >{gate.leaves.length > 1 ? `Leaf on ${l.post}, ` : ''}{s.side}:
              {#if s.gap < -0.01}strikes the ground{#if s.touch !== undefined}
                  at {Math.round(s.touch)}°{/if}, <Fraction mm={-s.gap} {units} /> too low{:else}<Figure
                  why={ofGate(session.run, gate, 'swing')}
                  of="{name}, gap on the way"><Fraction mm={s.gap} {units} /></Figure
                >
                at the least{/if}, {s.angle < 0.5 ? 'closed' : `${Math.round(s.angle)}° open`}, <Fraction
                mm={s.out}
                {units}
              /> from its pins{#if s.short !== undefined && s.gap > 0}; short from {Math.round(s.short)}° on{/if}.{#if s.struck}
                Strikes {s.struck.what} at {Math.round(s.struck.angle)}°.{/if}
            </span>
          {/each}
        {/each}
      </p>
      {#if gate.leaves.length > 1}
        <Choice
          label="Leaf from the side"
          value={leaf.post}
          options={gate.leaves.map((l) => ({ value: l.post, name: `on ${l.post}` }))}
          onpick={(v) => (picked = v)}
        />
      {/if}
      <div class="grid gap-2 sm:grid-cols-2">
        <Choice
          label="Swings"
          value={gate.swing}
          options={session.catalogue.choices['gates/swing']!}
          onpick={(v) => {
            swung = null
            set('swing', v, `${name} swings ${v === 'both' ? 'both ways' : v}`)
          }}
        />
        {#if gate.leaves.length === 1}
          <Choice
            label="Hangs on"
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
        <LengthField {session} path={at('gap')} label="Gap under, closed" />
        <LengthField {session} path={at('least')} label="Least on the way" />
        <LengthField {session} path={at('snow')} label="Packed snow" optional />
        <LengthField {session} path={at('crown')} label="Crown of the drive" optional />
        <LengthField
          {session}
          path={at('lift')}
          label="Rising hinges lift"
          optional
          hint="until square open"
        />
        <NumberEntry
          label="Opens to, degrees"
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
            >The ground in its way is cut, {small(earth, units)}, up to
            <Fraction mm={Math.max(...gate.leaves.flatMap((l) => l.sides).map((s) => s.cut))} {units} /> deep.</span
          >
          <button class="btn" onclick={() => set('cut', null, `${name}: ground left as it is`)}
            >Leave the ground as it is</button
          >
        </p>
      {/if}
      <section aria-labelledby="hold">
        <h2 id="hold" class="font-bold">Stop and hold-back</h2>
        <ul class="mt-1 grid gap-1">
          {#each gate.leaves as l (l.post)}
            {#each l.sides as s (s.side)}
              <li>
                {gate.leaves.length > 1 ? `Leaf on ${l.post}, open ${s.side}` : `Open ${s.side}`}: its tip
                stands
                <strong>{short(s.hold.off, units)}</strong> off the line,
                <strong>{short(Math.abs(s.hold.along), units)}</strong>
                {s.hold.along >= 0 ? 'toward the other post' : 'back along the fence'} from the middle of {l.post}.
              </li>
            {/each}
          {/each}
        </ul>
      </section>
    </div>
  </div>
{/if}
