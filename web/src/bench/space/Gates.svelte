<script lang="ts">
  // The run's gates as far as spacing goes: where each stands. The rest is on
  // the Gates bench.
  import Plus from '@lucide/svelte/icons/plus'
  import Trash2 from '@lucide/svelte/icons/trash-2'
  import type { Gate } from '../../gen/api'
  import { fresh } from '../../lib/answer.svelte'
  import { at } from '../../lib/doc'
  import type { Session } from '../../lib/session.svelte'
  import Figure from '../../parts/Figure.svelte'
  import Fraction from '../../parts/Fraction.svelte'
  import LengthField from '../LengthField.svelte'
  import { ofGate } from '../../lib/figure'
  import * as msg from '../../gen/messages'

  let { session }: { session: Session } = $props()
  const units = $derived(session.units)
  const gates = $derived(session.value<Gate[]>(session.at('/gates')) ?? [])
  const planned = (id: string) => session.run.gates.find((g) => g.id === id)
  const walk = $derived(session.run.addGate.find((g) => g.id === 'walk'))

  /** One that is asked for while the last one is being planned is put where there is room then. */
  async function add() {
    if ((await fresh(() => session.worded)) && walk && !walk.refused)
      session.commit(walk.edits, `${walk.name} added`)
  }
  const path = (g: Gate, ...names: string[]) => at(session.at('/gates'), g.id, ...names)
  const remove = (g: Gate) =>
    session.commit([{ path: path(g), value: null }], msg.gates_taken_out({ v1: g.name || g.id }))
  const rename = (g: Gate, name: string) =>
    name !== (g.name ?? '') &&
    session.commit([{ path: path(g, 'name'), value: name }], msg.gates_gate_named({ name }))
</script>

<div class="mt-5 max-w-6xl">
  <div>
    <div class="flex items-center justify-between gap-3">
      <h2 class="font-bold">{msg.common_gates}</h2>
      <button class="btn" onclick={add} disabled={!walk || !!walk.refused} title={walk?.refused}
        ><Plus size={18} aria-hidden="true" />{msg.gates_add_a_gate}</button
      >
    </div>
    {#if !gates.length}<p class="text-pencil">
        {msg.gates_none_a_gate_s_opening}
      </p>{/if}
    {#each gates as g (g.id)}
      {@const p = planned(g.id)}
      <fieldset
        class="mt-2 grid grid-cols-2 items-start gap-2 border-t border-rule pt-2 sm:grid-cols-[1.2fr_1fr_1fr_auto_2.75rem]"
      >
        <legend class="sr-only">{g.name || g.id}</legend>
        <div>
          <label class="label mb-1" for="gate-{g.id}">{msg.common_name}</label>
          <input
            id="gate-{g.id}"
            class="field"
            maxlength="120"
            value={g.name ?? ''}
            onchange={(e) => rename(g, e.currentTarget.value.trim())}
          />
        </div>
        <LengthField {session} path={path(g, 'at')} label={msg.common_middle_at} long />
        <div>
          <div class="label mb-1">{msg.common_between_posts}</div>
          {#if p}<p class="pt-1.5 text-[1.15rem] font-bold">
              <Figure why={ofGate(session.run, p, 'inside')} of={msg.gates_inside({ v1: p.name || p.id })}
                ><Fraction mm={p.opening} {units} /></Figure
              >
            </p>{/if}
        </div>
        <button
          class="btn self-end"
          onclick={() => {
            session.gateID = g.id
            session.nav.stage = 'gates'
          }}>{msg.gates_size_and_hang_it}</button
        >
        <button
          class="btn btn-plain btn-icon sm:mt-6"
          aria-label={msg.gates_take_out({ v1: g.name || g.id })}
          onclick={() => remove(g)}><Trash2 size={18} /></button
        >
      </fieldset>
    {/each}
  </div>
</div>
