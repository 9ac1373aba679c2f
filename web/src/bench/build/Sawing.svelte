<script lang="ts">
  // The saw, and the lengths at hand from other jobs.
  import Plus from '@lucide/svelte/icons/plus'
  import Trash2 from '@lucide/svelte/icons/trash-2'
  import type { Built, Offcut } from '../../gen/api'
  import { at, newID } from '../../lib/doc'
  import type { Session } from '../../lib/session.svelte'
  import NumberEntry from '../../parts/NumberEntry.svelte'
  import TapeEntry from '../../parts/TapeEntry.svelte'
  import LengthField from '../LengthField.svelte'
  import * as msg from '../../gen/messages'

  let { session, built }: { session: Session; built: Built } = $props()
  const units = $derived(session.units)
  const metric = $derived(units.system === 'metric')
  const offcuts = $derived(session.value<Offcut[]>('/offcuts') ?? [])
  const path = (id: string, ...names: string[]) => at('/offcuts', id, ...names)
  const fields = [
    { key: 'thick', name: msg.build_thick },
    { key: 'width', name: msg.build_width },
    { key: 'length', name: msg.build_offcut_length },
  ] as const
  function add() {
    const fresh: Offcut = {
      id: newID(offcuts, 'O'),
      width: metric ? 75 : 88.9,
      thick: metric ? 38 : 38.1,
      length: metric ? 1200 : 1219.2,
      count: 1,
    }
    session.commit([{ path: path(fresh.id), value: fresh }], msg.build_offcut_added)
  }
</script>

<section class="mt-6 border-t border-rule pt-3">
  <h2 class="font-bold">{msg.build_saw}</h2>
  <div class="mt-1 grid max-w-2xl grid-cols-2 items-start gap-3 sm:grid-cols-3">
    <TapeEntry
      label={msg.build_kerf}
      {units}
      value={built.kerf}
      error={session.wrongAt('/saw/kerf')}
      oncommit={(mm) =>
        mm !== null && session.commit([{ path: '/saw/kerf', value: mm }], msg.build_saw_changed)}
    />
    <TapeEntry
      label={msg.build_keep}
      {units}
      value={built.keep}
      error={session.wrongAt('/saw/keep')}
      oncommit={(mm) =>
        mm !== null && session.commit([{ path: '/saw/keep', value: mm }], msg.build_saw_changed)}
    />
    <LengthField {session} path="/saw/trim" label={msg.build_trim} />
  </div>
  <div class="mt-3 flex flex-wrap items-center justify-between gap-2">
    <h3 class="font-semibold">{msg.build_offcuts}</h3>
    <button class="btn" onclick={add}><Plus size={18} aria-hidden="true" />{msg.build_offcut_add}</button>
  </div>
  {#if !offcuts.length}<p class="text-pencil">{msg.build_no_offcuts}</p>{/if}
  {#each offcuts as o, i (o.id)}
    <fieldset class="mt-2 grid grid-cols-2 items-end gap-2 sm:grid-cols-[repeat(4,minmax(0,1fr))_2.75rem]">
      <legend class="sr-only">{msg.build_offcut_n({ n: i + 1 })}</legend>
      {#each fields as f (f.key)}
        <LengthField {session} path={path(o.id, f.key)} label={f.name} />
      {/each}
      <NumberEntry
        label={msg.build_offcut_count}
        value={o.count}
        oncommit={(n) => session.commit([{ path: path(o.id, 'count'), value: n }], msg.build_saw_changed)}
      />
      <button
        class="btn btn-plain btn-icon"
        aria-label={msg.build_remove_offcut({ n: i + 1 })}
        onclick={() => session.commit([{ path: path(o.id), value: null }], msg.build_offcut_removed)}
        ><Trash2 size={18} aria-hidden="true" /></button
      >
    </fieldset>
  {/each}
</section>
