<script lang="ts">
  // The pour at a time: which posts are in by then, for how long, and which may be
  // loaded. The drawing shows the same.
  import type { Day } from '../../gen/api'
  import type { View } from '../../drawing/view.svelte'
  import { clock, date, wall } from '../../lib/clock'
  import type { Session } from '../../lib/session.svelte'
  import * as msg from '../../gen/messages'

  let { session, view, day }: { session: Session; view: View; day: Day } = $props()
  const HOUR = 3_600_000
  const posts = $derived(day.posts.filter((p) => p.at && p.done))
  const from = $derived(Math.floor(Math.min(...posts.map((p) => wall(p.at!))) / HOUR) * HOUR)
  const braces = $derived(day.waits[0])
  /** Until all of it may be loaded, as far as that is known: five days at most. */
  const hours = $derived.by(() => {
    const ends = day.waits.map((w) => (w.at ? wall(w.at) : 0))
    const last = Math.max(...posts.map((p) => wall(p.done!)), ...ends)
    return Math.min(120, Math.ceil((last - from) / HOUR) + 1)
  })
  /** Half hours after the first post. */
  let picked = $state<number>()
  const at = $derived(from + ((picked ?? 0) * HOUR) / 2)
  /** A time of the site's clock, written as the others are. */
  const stamp = $derived(new Date(at).toISOString())

  const set = $derived(
    picked === undefined
      ? undefined
      : posts.map((p) => {
          const done = wall(p.done!)
          const ready = p.ready.find((r) => r.id === braces?.id)?.at
          const says =
            at < done
              ? clock(p.at)
              : ready && at >= wall(ready)
                ? msg.pour_set_ready
                : msg.pour_set_hours({ hours: Math.floor((at - done) / HOUR) })
          return { run: p.run, post: p.post, in: at >= done, says }
        }),
  )
  const filled = $derived(set?.filter((p) => p.in).length ?? 0)
  const ready = $derived(set?.filter((p) => p.says === msg.pour_set_ready).length ?? 0)
  $effect(() => {
    view.set = set
    return () => (view.set = undefined)
  })
</script>

<div class="mt-2 flex max-w-4xl flex-wrap items-center gap-x-4">
  <label class="label" for="set-at">{msg.pour_set_at}</label>
  <input
    id="set-at"
    type="range"
    min="0"
    max={hours * 2}
    class="h-11 min-w-48 flex-1 accent-(--mallow)"
    value={picked ?? 0}
    aria-valuetext={`${date(stamp)}, ${clock(stamp)}`}
    oninput={(e) => (picked = e.currentTarget.valueAsNumber)}
  />
  <p class="w-72 text-[0.95rem]" data-testid="set-hours" data-run={session.run.id}>
    {#if picked !== undefined}
      <strong>{date(stamp)}, {clock(stamp)}</strong>
      {msg.pour_set_says({ filled, of: posts.length, ready })}
    {:else}
      <span class="text-pencil">{msg.pour_set_hint}</span>
    {/if}
  </p>
</div>
