<script lang="ts">
  // Posts and bays that are held, so that the rest is spaced around them:
  // where a post really landed, where it is wanted, a bay of its own width.
  import Plus from '@lucide/svelte/icons/plus'
  import Trash2 from '@lucide/svelte/icons/trash-2'
  import type { View } from '../../drawing/view.svelte'
  import type { FixedPost, HeldBay, PlannedPost } from '../../gen/api'
  import { at, newID } from '../../lib/doc'
  import { holdAt, letGo, newHold } from '../../lib/hold'
  import { landed } from '../../lib/observed'
  import type { Session } from '../../lib/session.svelte'
  import { tape } from '../../lib/tape'
  import Choice from '../../parts/Choice.svelte'
  import TapeEntry from '../../parts/TapeEntry.svelte'
  import LengthField from '../LengthField.svelte'
  import * as msg from '../../gen/messages'

  let { session, view }: { session: Session; view: View } = $props()
  const units = $derived(session.units)
  const posts = $derived(session.value<FixedPost[]>(session.at('/fixedPosts')) ?? [])
  const bays = $derived(session.value<HeldBay[]>(session.at('/heldBays')) ?? [])
  const named = (id: string) => session.run.posts.find((p) => p.held === id)
  const current = $derived(session.run.posts[session.post])

  const path = (id: string, ...names: string[]) => at(session.at('/fixedPosts'), id, ...names)
  const bayPath = (id: string, ...names: string[]) => at(session.at('/heldBays'), id, ...names)
  function kind(f: FixedPost): string {
    return named(f.id)?.landed ? 'landed' : f.grade ? 'grade' : 'wanted'
  }
  function setKind(f: FixedPost, v: string) {
    if (v === kind(f)) return
    const next = { id: f.id, at: f.at, ...(v === 'grade' ? { grade: true } : {}) }
    const post = named(f.id)
    const seen =
      post && (v === 'landed' || post.landed) ? landed(session, post, v === 'landed' ? f.at : null) : []
    session.commit([{ path: path(f.id), value: next }, ...seen], msg.held_held_post({ v1: v }))
  }
  /** Whether the other posts are spaced again from a post that landed off its mark. */
  function respace(id: string, v: string) {
    session.commit(
      [{ path: path(id, 'respace'), value: v === 'all' ? true : null }],
      v === 'all' ? msg.held_the_rest_spaced_again : msg.held_only_the_bays_beside_it,
    )
  }
  /** Taped again: where it landed was read wrong. */
  const stands = (f: FixedPost, p: PlannedPost, mm: number) =>
    session.commit(
      [{ path: path(f.id, 'at'), value: mm }, ...landed(session, p, mm)],
      msg.held_landed_at({ label: p.label, tape: tape(mm, units) }),
    )
  function hold() {
    if (!current) return
    session.commit(
      holdAt(session, newHold(session), current.station),
      msg.common_kept_at({ label: current.label, tape: tape(current.station, units) }),
    )
  }
  /** A held bay goes where the picked post's bay is. */
  function addBay() {
    const bay = session.run.bays[session.post] ?? session.run.bays[0]
    if (!bay || !current) return
    const fresh: HeldBay = { id: newID(bays, 'H'), at: current.station, width: bay.centreToCentre }
    session.commit(
      [{ path: at(session.at('/heldBays'), fresh.id), value: fresh }],
      msg.held_bay_fixed_at({ tape: tape(current.station, units) }),
    )
  }
  function show(id: string) {
    const i = session.run.posts.findIndex((p) => p.held === id)
    if (i < 0) return
    session.post = i
    view.show(session.drawn.posts[session.drawnPost]!.station)
  }
</script>

<div class="flex flex-wrap items-center justify-between gap-2">
  <div>
    <h2 class="font-bold">{msg.common_fixed_posts}</h2>
    <p class="text-pencil">
      {msg.held_pull_a_post_in_the}
    </p>
  </div>
  <button
    class="btn"
    onclick={hold}
    disabled={!current || current.kind !== 'line' || !!current.held || !!current.stays}
    ><Plus size={18} aria-hidden="true" />{msg.held_hold({ v1: current?.label ?? msg.held_a_post })}</button
  >
