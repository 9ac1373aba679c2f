<script lang="ts">
  // The look of the run and what it asks: each choice with what it costs.
  import type { Grade } from '../../gen/api'
  import type { Session } from '../../lib/session.svelte'
  import { bulk, short } from '../../lib/tape'
  import Choice from '../../parts/Choice.svelte'
  import Pick from '../../parts/Pick.svelte'
  import LengthField from '../LengthField.svelte'
  import NumberField from '../NumberField.svelte'
  import LookParts from './LookParts.svelte'
  import * as msg from '../../gen/messages'

  let { session }: { session: Session } = $props()
  const looks = $derived(session.catalogue.choices['grade/look']!)
  const stepWays = $derived(session.catalogue.choices['grade/steps']!)
  const grade = $derived(session.value<Grade>(session.at('/grade')))
  const had = $derived(looks.map((l) => ({ ...l, refused: session.run.looksRefused[l.value] })))
  const units = $derived(session.units)
  const chosen = (field: string) => session.choice(session.at(`/grade/${field}`))
  const look = $derived(chosen('look'))
  const give = $derived(chosen('give'))
  const steps = $derived(chosen('steps'))
  const present = $derived(new Set<string>([look, ...(grade?.parts ?? []).map((p) => p.look)]))
  const leans = $derived(present.has('raked') || present.has('rolling'))
  const totals = $derived(session.run.totals)
  const set = (field: string, value: unknown, what: string) =>
    session.commit([{ path: session.at(`/grade/${field}`), value }], what)
  const named = (value: string, list: { value: string; name: string }[]) =>
    list.find((o) => o.value === value)?.name ?? value

  const stiff = $derived(session.value<number>(session.at('/grade/straight')) ?? 0)
  const soil = $derived(
    [
      totals.cut > 1e-6 ? `cut ${bulk(totals.cut, units)}` : '',
      totals.fill > 1e-6 ? `fill ${bulk(totals.fill, units)}` : '',
      totals.infillBoards ? msg.look_infill_boards({ infillBoards: totals.infillBoards }) : '',
    ]
      .filter(Boolean)
      .join(', '),
  )
</script>

