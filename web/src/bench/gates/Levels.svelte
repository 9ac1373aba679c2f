<script lang="ts">
  // How the ground lies beside the gate, on one side: heights over the line's.
  import Plus from '@lucide/svelte/icons/plus'
  import Trash2 from '@lucide/svelte/icons/trash-2'
  import type { GroundLevel, PlannedGate } from '../../gen/api'
  import { at, newID } from '../../lib/doc'
  import type { Session } from '../../lib/session.svelte'
  import { round } from '../../lib/tape'
  import LengthField from '../LengthField.svelte'

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
      `Ground ${side}side ${name} measured`,
    )
  }
  const remove = (id: string) =>
    session.commit(
      [{ path: levels.length > 1 ? at(path, id) : path, value: null }],
      `A height ${side}side ${name} taken out`,
    )
</script>

<section aria-label="Ground {side}side {name}">
  <div class="flex items-center justify-between gap-2">
    <h2 class="font-bold">Ground {side}side, over that on the line</h2>
    <button class="btn" onclick={add}><Plus size={18} aria-hidden="true" />Add a height</button>
  </div>
  {#if !levels.length}<p class="text-pencil">Taken as on the line: measure it where the leaf reaches.</p>{/if}
  {#each levels as l, i (l.id)}
    <fieldset class="mt-1 grid grid-cols-[1fr_1fr_1fr_2.75rem] items-start gap-2 border-t border-rule pt-1">
      <legend class="sr-only">Height {i + 1} {side}side</legend>
      <LengthField {session} path={at(path, l.id!, 'off')} label="Off the line" />
      <LengthField {session} path={at(path, l.id!, 'first')} label="At {gate.first}" />
      <LengthField
        {session}
        path={at(path, l.id!, 'second')}
        label="At {gate.second}"
        optional
        hint={l.second === undefined ? 'the same' : ''}
      />
      <button
        class="btn btn-plain btn-icon mt-6"
        aria-label="Take out height {i + 1} {side}side"
        onclick={() => remove(l.id!)}><Trash2 size={18} /></button
      >
    </fieldset>
  {/each}
</section>
