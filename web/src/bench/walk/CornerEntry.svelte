<script lang="ts">
  // How the line turns at the start of the run, in the way it was measured.
  import type { Corner } from '../../gen/api'
  import type { Session } from '../../lib/session.svelte'
  import { degrees, turnText } from '../../lib/turn'
  import Choice from '../../parts/Choice.svelte'
  import Figure from '../../parts/Figure.svelte'
  import NumberEntry from '../../parts/NumberEntry.svelte'
  import Pick from '../../parts/Pick.svelte'
  import LengthField from '../LengthField.svelte'
  import * as msg from '../../gen/messages'

  let { session, before, check }: { session: Session; before: string; check: boolean } = $props()
  const path = $derived(session.at('/corner'))
  const corner = $derived(session.value<Corner>(path))
  const planned = $derived(session.line.corners.find((c) => c.after === session.run.id))
  const by = $derived(corner?.by ?? 'none')
  const side = $derived(corner?.side ?? 'left')
  const ways = [
    { value: 'none', name: msg.common_not_measured },
    { value: 'diagonal', name: msg.corner_entry_a_measured_diagonal },
    { value: 'interior', name: msg.corner_entry_angle_between_the_runs },
    { value: 'deflection', name: msg.corner_entry_turn_off_the_straight_on },
    { value: 'offset', name: msg.corner_entry_an_offset },
  ]
  function set(value: Corner | null) {
    session.commit(
      [{ path, value }],
      value ? msg.corner_entry_corner_by({ by: value.by }) : msg.corner_entry_corner_not_measured,
    )
  }
  /** Another way of measuring starts from the corner as it stands. */
  function way(v: string) {
    if (v === 'none') return set(null)
    const turn = Math.abs(planned?.turn ?? 90)
    const hand = planned?.side ?? side
    const square = planned?.square
    if (v === 'diagonal')
      set({
        by: 'diagonal',
        side: hand,
        back: square?.legA,
        forth: square?.legB,
        diagonal: square?.diagonal ?? 0,
      })
    else if (v === 'interior') set({ by: 'interior', side: hand, angle: 180 - turn })
    else if (v === 'deflection') set({ by: 'deflection', side: hand, angle: turn })
    else set({ by: 'offset', side: hand, along: square?.along ?? 0, off: square?.off ?? 3000 })
  }
</script>

<div class="flex flex-wrap items-baseline gap-x-3">
  <h3 class="font-bold">
    {msg.corner_entry_corner_from({ before, v2: check ? msg.corner_entry_a_check_closing_decides : '' })}
  </h3>
  {#if planned?.turn !== undefined}
    <span>
      {msg.corner_entry_turns} <strong>{turnText(planned)}</strong>,
      {#if planned.square}
        <Figure
          why={{ line: session.line.id, of: 'corner', id: planned.after ?? '' }}
          of={msg.corner_entry_the_corner}
          ><strong>{degrees(planned.interior ?? 180)}</strong> {msg.corner_entry_between_the_runs}</Figure
        >
      {/if}
      {#if !planned.measured}<em>{msg.corner_entry_found_from_closing}</em>{/if}
    </span>
  {:else}<span class="text-warn">{msg.corner_entry_not_known_yet_drawn_straight}</span>{/if}
</div>
<div class="mt-2 grid grid-cols-2 items-start gap-2 pr-2 sm:grid-cols-3">
  <div class="col-span-2">
    <Pick label={msg.corner_entry_measured_by} value={by} options={ways} onpick={way} />
  </div>
  {#if corner}
    <div class="max-sm:col-span-2">
      <Choice
        label={msg.common_turns}
        value={side}
        options={[
          { value: 'left', name: msg.corner_entry_left },
          { value: 'right', name: msg.corner_entry_right },
        ]}
        onpick={(v) =>
          session.commit([{ path: `${path}/side`, value: v }], msg.corner_entry_corner_turns({ v1: v }))}
      />
    </div>
    {#if by === 'deflection' || by === 'interior'}
      <NumberEntry
        label={by === 'interior'
          ? msg.corner_entry_degrees_between_the_runs
          : msg.corner_entry_corner_angle_90_is_square}
        value={corner.angle ?? 0}
        error={session.wrongAt(`${path}/angle`)}
        oncommit={(n) =>
          session.commit([{ path: `${path}/angle`, value: n }], msg.corner_entry_corner({ v1: n }))}
      />
    {:else if by === 'offset'}
      <LengthField
        {session}
        path="{path}/along"
        label={msg.corner_entry_along_the_old_line}
        hint={msg.corner_entry_minus_back_along_it}
      />
      <LengthField {session} path="{path}/off" label={msg.corner_entry_then_square_off} />
    {:else}
      <LengthField
        {session}
        path="{path}/back"
        label={msg.corner_entry_leg_back}
        optional
        hint={corner.back === undefined || corner.back === null ? msg.corner_entry_the_whole_run_before : ''}
      />
      <LengthField
        {session}
        path="{path}/forth"
        label={msg.corner_entry_leg_forth}
        optional
        hint={corner.forth === undefined || corner.forth === null ? msg.corner_entry_this_whole_run : ''}
      />
      <LengthField {session} path="{path}/diagonal" label={msg.common_diagonal} long />
    {/if}
  {:else}
    <NumberEntry
      label={msg.corner_entry_corner_angle_90_is_square}
      value={undefined}
      oncommit={(n) => set({ by: 'interior', side, angle: n })}
    />
  {/if}
</div>
