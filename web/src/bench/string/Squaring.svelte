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
  import * as msg from '../../gen/messages'

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
  <h2 id="square-title" class="font-bold">{msg.squaring_squaring_a_corner}</h2>
  {#if !here || !square}
    <p class="mt-1 text-pencil">{msg.squaring_the_line_has_no_corner}</p>
  {:else}
    <div class="mt-2 grid grid-cols-2 items-start gap-2">
      <Pick
        label={msg.common_corner}
        value={String(here.i)}
        options={corners.map(({ c, i }) => ({
          value: String(i),
          name: msg.squaring_to({ name: name(c.before), name2: name(c.after) }),
        }))}
        onpick={(v) => pick(Number(v))}
      />
      <Pick
        label={msg.squaring_angle_between_the_runs}
        value={angle}
        options={[
          { value: 'planned', name: msg.squaring_as_planned({ degrees: degrees(here.c.interior ?? 90) }) },
          { value: 'right', name: msg.squaring_square_90 },
        ]}
        onpick={(v) => (angle = v as typeof angle)}
      />
      <TapeEntry
        label={msg.squaring_leg_on({ name: name(here.c.before) })}
        {units}
        value={legA}
        long
        oncommit={(mm) => (own.a = mm ?? undefined)}
      />
      <TapeEntry
        label={msg.squaring_leg_on({ name: name(here.c.after) })}
        {units}
        value={legB}
        long
        oncommit={(mm) => (own.b = mm ?? undefined)}
      />
    </div>
    {#if answer && !trouble}
      <p class="mt-2 text-[1.15rem]" data-testid="diagonal">
        {msg.common_diagonal}
        <strong class="text-[1.4rem]"><Fraction mm={answer.diagonal} {units} long /></strong>
      </p>
      {#if answer.three}
        <p class="text-pencil">
          {msg.squaring_largest_3_4_5_on}
          <strong class="text-ink"
            ><Fraction mm={answer.three.legA} {units} long />, <Fraction
              mm={answer.three.legB}
              {units}
              long
            />,
            <Fraction mm={answer.three.long} {units} long /></strong
          >{msg.squaring_the_bigger_the_triangle_the}
        </p>
      {/if}
    {/if}
    <p class="text-pencil">
      {msg.squaring_across_both_whole_runs_it}
      <strong class="text-ink"><Fraction mm={square.whole} {units} long /></strong
      >{msg.squaring_to_check_with_at_the}
      <Fraction mm={Math.abs(square.along)} {units} />
      {msg.squaring_then({
        v1: square.along < 0 ? msg.squaring_back_along : msg.squaring_on_past_the_corner_along,
        name: name(here.c.before),
      })}
      <Fraction mm={square.off} {units} long />
      {msg.squaring_square_off_is_a_leg}
      <Fraction mm={square.legB} {units} long />.
    </p>
    <div class="mt-2 max-w-56">
      <TapeEntry
        label={msg.squaring_diagonal_as_taped}
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
          <p class="font-semibold">{msg.squaring_right_to_the_tape_s}</p>
        {:else}
          <p class="leading-snug">
            {msg.common_stands_at} <strong>{degrees(c.angle)}</strong>{msg.squaring_too_the_far_end_of({
              v1: Math.abs(c.error).toFixed(2),
              v2: c.error > 0 ? msg.common_open_2 : msg.squaring_tight,
              name: name(here.c.after),
            })}
            <strong><Fraction mm={c.farEnd} {units} /></strong>.
          </p>
          <p class="mt-1 text-[1.1rem] leading-snug">
            {msg.squaring_at_the_end_of_the({ name: name(here.c.after) })}
            <strong
              ><Fraction mm={c.atLeg} {units} />
              {c.move === 'in'
                ? msg.squaring_in_toward({ name: name(here.c.before) })
                : msg.squaring_out_away_from({ name: name(here.c.before) })}</strong
            >.
          </p>
        {/if}
      </div>
    {/if}
  {/if}
</section>