<div class="grid max-w-6xl gap-x-8 gap-y-4 lg:grid-cols-2">
  <div class="grid min-w-0 grid-cols-1 content-start gap-4">
    <Choice
      label={msg.look_on_the_slope}
      value={look}
      options={had}
      onpick={(v) => set('look', v, named(v, looks))}
    />
    {#if present.has('stepped')}
      <Choice
        label={msg.look_steps}
        value={steps}
        options={stepWays}
        onpick={(v) => set('steps', v, `Steps: ${named(v, stepWays).toLowerCase()}`)}
      />
    {/if}
  </div>
  <div class="grid min-w-0 grid-cols-1 content-start gap-4">
    {#if present.has('raked') || (present.has('stepped') && steps === 'gradual')}
      <div>
        <label for="stiff" class="label mb-1">{msg.look_follow_the_ground_straight_line}</label>
        <input
          id="stiff"
          type="range"
          min="0"
          max="100"
          step="5"
          class="h-11 w-full accent-(--mallow)"
          value={Math.round(stiff * 100)}
          aria-valuetext={msg.look_of_100_towards_straight({ round: Math.round(stiff * 100) })}
          oninput={(e) =>
            session.preview(
              [{ path: session.at('/grade/straight'), value: +e.currentTarget.value / 100 }],
              true,
            )}
          onchange={(e) =>
            set('straight', +e.currentTarget.value / 100, `${e.currentTarget.value} % straight`)}
        />
        <p class="flex justify-between text-[0.9rem] text-pencil">
          <span>{msg.look_every_bump_shows_on_top}</span><span>{msg.look_bumps_are_taken_out_gaps}</span>
        </p>
      </div>
    {/if}
    <p class="border-l-4 border-l-line bg-sheet px-3 py-2" data-testid="grade-sums">
      {totals.gradePosts}
      {totals.gradePosts === 1 ? msg.look_grade_post : msg.look_grade_posts}, {totals.steps}
      {totals.steps === 1 ? 'step' : 'steps'}{soil ? `; ${soil}` : msg.look_no_earth_to_move}.
      {#if session.run.topLine?.limit}
        {@const l = session.run.topLine.limit}
        <span class="block"
          >{msg.look_is_the_post_that_limits({
            post: l.post,
            v2:
              l.spare >= 0
                ? msg.look_more_and_the_longest_stock({
                    short: short(l.spare, units),
                    short2: short(l.stock, units),
                  })
                : msg.look_the_longest_stock_is_too({
                    short: short(l.stock, units),
                    short2: short(-l.spare, units),
                  }),
          })}</span
        >
      {/if}
    </p>
    <Choice
      label={msg.look_where_both_gaps_cannot_be}
      value={give}
      options={session.catalogue.choices['grade/give']!}
      onpick={(v) =>
        set(
          'give',
          v,
          v === 'both' ? msg.look_half_cut_half_fill : v === 'cut' ? msg.common_cut : msg.common_fill,
        )}
    />
  </div>
  <div class="grid grid-cols-2 gap-3 sm:grid-cols-3 lg:col-span-2 lg:grid-cols-5">
    <LengthField {session} path={session.at('/fence/height')} label={msg.look_fence_height} />
    <LengthField {session} path={session.at('/fence/gapLeast')} label={msg.look_least_gap_under_it} />
    <LengthField {session} path={session.at('/fence/gapMost')} label={msg.look_most_gap_under_it} />
    <LengthField
      {session}
      path={session.at('/grade/startGap')}
      label={msg.look_gap_held_at_the_first}
      optional
    />
    <LengthField
      {session}
      path={session.at('/grade/endGap')}
      label={msg.look_gap_held_at_the_last}
      optional
    />
    {#if leans}
      <LengthField {session} path={session.at('/grade/rack')} label={msg.look_panel_racks_at_most} optional />
    {/if}
    {#if present.has('rolling')}
      <LengthField {session} path={session.at('/grade/dips')} label={msg.look_take_out_dips_up_to} optional />
    {/if}
    {#if present.has('stepped') && steps === 'round'}
      <LengthField
        {session}
        path={session.at('/grade/stepBy')}
        label={msg.look_drop_by_multiples_of}
        optional
      />
      <NumberField {session} path={session.at('/grade/holdLevel')} label={msg.look_panels_level_at_the_top} />
      <NumberField
        {session}
        path={session.at('/grade/stepEase')}
        label={msg.look_drop_may_change_by_increments}
      />
    {/if}
    {#if present.has('stepped') && (steps === 'round' || steps === 'gradual')}
      <LengthField {session} path={session.at('/grade/stepMost')} label={msg.look_drop_at_most} optional />
    {/if}
    {#if present.has('stepped') || present.has('level')}
      <Pick
        label={msg.look_under_the_low_end}
        value={chosen('infill')}
        options={session.catalogue.choices['grade/infill']!}
        onpick={(v) => set('infill', v, `Infill: ${v}`)}
      />
      {#if chosen('infill') !== 'earth'}
        <LengthField
          {session}
          path={session.at('/grade/board')}
          label={msg.look_height_of_a_board}
          optional
        />
      {/if}
    {/if}
    <Pick
      label={msg.look_tops_over_a_gate}
      value={chosen('across')}
      options={session.catalogue.choices['grade/across']!}
      onpick={(v) => set('across', v, v === 'flat' ? msg.look_gates_flat : msg.common_tops_go_on_over_gates)}
    />
    <LengthField {session} path={session.at('/post/above')} label={msg.look_post_above_the_fence} />
    <LengthField {session} path={session.at('/grade/strip')} label={msg.look_strip_that_is_cut_or} optional />
    <LengthField
      {session}
      path={session.at('/grade/placed')}
      label={msg.look_fill_compacted_first}
      optional
    />
  </div>
</div>
<LookParts {session} />
