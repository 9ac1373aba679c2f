<script lang="ts">
  // What is in the way of holes on the run.
  import Plus from '@lucide/svelte/icons/plus'
  import Trash2 from '@lucide/svelte/icons/trash-2'
  import type { KeepOut } from '../../gen/api'
  import { at, newID } from '../../lib/doc'
  import type { Session } from '../../lib/session.svelte'
  import { tape } from '../../lib/tape'
  import Choice from '../../parts/Choice.svelte'
  import Pick from '../../parts/Pick.svelte'
  import LengthField from '../LengthField.svelte'

  let { session }: { session: Session } = $props()
  const units = $derived(session.units)
  const all = $derived(session.value<KeepOut[]>(session.at('/keepOuts')) ?? [])
  const kinds: { value: KeepOut['kind']; name: string }[] = [
    { value: 'service', name: 'Service: pipe or cable' },
    { value: 'root', name: 'Root' },
    { value: 'rock', name: 'Rock' },
    { value: 'drain', name: 'Drain' },
    { value: 'footing', name: 'Old footing' },
    { value: 'old post', name: 'Existing post' },
    { value: 'no dig', name: 'Any other stretch' },
  ]
  const kindName = (k: string) => kinds.find((o) => o.value === k)?.name ?? k
  const path = (k: KeepOut, ...names: string[]) => at(session.at('/keepOuts'), k.id, ...names)
  const service = (id?: string) => session.catalogue.services.find((s) => s.id === id)
  const hit = (id: string) => session.run.posts.filter((p) => p.inWay?.includes(id)).map((p) => p.label)
  const hand = (id: string) => session.run.posts.filter((p) => p.hand?.includes(id)).map((p) => p.label)

  function add() {
    const first = session.catalogue.services.find((s) => s.id === 'water') ?? session.catalogue.services[0]!
    const station = session.run.posts[session.post]?.station ?? session.run.length / 2
    const fresh: KeepOut = {
      id: newID(all, 'K'),
      kind: 'service',
      service: first.id,
      at: station,
      hand: first.hand,
    }
    session.commit([{ path: path(fresh), value: fresh }], 'Add obstruction added')
  }
  function kind(k: KeepOut, value: string) {
    const next: KeepOut = { ...k, kind: value as KeepOut['kind'] }
    if (value === 'service') next.service ??= session.catalogue.services[0]!.id
    else delete next.service
    if (value !== 'service') delete next.hand
    if (value === 'footing' && !next.width) next.width = 12 * 25.4
    session.commit([{ path: path(k), value: next }], `In the way: ${value}`)
  }
</script>

<div class="flex flex-wrap items-center justify-between gap-2">
  <div>
    <h2 class="font-bold">In the way on {session.run.name || session.run.id}</h2>
    <p class="text-pencil">
      It is the hole that must miss, not the post's centre. Depths of services are never relied on.
    </p>
  </div>
  <button class="btn" onclick={add} disabled={!session.run.length}
    ><Plus size={18} aria-hidden="true" />Add obstruction</button
  >
</div>
{#if !all.length}<p class="mt-2 text-pencil">Nothing noted yet.</p>{/if}
{#each all as k (k.id)}
  <fieldset class="mt-3 border-t border-rule pt-2">
    <legend class="sr-only">{k.name || kindName(k.kind)} at {tape(k.at, units)}</legend>
    <div
      class="grid grid-cols-2 items-start gap-2 sm:grid-cols-3 xl:grid-cols-[1.3fr_1.3fr_1.1fr_0.85fr_1.3fr_0.95fr_2.75rem]"
    >
      <Pick label="What" value={k.kind} options={kinds} onpick={(v) => kind(k, v)} />
      {#if k.kind === 'service'}
        <Pick
          label="Which"
          value={k.service ?? ''}
          options={session.catalogue.services.map((s) => ({ value: s.id, name: `${s.name}, ${s.colour}` }))}
          onpick={(v) =>
            session.commit(
              [{ path: path(k), value: { ...k, service: v, hand: service(v)?.hand ?? k.hand } }],
              `Service: ${service(v)?.name}`,
            )}
        />
      {:else}
        <div>
          <label class="label mb-1" for="way-{k.id}">Name</label>
          <input
            id="way-{k.id}"
            class="field"
            maxlength="120"
            value={k.name ?? ''}
            onchange={(e) =>
              session.commit([{ path: `${path(k)}/name`, value: e.currentTarget.value.trim() }], 'Named')}
          />
        </div>
      {/if}
      <LengthField {session} path="{path(k)}/at" label="Middle at" long />
      <LengthField {session} path="{path(k)}/width" label="Wide" optional />
      <LengthField {session} path="{path(k)}/hand" label="Hand-dig each side" optional />
      <LengthField {session} path="{path(k)}/depth" label="Top is deep" optional />
      <button
        class="btn btn-plain btn-icon xl:mt-6"
        aria-label="Take out {k.name || kindName(k.kind)} at {tape(k.at, units)}"
        onclick={() => session.commit([{ path: path(k), value: null }], `${kindName(k.kind)} taken out`)}
        ><Trash2 size={18} /></button
      >
    </div>
    <div class="mt-1.5 flex flex-wrap items-center gap-x-5 gap-y-1">
      {#if k.kind === 'old post'}
        <Choice
          label="It"
          value={k.stays ? 'stays' : 'goes'}
          options={[
            { value: 'stays', name: 'Stays' },
            { value: 'goes', name: 'Goes' },
          ]}
          onpick={(v) =>
            session.commit([{ path: `${path(k)}/stays`, value: v === 'stays' }], `Existing post ${v}`)}
        />
      {/if}
      {#if k.marked}<span class="font-medium"
          >Marked on the ground by the office, {service(k.service)?.colour}</span
        >{/if}
      {#if hit(k.id).length}<strong class="text-stop">Holes of {hit(k.id).join(', ')} run into it</strong
        >{/if}
      {#if hand(k.id).length}<span class="font-medium text-warn">Dig {hand(k.id).join(', ')} by hand</span
        >{/if}
    </div>
  </fieldset>
{/each}
