<script lang="ts">
  // Squaring a corner with a tape: what the diagonal should be, and what the
  // one that was taped means.
  import type { Squared } from '../../gen/api'
  import { api, Refused } from '../../lib/api'
  import type { Session } from '../../lib/session.svelte'
  import { wrongSays } from '../../lib/wrong'
  import { degrees } from '../../lib/turn'
  import Fraction from '../../parts/Fraction.svelte'
  import Pick from '../../parts/Pick.svelte'
  import TapeEntry from '../../parts/TapeEntry.svelte'

  let { session }: { session: Session } = $props()
  const units = $derived(session.units)
  const corners = $derived(session.line.corners.map((c, i) => ({ c, i })).filter(({ c }) => c.square))
  const name = (id?: string) => session.plan.runs.find((r) => r.id === id)?.name || id || ''
  let chosen = $state<number | null>(null)
  const here = $derived(
    corners.find(({ i }) => i === chosen) ??
      corners.find(({ c }) => c.after === session.run.id) ??
      corners[0],
  )
  const square = $derived(here?.c.square)
  // Legs as they can be taped; not set: the longest that fit.
  let own = $state<{ a?: number; b?: number }>({})
  let angle = $state<'planned' | 'right'>('planned')
  const legA = $derived(own.a ?? square?.legA ?? 0)
  const legB = $derived(own.b ?? square?.legB ?? 0)
  const wanted = $derived(angle === 'right' ? 90 : (here?.c.interior ?? 90))
  const far = $derived(session.plan.runs.find((r) => r.id === here?.c.after)?.length ?? 0)
  let taped = $state<number | undefined>(undefined)
  let answer = $state.raw<Squared | null>(null)
  let trouble = $state('')

  // Asked again whenever what it depends on changes; the latest answer counts.
  let asked = 0
  $effect(() => {
    if (!square) return
    const mine = ++asked
    api
      .square({ legA, legB, angle: wanted, taped, far, mark: units.smallestMark, system: units.system })
      .then((r) => {
        if (mine !== asked) return
        answer = r
        trouble = ''
      })
      .catch((e) => {
        if (mine !== asked) return
        const f = e instanceof Refused ? e.problem.fields?.[0] : undefined
        trouble = f ? wrongSays(f) : e instanceof Error ? e.message : String(e)
      })
  })
  function pick(i: number) {
    chosen = i
    own = {}
    taped = undefined
  }
</script>

<section class="border border-line bg-sheet p-3" aria-labelledby="square-title">
  <h2 id="square-title" class="font-bold">Squaring a corner</h2>
  {#if !here || !square}
    <p class="mt-1 text-pencil">The line has no corner yet whose two runs have lengths.</p>
  {:else}
    <div class="mt-2 grid grid-cols-2 items-start gap-2">
      <Pick
        label="Corner"
        value={String(here.i)}
        options={corners.map(({ c, i }) => ({
          value: String(i),
          name: `${name(c.before)} to ${name(c.after)}`,
        }))}
        onpick={(v) => pick(Number(v))}
      />
      <Pick
        label="Angle between the runs"
        value={angle}
        options={[
          { value: 'planned', name: `as planned, ${degrees(here.c.interior ?? 90)}` },
          { value: 'right', name: 'square, 90°' },
        ]}
        onpick={(v) => (angle = v as typeof angle)}
      />
      <TapeEntry
        label="Leg on {name(here.c.before)}"
        {units}
        value={legA}
        long
        oncommit={(mm) => (own.a = mm ?? undefined)}
      />
      <TapeEntry
        label="Leg on {name(here.c.after)}"
        {units}
        value={legB}
        long
        oncommit={(mm) => (own.b = mm ?? undefined)}
      />
    </div>
    {#if answer && !trouble}
      <p class="mt-2 text-[1.15rem]" data-testid="diagonal">
        Diagonal <strong class="text-[1.4rem]"><Fraction mm={answer.diagonal} {units} long /></strong>
      </p>
      {#if answer.three}
        <p class="text-pencil">
          Largest 3-4-5 on these legs: <strong class="text-ink"
            ><Fraction mm={answer.three.legA} {units} long />, <Fraction
              mm={answer.three.legB}
              {units}
              long
            />,
            <Fraction mm={answer.three.long} {units} long /></strong
          >. The bigger the triangle, the smaller the error.
        </p>
      {/if}
    {/if}
    <p class="text-pencil">
      Across both whole runs it is <strong class="text-ink"
        ><Fraction mm={square.whole} {units} long /></strong
      >, to check with at the end. By offset: <Fraction mm={Math.abs(square.along)} {units} />
      {square.along < 0 ? 'back along' : 'on past the corner along'}
      {name(here.c.before)}, then <Fraction mm={square.off} {units} long /> square off, is a leg of
      <Fraction mm={square.legB} {units} long />.
    </p>
    <div class="mt-2 max-w-56">
      <TapeEntry
        label="Diagonal as taped"
        optional
        long
        {units}
        value={taped}
        error={trouble}
        oncommit={(mm) => (taped = mm ?? undefined)}
      />
    </div>
    {#if answer?.check && taped !== undefined && !trouble}
      {@const c = answer.check}
      <div
        class="mt-2 border-l-4 px-3 py-2 {c.within ? 'border-l-good' : 'border-l-warn bg-warn-wash'}"
        aria-live="polite"
        data-testid="square-check"
      >
        {#if c.within}
          <p class="font-semibold">Right to the tape's mark.</p>
        {:else}
          <p class="leading-snug">
            Stands at <strong>{degrees(c.angle)}</strong>, {Math.abs(c.error).toFixed(2)}° too {c.error > 0
              ? 'open'
              : 'tight'}: the far end of {name(here.c.after)} is out by
            <strong><Fraction mm={c.farEnd} {units} /></strong>.
          </p>
          <p class="mt-1 text-[1.1rem] leading-snug">
            At the end of the taped leg move the string of {name(here.c.after)}
            <strong
              ><Fraction mm={c.atLeg} {units} />
              {c.move === 'in'
                ? `in, toward ${name(here.c.before)}`
                : `out, away from ${name(here.c.before)}`}</strong
            >.
          </p>
        {/if}
      </div>
    {/if}
  {/if}
</section>
