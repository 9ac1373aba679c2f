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
    session.commit([{ path: path(f.id), value: next }, ...seen], `Held post: ${v}`)
  }
  /** Whether the other posts are spaced again from a post that landed off its mark. */
  function respace(id: string, v: string) {
    session.commit(
      [{ path: path(id, 'respace'), value: v === 'all' ? true : null }],
      v === 'all' ? 'The rest spaced again' : 'Only the bays beside it',
    )
  }
  /** Taped again: where it landed was read wrong. */
  const stands = (f: FixedPost, p: PlannedPost, mm: number) =>
    session.commit(
      [{ path: path(f.id, 'at'), value: mm }, ...landed(session, p, mm)],
      `${p.label} landed at ${tape(mm, units)}`,
    )
  function hold() {
    if (!current) return
    session.commit(
      holdAt(session, newHold(session), current.station),
      `${current.label} kept at ${tape(current.station, units)}`,
    )
  }
  /** A held bay goes where the picked post's bay is. */
  function addBay() {
    const bay = session.run.bays[session.post] ?? session.run.bays[0]
    if (!bay || !current) return
    const fresh: HeldBay = { id: newID(bays, 'H'), at: current.station, width: bay.centreToCentre }
    session.commit(
      [{ path: at(session.at('/heldBays'), fresh.id), value: fresh }],
      `Bay fixed at ${tape(current.station, units)}`,
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
    <h2 class="font-bold">Fixed posts</h2>
    <p class="text-pencil">
      Pull a post in the drawing, or hold the picked one here. The posts between are spaced again; where one
      landed off its mark, only the bays beside it change.
    </p>
  </div>
  <button
    class="btn"
    onclick={hold}
    disabled={!current || current.kind !== 'line' || !!current.held || !!current.stays}
    ><Plus size={18} aria-hidden="true" />Hold {current?.label ?? 'a post'}</button
  >
</div>
{#if !posts.length}<p class="mt-2 text-pencil">None is fixed.</p>{/if}
{#each posts as f (f.id)}
  {@const p = named(f.id)}
  <fieldset class="mt-2 grid items-start gap-2 border-t border-rule pt-2 sm:grid-cols-[5rem_1fr_2fr_2.75rem]">
    <legend class="sr-only">Held post {p?.label ?? f.id}</legend>
    <button class="btn btn-plain font-bold sm:mt-6" onclick={() => show(f.id)}>{p?.label ?? f.id}</button>
    {#if p?.landed}
      <TapeEntry
        label="Stands at"
        long
        {units}
        value={p.station}
        error={session.wrongAt(path(f.id, 'at'))}
        oncommit={(mm) => mm !== null && stands(f, p, mm)}
      />
    {:else}
      <LengthField {session} path={path(f.id, 'at')} label="Stands at" long />
    {/if}
    <Choice
      label="It"
      value={kind(f)}
      options={[
        { value: 'wanted', name: 'Keep a post here' },
        { value: 'landed', name: 'Actually set here' },
        { value: 'grade', name: 'Grade post' },
      ]}
      onpick={(v) => setKind(f, v)}
    />
    <button
      class="btn btn-plain btn-icon sm:mt-6"
      aria-label="Release {p?.label ?? f.id}"
      onclick={() => session.commit(letGo(session, f.id), `${p?.label ?? f.id} let go`)}
      ><Trash2 size={18} /></button
    >
    {#if p?.landed}
      <div class="sm:col-span-2 sm:col-start-2">
        <Choice
          label="Then"
          value={f.respace ? 'all' : 'beside'}
          options={[
            {
              value: 'beside',
              name: 'Only the bays beside',
              costs: 'it is the post that was meant there; all others stay',
            },
            { value: 'all', name: 'Space the rest again', costs: 'even bays; every post not yet dug moves' },
          ]}
          onpick={(v) => respace(f.id, v)}
        />
      </div>
    {/if}
  </fieldset>
{/each}

<div class="mt-6 flex flex-wrap items-center justify-between gap-2">
  <div>
    <h2 class="font-bold">Fixed bays</h2>
    <p class="text-pencil">An odd panel, a bay that can be taken out: its width stays, the rest gives way.</p>
  </div>
  <button class="btn" onclick={addBay} disabled={!current}
    ><Plus size={18} aria-hidden="true" />Hold the bay after {current?.label ?? ''}</button
  >
</div>
{#each bays as b (b.id)}
  <fieldset
    class="mt-2 grid grid-cols-2 items-start gap-2 border-t border-rule pt-2 sm:grid-cols-[1.3fr_1fr_1fr_2.75rem]"
  >
    <legend class="sr-only">Held bay {b.name || b.id}</legend>
    <div>
      <label class="label mb-1" for="held-{b.id}">Name</label>
      <input
        id="held-{b.id}"
        class="field"
        maxlength="120"
        value={b.name ?? ''}
        onchange={(e) =>
          session.commit([{ path: bayPath(b.id, 'name'), value: e.currentTarget.value.trim() }], 'Bay named')}
      />
    </div>
    <LengthField {session} path={bayPath(b.id, 'at')} label="From" long />
    <LengthField {session} path={bayPath(b.id, 'width')} label="Width, centres" />
    <button
      class="btn btn-plain btn-icon sm:mt-6"
      aria-label="Release bay {b.name || b.id}"
      onclick={() => session.commit([{ path: bayPath(b.id), value: null }], 'Bay let go')}
      ><Trash2 size={18} /></button
    >
  </fieldset>
{/each}
