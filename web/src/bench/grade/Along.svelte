<script lang="ts">
  // The fence as an eye sees it that looks along it from one end, tops and
  // faces in true perspective: a flow that looks wrong is seen wrong here.
  import type { Session } from '../../lib/session.svelte'
  import { groundAt } from '../../drawing/ground'
  import Choice from '../../parts/Choice.svelte'
  import LengthField from '../LengthField.svelte'
  import { framed, seen, type Eye, type Place, type Point } from './perspective'

  let { session }: { session: Session } = $props()
  const run = $derived(session.run)
  let end = $state<'first' | 'last'>('first')
  let closer = $state(1)
  let aside = $state(200)
  const WIDE = 960
  const HIGH = 430
  /** Steps back from the end post: a round figure in either system. */
  const back = $derived(
    session.units.system === 'metric' ? { mm: 3000, words: '3 m' } : { mm: 3048, words: '10 ft' },
  )

  const metal = $derived(session.value<boolean>(session.at('/post/hollow')) ?? false)
  const wide = $derived(session.value<number>(session.at('/post/width'))!)

  const scene = $derived.by(() => {
    const posts = run.posts
    if (!posts.length) return undefined
    // Looked at from the far end, the run is walked the other way.
    const flip = end === 'last'
    const at = (s: number) => (flip ? run.length - s : s)
    const eye: Eye = {
      height: groundAt(run.ground, flip ? run.length : 0) + run.topLine!.eye,
      back: back.mm,
      aside: aside * 10,
      side: flip ? -1 : 1,
    }
    const look = (...places: Place[]) =>
      places.map(([s, h, behind]) => seen(eye, [at(s), h, behind])).filter((p): p is Point => !!p)
    const all = look(
      ...posts.flatMap((p): Place[] => [
        [p.station, p.top],
        [p.station, p.ground],
      ]),
    )
    const order = flip ? [...posts].reverse() : posts
    const about = order[Math.floor(order.length * 0.45)]!
    const put = framed(all, look([about.station, about.top])[0] ?? { x: 0, y: 0 }, {
      wide: WIDE,
      high: HIGH,
      closer,
    })
    /** A face by its corners, when all of them lie before the eye. */
    const face = (...corners: Place[]) => {
      const points = look(...corners)
      return points.length < corners.length
        ? ''
        : `M${points.map((p) => (({ x, y }) => `${x} ${y}`)(put(p))).join('L')}z`
    }
    const half = wide / 2
    const parts = [
      ...run.bays.map((b, i) => {
        const [p, q] = [run.posts[i]!, run.posts[i + 1]!]
        const tops = look([p.station, b.topStart], [q.station, b.topEnd]).map(put)
        return {
          far: (at(p.station) + at(q.station)) / 2,
          kind: b.gate ? ('gate' as const) : ('panel' as const),
          faces: [
            face(
              [p.station, b.bottomStart],
              [p.station, b.topStart],
              [q.station, b.topEnd],
              [q.station, b.bottomEnd],
            ),
          ],
          top: tops.length === 2 ? `M${tops[0]!.x} ${tops[0]!.y}L${tops[1]!.x} ${tops[1]!.y}` : '',
        }
      }),
      ...posts.map((p) => {
        // The face towards the eye, and the one along the line.
        const near = p.station + (flip ? half : -half)
        const square = (s: number, behind: number): Place[] => [
          [s, p.ground, behind],
          [s, p.top, behind],
        ]
        const [a, b] = [square(near, 0), square(near, wide)]
        const [c, d] = [square(p.station - half, 0), square(p.station + half, 0)]
        return {
          far: at(p.station),
          kind: 'post' as const,
          faces: [face(a[0]!, a[1]!, b[1]!, b[0]!), face(c[0]!, c[1]!, d[1]!, d[0]!)],
          top: '',
        }
      }),
    ].sort((a, b) => b.far - a.far)
    const line = look(...run.ground.map((g): Place => [g.at, g.height])).map(put)
    const rings = look(...posts.filter((p) => p.grade).map((p): Place => [p.station, p.top])).map(put)
    return { parts, line: line.map((p) => `${p.x} ${p.y}`), rings }
  })
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
        d="M{scene.line.join('L')}V{HIGH * 3}H{scene.line[0]!.split(' ')[0]}z"
        class="fill-(--ground)"
        opacity="0.55"
      />
      {#each scene.parts as p, i (i)}
        {#each p.faces as f, k (k)}
          <path
            d={f}
            class={p.kind === 'gate'
              ? 'fill-(--sheet) stroke-(--ink)'
              : metal
                ? 'fill-(--metal) stroke-(--metal-edge)'
                : 'fill-(--timber) stroke-(--timber-edge)'}
            fill-opacity={p.kind !== 'panel' ? 1 : metal ? 0.2 : 0.7}
            stroke-width={p.kind === 'panel' ? 0.6 : 1}
          />
        {/each}
        {#if p.top}<path d={p.top} class="stroke-(--mallow)" stroke-width="2.6" />{/if}
      {/each}
      <path d="M{scene.line.join('L')}" class="stroke-(--ground-edge)" fill="none" stroke-width="2" />
      {#each scene.rings as p, i (i)}
        <circle cx={p.x} cy={p.y} r="5.5" class="fill-(--sheet) stroke-(--mallow)" stroke-width="2.5" />
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
      <LengthField {session} path={session.at('/grade/eyeHeight')} label="Height of the eyes" optional />
      <p class="text-[0.92rem] text-pencil">
        Nothing is stretched. Close to the line, a bump that a tape steps over shows at once. The eye stands {back.words}
        back from the end post; rings are grade posts.
      </p>
    </div>
  </div>
{/if}
