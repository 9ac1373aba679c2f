<script lang="ts">
  import Plus from '@lucide/svelte/icons/plus'
  import Trash2 from '@lucide/svelte/icons/trash-2'
  import type { Gate } from '../../gen/api'
  import { freshID } from '../../lib/hold'
  import type { Session } from '../../lib/session.svelte'
  import LengthField from '../LengthField.svelte'

  let { session }: { session: Session } = $props()
  const gates = $derived(session.value<Gate[]>(session.at('/gates')) ?? [])

  /** A new gate goes into the middle of the longest stretch of fence. */
  function add() {
    const usual = session.catalogue.gates[session.units.system]!
    const open = session.run.segments.filter((s) => !s.gate)
    const s = open.reduce((a, b) => (b.to - b.from > a.to - a.from ? b : a))
    const id = freshID(gates, 'G')
    const gate: Gate = {
      ...usual,
      id,
      name: id.replace('G', 'Gate '),
      at: Math.round((s.from + s.to) / 2 / 304.8) * 304.8,
    }
    session.commit([{ path: session.at('/gates'), value: [...gates, gate] }], `${gate.name} added`)
  }
  const remove = (i: number) =>
    session.commit(
      [{ path: session.at('/gates'), value: gates.filter((_, k) => k !== i) }],
      `${gates[i]!.name || gates[i]!.id} taken out`,
    )
  const rename = (i: number, name: string) =>
    name !== (gates[i]!.name ?? '') &&
    session.commit([{ path: session.at(`/gates/${i}/name`), value: name }], `Gate named ${name}`)
</script>

<div class="mt-5 max-w-6xl">
  <div>
    <div class="flex items-center justify-between gap-3">
      <h2 class="font-bold">Gates</h2>
      <button class="btn" onclick={add} disabled={!session.run.posts.length}
        ><Plus size={18} aria-hidden="true" />Add a gate</button
      >
    </div>
    {#if !gates.length}<p class="text-pencil">
        None. A gate's opening is exact; the fence's bays give way to it.
      </p>{/if}
    {#each gates as g, i (g.id)}
      <fieldset
        class="mt-2 grid grid-cols-2 items-start gap-2 border-t border-rule pt-2 sm:grid-cols-[1.2fr_1fr_1fr_1fr_2.75rem]"
      >
        <legend class="sr-only">{g.name || g.id}</legend>
        <div>
          <label class="label mb-1" for="gate-{g.id}">Name</label>
          <input
            id="gate-{g.id}"
            class="field"
            maxlength="120"
            value={g.name ?? ''}
            onchange={(e) => rename(i, e.currentTarget.value.trim())}
          />
        </div>
        <LengthField {session} path={session.at(`/gates/${i}/at`)} label="Middle at" long />
        <LengthField {session} path={session.at(`/gates/${i}/opening`)} label="Clear opening" />
        <LengthField {session} path={session.at(`/gates/${i}/gap`)} label="Gap under" />
        <button
          class="btn btn-plain btn-icon sm:mt-6"
          aria-label="Take out {g.name || g.id}"
          onclick={() => remove(i)}><Trash2 size={18} /></button
        >
      </fieldset>
    {/each}
  </div>
</div>
