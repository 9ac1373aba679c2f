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
  import * as msg from '../../gen/messages'

  let { session }: { session: Session } = $props()
  const units = $derived(session.units)
  const all = $derived(session.value<KeepOut[]>(session.at('/keepOuts')) ?? [])
  const kinds: { value: KeepOut['kind']; name: string }[] = [
    { value: 'service', name: msg.in_the_way_service_pipe_or_cable },
    { value: 'root', name: msg.in_the_way_root },
    { value: 'rock', name: msg.common_rock },
    { value: 'drain', name: msg.in_the_way_drain },
    { value: 'footing', name: msg.in_the_way_old_footing },
    { value: 'old post', name: msg.in_the_way_existing_post },
    { value: 'no dig', name: msg.in_the_way_any_other_stretch },
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
    session.commit([{ path: path(fresh), value: fresh }], msg.in_the_way_add_obstruction_added)
  }
  function kind(k: KeepOut, value: string) {
    const next: KeepOut = { ...k, kind: value as KeepOut['kind'] }
    if (value === 'service') next.service ??= session.catalogue.services[0]!.id
    else delete next.service
    if (value !== 'service') delete next.hand
    if (value === 'footing' && !next.width) next.width = 12 * 25.4
    session.commit([{ path: path(k), value: next }], msg.in_the_way_in_the_way({ value }))
  }
</script>

<div class="flex flex-wrap items-center justify-between gap-2">
  <div>
    <h2 class="font-bold">{msg.in_the_way_in_the_way_on({ v1: session.run.name || session.run.id })}</h2>
    <p class="text-pencil">
      {msg.in_the_way_it_is_the_hole_that}
    </p>
  </div>
  <button class="btn" onclick={add} disabled={!session.run.length}
    ><Plus size={18} aria-hidden="true" />{msg.in_the_way_add_obstruction}</button
  >
</div>
{#if !all.length}<p class="mt-2 text-pencil">{msg.in_the_way_nothing_noted_yet}</p>{/if}
{#each all as k (k.id)}
  <fieldset class="mt-3 border-t border-rule pt-2">
    <legend class="sr-only"
      >{msg.in_the_way_at({ v1: k.name || kindName(k.kind), tape: tape(k.at, units) })}</legend
    >
    <div
      class="grid grid-cols-2 items-start gap-2 sm:grid-cols-3 xl:grid-cols-[1.3fr_1.3fr_1.1fr_0.85fr_1.3fr_0.95fr_2.75rem]"
    >
      <Pick label={msg.in_the_way_what} value={k.kind} options={kinds} onpick={(v) => kind(k, v)} />
      {#if k.kind === 'service'}
        <Pick
          label={msg.in_the_way_which}
          value={k.service ?? ''}
          options={session.catalogue.services.map((s) => ({ value: s.id, name: `${s.name}, ${s.colour}` }))}
          onpick={(v) =>
            session.commit(
              [{ path: path(k), value: { ...k, service: v, hand: service(v)?.hand ?? k.hand } }],
              msg.in_the_way_service({ v1: service(v)?.name ?? '' }),
            )}
        />
      {:else}
        <div>
          <label class="label mb-1" for="way-{k.id}">{msg.common_name}</label>
          <input
            id="way-{k.id}"
            class="field"
            maxlength="120"
            value={k.name ?? ''}
            onchange={(e) =>
              session.commit(
                [{ path: `${path(k)}/name`, value: e.currentTarget.value.trim() }],
                msg.in_the_way_named,
              )}
          />
        </div>
      {/if}
      <LengthField {session} path="{path(k)}/at" label={msg.common_middle_at} long />
      <LengthField {session} path="{path(k)}/width" label={msg.in_the_way_wide} optional />
      <LengthField {session} path="{path(k)}/hand" label={msg.in_the_way_hand_dig_each_side} optional />
      <LengthField {session} path="{path(k)}/depth" label={msg.in_the_way_top_is_deep} optional />
      <button
        class="btn btn-plain btn-icon xl:mt-6"
        aria-label={msg.in_the_way_take_out_at({ v1: k.name || kindName(k.kind), tape: tape(k.at, units) })}
        onclick={() =>
          session.commit(
            [{ path: path(k), value: null }],
            msg.in_the_way_taken_out({ kindName: kindName(k.kind) }),
          )}><Trash2 size={18} /></button
      >
    </div>
    <div class="mt-1.5 flex flex-wrap items-start gap-x-4 gap-y-1">
      {#if k.kind === 'old post'}
        <Choice
          label={msg.common_it}
          value={k.stays ? 'stays' : 'goes'}
          options={[
            { value: 'stays', name: msg.in_the_way_stays },
            { value: 'goes', name: msg.in_the_way_goes },
          ]}
          onpick={(v) =>
            session.commit(
              [{ path: `${path(k)}/stays`, value: v === 'stays' }],
              msg.in_the_way_existing_post_2({ v1: v }),
            )}
        />
        {#if k.stays}
          <div class="w-48">
            <LengthField {session} path="{path(k)}/tall" label={msg.in_the_way_tall} optional />
          </div>
          <div class="w-48">
            <LengthField {session} path="{path(k)}/lowHinge" label={msg.in_the_way_low_hinge} optional />
          </div>
          <div class="w-48">
            <LengthField {session} path="{path(k)}/highHinge" label={msg.in_the_way_high_hinge} optional />
          </div>
        {/if}
      {/if}
      {#if k.marked}<span class="font-medium"
          >{msg.in_the_way_marked_on_the_ground_by({ v1: service(k.service)?.colour ?? '' })}</span
        >{/if}
      {#if hit(k.id).length}<strong class="text-stop"
          >{msg.in_the_way_holes_of_run_into_it({ v1: hit(k.id).join(', ') })}</strong
        >{/if}
      {#if hand(k.id).length}<span class="font-medium text-warn"
          >{msg.in_the_way_dig_by_hand({ v1: hand(k.id).join(', ') })}</span
        >{/if}
    </div>
  </fieldset>
{/each}
