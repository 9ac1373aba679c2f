<script lang="ts">
  // How fast the crew pours, in its own minutes where it knows them.
  import type { Day, PourRate } from '../../gen/api'
  import type { Session } from '../../lib/session.svelte'
  import NumberEntry from '../../parts/NumberEntry.svelte'
  import * as msg from '../../gen/messages'

  let { session, day }: { session: Session; day: Day } = $props()
  type Rate = Day['rates'][number]
  const own = $derived(session.value<PourRate[]>('/pour/rates') ?? [])
  const feet = $derived(session.units.system === 'imperial')
  /** A curb goes by the foot or the meter, a post is a post. */
  const by = (r: Rate) => (r.method || !feet ? 1 : 0.3048)
  const round = (n: number) => Math.round(n * 100) / 100

  function set(r: Rate, minutes: number | undefined) {
    if (!r.method) {
      const value = minutes === undefined ? null : minutes / by(r)
      session.commit([{ path: '/pour/curb', value }], msg.pour_rate_of({ name: r.name }))
      return
    }
    const rest = own.filter((o) => o.method !== r.method)
    const all =
      minutes === undefined ? rest : [...rest, { method: r.method as PourRate['method'], place: minutes }]
    session.commit(
      [{ path: '/pour/rates', value: all.length ? all : null }],
      msg.pour_rate_of({ name: r.name }),
    )
  }
</script>

<h3 class="mt-3 font-bold">{msg.pour_rates}</h3>
<div class="mt-1 flex flex-wrap items-start gap-3" data-testid="pour-rates">
  {#each day.rates as r (r.name)}
    <div class="w-40">
      <NumberEntry
        label={r.method
          ? msg.pour_rate_post({ name: r.name })
          : feet
            ? msg.pour_rate_foot
            : msg.pour_rate_meter}
        value={r.own ? round(r.minutes * by(r)) : undefined}
        hint={r.own ? '' : msg.days_usual_minutes({ n: round(r.usual * by(r)) })}
        error={session.wrongAt(r.method ? '/pour/rates' : '/pour/curb')}
        oncommit={(n) => set(r, n)}
        onclear={() => set(r, undefined)}
      />
    </div>
  {/each}
</div>
