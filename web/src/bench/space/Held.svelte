<script lang="ts">
  // Posts and bays that are held, so that the rest is spaced around them:
  // where a post really landed, where it is wanted, a bay of its own width.
  import Plus from '@lucide/svelte/icons/plus'
  import Trash2 from '@lucide/svelte/icons/trash-2'
  import type { View } from '../../drawing/view.svelte'
  import type { FixedPost, HeldBay } from '../../gen/api'
  import { freshID, holdAt, letGo, newHold } from '../../lib/hold'
  import type { Session } from '../../lib/session.svelte'
  import { tape } from '../../lib/tape'
  import Choice from '../../parts/Choice.svelte'
  import LengthField from '../LengthField.svelte'

  let { session, view }: { session: Session; view: View } = $props()
  const units = $derived(session.units)
  const posts = $derived(session.value<FixedPost[]>(session.at('/fixedPosts')) ?? [])
  const bays = $derived(session.value<HeldBay[]>(session.at('/heldBays')) ?? [])
  const named = (id: string) => session.run.posts.find((p) => p.held === id)
  const current = $derived(session.run.posts[session.post])

  function kind(f: FixedPost): string {
    return f.landed ? 'landed' : f.grade ? 'grade' : 'wanted'
  }
  function setKind(i: number, v: string) {
    const { id, at } = posts[i]!
    if (v === kind(posts[i]!)) return
    const next = {
      id,
      at,
      ...(v === 'landed' ? { landed: true } : {}),
      ...(v === 'grade' ? { grade: true } : {}),
    }
    session.commit([{ path: session.at(`/fixedPosts/${i}`), value: next }], `Held post: ${v}`)
  }
  /** Whether the other posts are spaced again from a post that landed off its mark. */
  function respace(i: number, v: string) {
    session.commit(
      [{ path: session.at(`/fixedPosts/${i}/respace`), value: v === 'all' ? true : null }],
      v === 'all' ? 'The rest spaced again' : 'Only the bays beside it',
    )
  }
  function hold() {
    if (!current) return
    session.commit(
      holdAt(session, newHold(session), current.station),
      `${current.id} held at ${tape(current.station, units)}`,
    )
  }
  /** A held bay goes where the picked post's bay is. */
  function addBay() {
    const bay = session.run.bays[session.post] ?? session.run.bays[0]
    if (!bay || !current) return
    const fresh: HeldBay = { id: freshID(bays, 'H'), at: current.station, width: bay.centreToCentre }
    session.commit(
      [{ path: session.at('/heldBays'), value: [...bays, fresh] }],
      `Bay held at ${tape(current.station, units)}`,
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
    <h2 class="font-bold">Held posts</h2>
    <p class="text-pencil">
      Pull a post in the drawing, or hold the picked one here. The posts between are spaced again; where one
      landed off its mark, only the bays beside it change.
    </p>
  </div>
  <button
    class="btn"
    onclick={hold}
    disabled={!current || current.kind !== 'line' || !!current.held || !!current.stays}
    ><Plus size={18} aria-hidden="true" />Hold {current?.id ?? 'a post'}</button
  >
</div>
{#if !posts.length}<p class="mt-2 text-pencil">None is held.</p>{/if}
{#each posts as f, i (f.id)}
  {@const p = named(f.id)}
  <fieldset class="mt-2 grid items-start gap-2 border-t border-rule pt-2 sm:grid-cols-[5rem_1fr_2fr_2.75rem]">
    <legend class="sr-only">Held post {p?.id ?? f.id}</legend>
    <button class="btn btn-plain font-bold sm:mt-6" onclick={() => show(f.id)}>{p?.id ?? f.id}</button>
    <LengthField {session} path={session.at(`/fixedPosts/${i}/at`)} label="Stands at" long />
    <Choice
      label="It"
      value={kind(f)}
      options={[
        { value: 'wanted', name: 'Is wanted here' },
        { value: 'landed', name: 'Landed here' },
        { value: 'grade', name: 'Grade post' },
      ]}
      onpick={(v) => setKind(i, v)}
    />
    <button
      class="btn btn-plain btn-icon sm:mt-6"
      aria-label="Let {p?.id ?? f.id} go"
      onclick={() => session.commit(letGo(session, f.id), `${p?.id ?? f.id} let go`)}
      ><Trash2 size={18} /></button
    >
    {#if f.landed}
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
          onpick={(v) => respace(i, v)}
        />
      </div>
    {/if}
  </fieldset>
{/each}

<div class="mt-6 flex flex-wrap items-center justify-between gap-2">
  <div>
    <h2 class="font-bold">Held bays</h2>
    <p class="text-pencil">An odd panel, a bay that can be taken out: its width stays, the rest gives way.</p>
  </div>
  <button class="btn" onclick={addBay} disabled={!current}
    ><Plus size={18} aria-hidden="true" />Hold the bay after {current?.id ?? ''}</button
  >
</div>
{#each bays as b, i (b.id)}
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
          session.commit(
            [{ path: session.at(`/heldBays/${i}/name`), value: e.currentTarget.value.trim() }],
            'Bay named',
          )}
      />
    </div>
    <LengthField {session} path={session.at(`/heldBays/${i}/at`)} label="From" long />
    <LengthField {session} path={session.at(`/heldBays/${i}/width`)} label="Width, centres" />
    <button
      class="btn btn-plain btn-icon sm:mt-6"
      aria-label="Let bay {b.name || b.id} go"
      onclick={() =>
        session.commit(
          [{ path: session.at('/heldBays'), value: bays.filter((_, k) => k !== i) }],
          'Bay let go',
        )}><Trash2 size={18} /></button
    >
  </fieldset>
{/each}
