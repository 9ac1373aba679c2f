<script lang="ts">
  // The fence as an eye sees it that looks along it from one end, tops and
  // faces in true perspective: a flow that looks wrong is seen wrong here.
  import type { Session } from '../../lib/session.svelte'
  import { groundAt } from '../../drawing/ground'
  import Choice from '../../parts/Choice.svelte'
  import { sight, type Seen } from './perspective'

  let { session }: { session: Session } = $props()
  const run = $derived(session.run)
  let end = $state<'first' | 'last'>('first')
  let closer = $state(3)
  let aside = $state(60)
  const WIDE = 960
  const HIGH = 460

  const scene = $derived.by(() => {
    const [n, eye] = [run.posts.length, run.topLine?.eye ?? 1600]
    if (!n) return undefined
    // Looked at from the far end, the run is walked the other way.
    const flip = end === 'last'
    const at = (s: number) => (flip ? run.length - s : s)
    const back = 2500 // stepped back from the end post
    const ground = groundAt(run.ground, at(0))
    const far = run.posts[flip ? 0 : n - 1]!
    const look = sight({
      eye: ground + eye,
      back,
      aside: aside * 10,
      // Level with the middle of the far end, so that hills stay in sight.
      target: { distance: run.length + back, height: (far.top + far.ground) / 2 },
      zoom: closer * 320,
      wide: WIDE,
      high: HIGH,
      side: flip ? -1 : 1,
    })
    const quad = (c: [number, number][]): string | undefined => {
      const seen = c.map(([s, h]) => look(at(s), h))
      return seen.some((p) => !p) ? undefined : `M${seen.map((p) => `${p!.x} ${p!.y}`).join('L')}z`
    }
    const bays = run.bays.map((b, i) => {
      const [p, q] = [run.posts[i]!, run.posts[i + 1]!]
      const top = [look(at(p.station), b.topStart), look(at(q.station), b.topEnd)]
      return {
        gate: !!b.gate,
        far: Math.max(at(p.station), at(q.station)),
        outline: quad([
          [p.station, b.bottomStart],
          [p.station, b.topStart],
          [q.station, b.topEnd],
          [q.station, b.bottomEnd],
        ]),
        top: top[0] && top[1] ? `M${top[0].x} ${top[0].y}L${top[1].x} ${top[1].y}` : '',
      }
    })
    const posts = run.posts.map((p) => ({
      id: p.id,
      grade: p.grade,
      far: at(p.station),
      top: look(at(p.station), p.top) as Seen | undefined,
      foot: look(at(p.station), p.ground) as Seen | undefined,
    }))
    const line = run.ground.map((g) => look(at(g.at), g.height)).filter((p): p is Seen => !!p)
    return { bays: bays.sort((a, b) => b.far - a.far), posts: posts.sort((a, b) => b.far - a.far), line }
  })
  const metal = $derived(session.value<boolean>(session.at('/post/hollow')) ?? false)
  const wide = $derived(session.value<number>(session.at('/post/width')) ?? 90)
</script>

{#if !scene}
  <p class="text-pencil">First, how long is the run?</p>
{:else}
  <div class="grid max-w-6xl gap-x-6 gap-y-3 lg:grid-cols-[1fr_15rem]">
    <svg
      viewBox="0 0 {WIDE} {HIGH}"
      class="w-full border border-line bg-sheet"
      role="img"
      aria-label="{run.name || run.id} seen along the line from its {end} post"
      data-testid="along"
    >
      <path
        d="M{scene.line.map((p) => `${p.x} ${p.y}`).join('L')}L{scene.line.at(-1)!.x} {HIGH + 50}L{scene
          .line[0]!.x} {HIGH + 50}z"
        class="fill-(--ground)"
        opacity="0.55"
      />
      <path
        d="M{scene.line.map((p) => `${p.x} ${p.y}`).join('L')}"
        class="stroke-(--ground-edge)"
        fill="none"
        stroke-width="2.5"
      />
      {#each scene.bays as b, i (i)}
        {#if b.outline}
          <path
            d={b.outline}
            class={b.gate
              ? 'fill-(--sheet) stroke-(--ink)'
              : metal
                ? 'fill-(--metal) stroke-(--metal-edge)'
                : 'fill-(--timber) stroke-(--timber-edge)'}
            fill-opacity={metal && !b.gate ? 0.25 : 0.75}
            stroke-width="1"
          />
        {/if}
      {/each}
      {#each scene.posts as p (p.id)}
        {#if p.top && p.foot}
          <path
            d="M{p.foot.x} {p.foot.y}L{p.top.x} {p.top.y}"
            class={metal ? 'stroke-(--metal-edge)' : 'stroke-(--timber-edge)'}
            stroke-width={Math.min(40, Math.max(1.2, wide * p.top.scale))}
          />
        {/if}
      {/each}
      <path
        d={scene.bays.map((b) => b.top).join('')}
        class="stroke-(--mallow)"
        fill="none"
        stroke-width="3"
        stroke-linejoin="round"
      />
      {#each scene.posts.filter((p) => p.grade && p.top) as p (p.id)}
        <circle
          cx={p.top!.x}
          cy={p.top!.y}
          r="5"
          class="fill-(--sheet) stroke-(--mallow)"
          stroke-width="2.5"
        />
      {/each}
    </svg>
    <div class="grid content-start gap-3">
      <Choice
        label="Stand at the"
        value={end}
        options={[
          { value: 'first', name: 'first post' },
          { value: 'last', name: 'last post' },
        ]}
        onpick={(v) => (end = v as typeof end)}
      />
      <label class="label"
        >Look closer
        <input
          type="range"
          min="1"
          max="12"
          step="0.5"
          class="h-11 w-full accent-(--mallow)"
          bind:value={closer}
        />
      </label>
      <label class="label"
        >Step aside from the line
        <input
          type="range"
          min="15"
          max="400"
          step="5"
          class="h-11 w-full accent-(--mallow)"
          bind:value={aside}
        />
      </label>
      <p class="text-[0.92rem] text-pencil">
        Nothing is stretched. Close to the line, a bump that a tape steps over shows at once. The eye stands
        2.5 m back from the end post; rings are grade posts.
      </p>
    </div>
  </div>
{/if}