</div>
{#if !posts.length}<p class="mt-2 text-pencil">{msg.held_none_is_fixed}</p>{/if}
{#each posts as f (f.id)}
  {@const p = named(f.id)}
  <fieldset class="mt-2 grid items-start gap-2 border-t border-rule pt-2 sm:grid-cols-[5rem_1fr_2fr_2.75rem]">
    <legend class="sr-only">{msg.held_held_post_2({ v1: p?.label ?? f.id })}</legend>
    <button class="btn btn-plain font-bold sm:mt-6" onclick={() => show(f.id)}>{p?.label ?? f.id}</button>
    {#if p?.landed}
      <TapeEntry
        label={msg.common_stands_at}
        long
        {units}
        value={p.station}
        error={session.wrongAt(path(f.id, 'at'))}
        oncommit={(mm) => mm !== null && stands(f, p, mm)}
      />
    {:else}
      <LengthField {session} path={path(f.id, 'at')} label={msg.common_stands_at} long />
    {/if}
    <Choice
      label={msg.common_it}
      value={kind(f)}
      options={[
        { value: 'wanted', name: msg.common_keep_a_post_here },
        { value: 'landed', name: msg.held_actually_set_here },
        { value: 'grade', name: msg.held_grade_post },
      ]}
      onpick={(v) => setKind(f, v)}
    />
    <button
      class="btn btn-plain btn-icon sm:mt-6"
      aria-label={msg.held_release({ v1: p?.label ?? f.id })}
      onclick={() => session.commit(letGo(session, f.id), msg.held_let_go({ v1: p?.label ?? f.id }))}
      ><Trash2 size={18} /></button
    >
    {#if p?.landed}
      <div class="sm:col-span-2 sm:col-start-2">
        <Choice
          label={msg.held_then}
          value={f.respace ? 'all' : 'beside'}
          options={[
            {
              value: 'beside',
              name: msg.held_only_the_bays_beside,
              costs: msg.held_it_is_the_post_that,
            },
            { value: 'all', name: msg.held_space_the_rest_again, costs: msg.held_even_bays_every_post_not },
          ]}
          onpick={(v) => respace(f.id, v)}
        />
      </div>
    {/if}
  </fieldset>
{/each}

<div class="mt-6 flex flex-wrap items-center justify-between gap-2">
  <div>
    <h2 class="font-bold">{msg.held_fixed_bays}</h2>
    <p class="text-pencil">{msg.held_an_odd_panel_a_bay}</p>
  </div>
  <button class="btn" onclick={addBay} disabled={!current}
    ><Plus size={18} aria-hidden="true" />{msg.held_hold_the_bay_after({ v1: current?.label ?? '' })}</button
  >
</div>
{#each bays as b (b.id)}
  <fieldset
    class="mt-2 grid grid-cols-2 items-start gap-2 border-t border-rule pt-2 sm:grid-cols-[1.3fr_1fr_1fr_2.75rem]"
  >
    <legend class="sr-only">{msg.held_held_bay({ v1: b.name || b.id })}</legend>
    <div>
      <label class="label mb-1" for="held-{b.id}">{msg.common_name}</label>
      <input
        id="held-{b.id}"
        class="field"
        maxlength="120"
        value={b.name ?? ''}
        onchange={(e) =>
          session.commit(
            [{ path: bayPath(b.id, 'name'), value: e.currentTarget.value.trim() }],
            msg.held_bay_named,
          )}
      />
    </div>
    <LengthField {session} path={bayPath(b.id, 'at')} label={msg.common_from} long />
    <LengthField {session} path={bayPath(b.id, 'width')} label={msg.held_width_centres} />
    <button
      class="btn col-span-2 sm:order-last sm:col-span-4"
      role="switch"
      aria-checked={!!b.removable}
      onclick={() =>
        session.commit(
          [{ path: bayPath(b.id, 'removable'), value: b.removable ? null : true }],
          msg.held_removable,
        )}>{msg.held_comes_out}: {b.removable ? msg.common_yes : msg.common_no}</button
    >
    <button
      class="btn btn-plain btn-icon sm:mt-6"
      aria-label={msg.held_release_bay({ v1: b.name || b.id })}
      onclick={() => session.commit([{ path: bayPath(b.id), value: null }], msg.held_bay_let_go)}
      ><Trash2 size={18} /></button
    >
  </fieldset>
{/each}
