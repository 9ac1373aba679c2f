<script lang="ts">
  // The pour over the hours of its first day: how warm it is, for how long a load can be
  // worked that comes then, and the loads as they are planned.
  import type { Day } from '../../gen/api'
  import { clock, wall } from '../../lib/clock'
  import type { Session } from '../../lib/session.svelte'
  import { temperature } from '../../lib/tape'
  import * as msg from '../../gen/messages'

  let { session, day }: { session: Session; day: Day } = $props()
  const units = $derived(session.units)
  let wide = $state(760)
  const WIDE = $derived(Math.max(300, wide))
  const HIGH = 180
  const LEFT = 54
  const RIGHT = 58
  const TOP = 24
  const BASE = 150

  const from = $derived(day.curve.length ? wall(day.curve[0]!.at) : wall(day.from!) - 7_200_000)
  const to = $derived(
    day.curve.length ? wall(day.curve[day.curve.length - 1]!.at) : wall(day.to!) + 14_400_000,
  )
  const x = (at: number) => LEFT + ((at - from) / (to - from)) * (WIDE - LEFT - RIGHT)
  /** Full hours, as many as there is room for. */
  const every = $derived(WIDE < 520 ? 4 : 2)
  const HOUR = 3_600_000
  const hours = $derived(
    Array.from({ length: 25 }, (_, i) => Math.ceil(from / HOUR) * HOUR + i * HOUR).filter(
      (t) => t <= to && new Date(t).getUTCHours() % every === 0,
    ),
  )
  const HOT = 120
  /** Minutes that a load can be worked, upward. */
  const y = (minutes: number) => BASE - (Math.min(minutes, HOT) / HOT) * (BASE - TOP)
  const works = $derived(
    day.curve.map((h, i) => `${i ? 'L' : 'M'}${x(wall(h.at)).toFixed(1)} ${y(h.works).toFixed(1)}`).join(''),
  )
  const area = $derived(works && `${works}L${x(to)} ${BASE}L${x(from)} ${BASE}Z`)
  const temps = $derived(day.curve.map((h) => h.temp))
  const low = $derived(Math.floor(Math.min(...temps, 0) / 5) * 5)
  const high = $derived(Math.ceil(Math.max(...temps, 10) / 5) * 5)
  const yt = (temp: number) => BASE - ((temp - low) / (high - low)) * (BASE - TOP)
  const warmth = $derived(
    day.curve.map((h, i) => `${i ? 'L' : 'M'}${x(wall(h.at)).toFixed(1)} ${yt(h.temp).toFixed(1)}`).join(''),
  )
  const first = $derived(day.loads.filter((l) => l.comes.slice(0, 10) === day.date))
  const posts = $derived(day.posts.filter((p) => p.at?.slice(0, 10) === day.date && !p.load))
  const COLD = $derived(day.protect)
  /** Half hours in which a fresh surface dries so fast that it cracks. */
  const dry = $derived(day.curve.filter((h) => h.cracks))
  const hour = (t: number) => `${new Date(t).getUTCHours()}:00`
</script>

