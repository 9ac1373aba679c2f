<script lang="ts">
  // How the ground lies beside the gate, on one side: heights over the line's.
  import Plus from '@lucide/svelte/icons/plus'
  import Trash2 from '@lucide/svelte/icons/trash-2'
  import type { GroundLevel, PlannedGate } from '../../gen/api'
  import { at, newID } from '../../lib/doc'
  import type { Session } from '../../lib/session.svelte'
  import { round } from '../../lib/tape'
  import LengthField from '../LengthField.svelte'
  import * as msg from '../../gen/messages'

  interface Props {
    session: Session
    gate: PlannedGate
    side: 'in' | 'out'
    levels: GroundLevel[]
    reach: number
  }
  let { session, gate, side, levels, reach }: Props = $props()
  const path = $derived(`${gate.path}/${side}`)
  const name = $derived(gate.name || gate.id)
  /** A new one goes to where the leaf reaches, or as far again past the last. */
  function add() {
    const last = levels[levels.length - 1]
    const off = last ? last.off + Math.max(round(reach / 4, session.units), 300) : round(reach, session.units)
    const id = newID(levels, 'n')
    session.commit(
      [{ path: at(path, id), value: { id, off, first: last?.first ?? 0 } }],
      msg.levels_ground_side_measured({ side, name }),
    )
  }
  const remove = (id: string) =>
    session.commit(
      [{ path: levels.length > 1 ? at(path, id) : path, value: null }],
      msg.levels_a_height_side_taken_out({ side, name }),
    )
</script>

<section aria-label={msg.levels_ground_side({ side, name })}>
  <div class="flex items-center justify-between gap-2">
    <h2 class="font-bold">{msg.levels_ground_side_over_that_on({ side })}</h2>
    <button class="btn" onclick={add}><Plus size={18} aria-hidden="true" />{msg.levels_add_a_height}</button>
  </div>
  {#if !levels.length}<p class="text-pencil">{msg.levels_taken_as_on_the_line}</p>{/if}
  {#each levels as l, i (l.id)}
    <fieldset class="mt-1 grid grid-cols-[1fr_1fr_1fr_2.75rem] items-start gap-2 border-t border-rule pt-1">
      <legend class="sr-only">{msg.levels_height_side({ v1: i + 1, side })}</legend>
      <LengthField {session} path={at(path, l.id!, 'off')} label={msg.levels_off_the_line} />
      <LengthField {session} path={at(path, l.id!, 'first')} label={msg.levels_at({ first: gate.first })} />
      <LengthField
        {session}
        path={at(path, l.id!, 'second')}
        label={msg.levels_at_2({ second: gate.second })}
        optional
        hint={l.second === undefined ? msg.levels_the_same : ''}
      />
      <button
        class="btn btn-plain btn-icon mt-6"
        aria-label={msg.levels_take_out_height_side({ v1: i + 1, side })}
        onclick={() => remove(l.id!)}><Trash2 size={18} /></button
      >
    </fieldset>
  {/each}
</section>
