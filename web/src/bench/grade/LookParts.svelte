<script lang="ts">
  // Stretches of the run with another look, from post to post.
  import Plus from '@lucide/svelte/icons/plus'
  import X from '@lucide/svelte/icons/x'
  import type { LookPart } from '../../gen/api'
  import { newID } from '../../lib/doc'
  import type { Session } from '../../lib/session.svelte'
  import { short, tape } from '../../lib/tape'
  import LengthField from '../LengthField.svelte'
  import Pick from '../../parts/Pick.svelte'
  import * as msg from '../../gen/messages'

  let { session }: { session: Session } = $props()
  const looks = $derived(session.catalogue.choices['grade/look']!)
  const path = $derived(session.at('/grade/parts'))
  const parts = $derived(session.value<LookPart[]>(path) ?? [])
  const posts = $derived(session.run.posts)
  const base = $derived(session.choice(session.at('/grade/look')))
  const high = $derived(session.value<number>(session.at('/fence/height')) ?? 0)
  const had = $derived(looks.map((l) => ({ ...l, refused: session.run.looksRefused[l.value] })))
  const name = (look: string) => looks.find((l) => l.value === look)?.name ?? look

  /** The post nearest to a station. */
  const nearest = (at: number) =>
    posts.reduce((a, b) => (Math.abs(b.station - at) < Math.abs(a.station - at) ? b : a), posts[0]!)
  const options = $derived(
    posts.map((p) => ({ value: p.label, name: `${p.label}, ${tape(p.station, session.units)}` })),
  )
  const commit = (value: LookPart[], what: string) =>
    session.commit([{ path, value: value.length ? [...value].sort((a, b) => a.from - b.from) : null }], what)
  const change = (i: number, by: Partial<LookPart>, what: string) =>
    commit(
      parts.map((p, k) => (k === i ? { ...p, ...by } : p)),
      what,
    )

  /** A free stretch of up to three bays at or after the picked post. */
  const free = $derived.by(() => {
    const taken = (a: number, b: number) => parts.some((p) => a < p.to - 1 && b > p.from + 1)
    for (let k = 0; k < posts.length - 1; k++) {
      const i = (session.post + k) % Math.max(1, posts.length - 1)
      if (!posts[i + 1] || taken(posts[i]!.station, posts[i + 1]!.station)) continue
      let j = i + 1
      while (j < posts.length - 1 && j < i + 3 && !taken(posts[i]!.station, posts[j + 1]!.station)) j++
      return { from: posts[i]!, to: posts[j]! }
    }
    return undefined
  })
  function add() {
    if (!free) return
    const look = (had.find(
      (l) => l.value !== base && !l.refused && (l.value === 'level' || l.value === 'stepped'),
    )?.value ?? 'level') as LookPart['look']
    commit(
      [...parts, { id: newID(parts, 'a'), from: free.from.station, to: free.to.station, look }],
      msg.look_parts_from_to({ name: name(look), label: free.from.label, label2: free.to.label }),
    )
  }
</script>

{#if posts.length}
  <h3 class="mt-5 font-bold">{msg.look_parts_another_look_for_part_of}</h3>
  {#if !parts.length}
    <p class="text-pencil">
      {msg.look_parts_all_of_it_is_a({ v1: name(base).toLowerCase() })}
    </p>
  {/if}
  <ul class="mt-2 grid max-w-3xl gap-2">
    {#each parts as p, i (i)}
      <li class="flex flex-wrap items-start gap-2 border border-line bg-sheet p-2" data-part={i}>
        <div class="w-36">
          <Pick
            label={msg.common_look}
            value={p.look}
            options={had}
            onpick={(v) => change(i, { look: v as LookPart['look'] }, name(v))}
          />
        </div>
        <div class="w-44">
          <Pick
            label={msg.common_from}
            value={nearest(p.from).label}
            options={options.filter((o) => posts.find((q) => q.label === o.value)!.station < p.to - 1)}
            onpick={(v) =>
              change(i, { from: posts.find((q) => q.label === v)!.station }, msg.look_parts_from({ v1: v }))}
          />
        </div>
        <div class="w-44">
          <Pick
            label={msg.common_to}
            value={nearest(p.to).label}
            options={options.filter((o) => posts.find((q) => q.label === o.value)!.station > p.from + 1)}
            onpick={(v) =>
              change(i, { to: posts.find((q) => q.label === v)!.station }, msg.look_parts_to({ v1: v }))}
          />
        </div>
        <div class="w-36" data-height>
          <LengthField
            {session}
            path="{path}/{p.id}/height"
            label={msg.look_parts_height}
            hint={msg.look_parts_height_of_run({ high: short(high, session.units) })}
            optional
          />
        </div>
        <button
          class="btn btn-plain btn-icon mt-6"
          aria-label={msg.look_parts_take_this_part_away}
          onclick={() =>
            commit(
              parts.filter((_, k) => k !== i),
              msg.look_parts_one_look_again,
            )}><X size={20} /></button
        >
      </li>
    {/each}
  </ul>
  {#if free}
    <button class="btn mt-2" onclick={add}
      ><Plus size={18} aria-hidden="true" />{msg.look_parts_another_look_from_to({
        label: free.from.label,
        label2: free.to.label,
      })}</button
    >
  {/if}
{/if}