<div class="max-w-4xl" bind:clientWidth={wide}>
  <svg
    viewBox="0 0 {WIDE} {HIGH}"
    class="w-full border border-line bg-sheet text-[13px]"
    role="img"
    aria-label={msg.pour_clock_label({
      from: clock(day.from),
      to: clock(day.to),
      loads: day.loads.length,
    })}
  >
    {#if day.sunrise && day.sunset}
      <rect
        x={LEFT}
        y={TOP}
        width={Math.max(0, x(wall(day.sunrise)) - LEFT)}
        height={BASE - TOP}
        fill="var(--rule)"
        opacity="0.45"
      />
      <rect
        x={Math.min(WIDE - RIGHT, x(wall(day.sunset)))}
        y={TOP}
        width={Math.max(0, WIDE - RIGHT - x(wall(day.sunset)))}
        height={BASE - TOP}
        fill="var(--rule)"
        opacity="0.45"
      />
    {/if}
    {#if day.lunch && day.lunchEnd}
      <rect
        x={x(wall(day.lunch))}
        y={TOP}
        width={x(wall(day.lunchEnd)) - x(wall(day.lunch))}
        height={BASE - TOP}
        fill="var(--rule)"
      />
      <text
        x={(x(wall(day.lunch)) + x(wall(day.lunchEnd))) / 2}
        y={TOP - 8}
        text-anchor="middle"
        fill="var(--pencil)">{msg.pour_lunch}</text
      >
    {/if}
    {#if area}
      <path d={area} fill="var(--mallow-wash)" />
      <path d={works} fill="none" stroke="var(--mallow)" stroke-width="2" />
      {#each [30, 60, 90] as m (m)}
        <line x1={LEFT} x2={WIDE - RIGHT} y1={y(m)} y2={y(m)} stroke="var(--rule)" />
        <text x={WIDE - RIGHT + 6} y={y(m) + 4} fill="var(--mallow)">{msg.pour_minutes({ m })}</text>
      {/each}
      <path d={warmth} fill="none" stroke="var(--ink)" stroke-width="1.5" stroke-dasharray="5 3" />
      {#each [low, (low + high) / 2, high] as t (t)}
        <text x={LEFT - 6} y={yt(t) + 4} text-anchor="end" fill="var(--ink)">{temperature(t, units)}</text>
      {/each}
      {#if low < COLD && Math.min(...temps) < COLD + 4}
        <line
          x1={LEFT}
          x2={WIDE - RIGHT}
          y1={yt(COLD)}
          y2={yt(COLD)}
          stroke="var(--warn)"
          stroke-width="1.5"
          stroke-dasharray="2 3"
        />
        <text x={LEFT + 4} y={yt(COLD) - 4} fill="var(--warn)"
          >{msg.pour_protect_below({ temp: temperature(COLD, units) })}</text
        >
      {/if}
      {#each dry as h (h.at)}
        <rect
          x={x(wall(h.at))}
          y={TOP}
          width={x(wall(h.at) + 1_800_000) - x(wall(h.at))}
          height="6"
          fill="var(--stop)"
        />
      {/each}
      {#if dry.length}<text x={x(wall(dry[0]!.at))} y={TOP - 6} fill="var(--stop)">{msg.pour_dries}</text
        >{/if}
      {#if low < 0}<line
          x1={LEFT}
          x2={WIDE - RIGHT}
          y1={yt(0)}
          y2={yt(0)}
          stroke="var(--stop)"
          stroke-width="1.5"
        />{/if}
    {/if}
    <line x1={LEFT} x2={WIDE - RIGHT} y1={BASE} y2={BASE} stroke="var(--ink)" />
    {#each hours as t (t)}
      <line x1={x(t)} x2={x(t)} y1={BASE} y2={BASE + 5} stroke="var(--ink)" />
      <text x={x(t)} y={BASE + 19} text-anchor="middle" fill="var(--ink)">{hour(t)}</text>
    {/each}
    {#each first as l, i (l.comes)}
      <rect
        x={x(wall(l.comes))}
        y={BASE - 34}
        width={Math.max(3, x(wall(l.done)) - x(wall(l.comes)))}
        height="34"
        fill="var(--concrete, var(--line))"
        stroke="var(--ink)"
      />
      <line
        x1={x(wall(l.worked))}
        x2={x(wall(l.worked))}
        y1={BASE - 44}
        y2={BASE}
        stroke="var(--stop)"
        stroke-width="2"
      />
      <text
        x={(x(wall(l.comes)) + x(wall(l.done))) / 2}
        y={BASE - 12}
        text-anchor="middle"
        font-weight="700"
        fill="var(--ink)">{i + 1}</text
      >
    {/each}
    {#each posts as p (p.run + p.post)}
      <line x1={x(wall(p.at!))} x2={x(wall(p.at!))} y1={BASE - 14} y2={BASE} stroke="var(--ink)" />
    {/each}
  </svg>
  <p class="mt-1 text-[0.9rem] text-pencil">{area ? msg.pour_clock_says : msg.pour_clock_unknown}</p>
</div>
