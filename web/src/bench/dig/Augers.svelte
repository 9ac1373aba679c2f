<script lang="ts">
  // The augers that the crew has, at the level that is picked.
  import X from '@lucide/svelte/icons/x'
  import { own, say, type Level } from '../../lib/rules'
  import type { Session } from '../../lib/session.svelte'
  import { short } from '../../lib/tape'
  import Fraction from '../../parts/Fraction.svelte'
  import TapeEntry from '../../parts/TapeEntry.svelte'
  import * as msg from '../../gen/messages'

  let { session, level }: { session: Session; level: Level } = $props()
  const units = $derived(session.units)
  const augers = $derived([...(level.rules.values['hole/augers'] as number[])].sort((a, b) => a - b))
  const said = $derived(own(session, level, 'hole/augers'))

  const set = (list: number[] | null, what: string) =>
    session.commit(say(level, { 'hole/augers': list }), what)
  const drop = (a: number) =>
    set(
      augers.filter((x) => x !== a),
      msg.augers_no_auger({ size: short(a, units), level: level.name }),
    )
  function add(mm: number | null) {
    if (mm !== null && !augers.some((a) => Math.abs(a - mm) < 0.01))
      set([...augers, mm], `A ${short(mm, units)} auger, ${level.name}`)
  }
</script>

<section class="mt-4" aria-labelledby="augers">
  <h3 id="augers" class="mb-1 font-bold">{msg.augers_augers_the_crew_has}</h3>
  <ul class="flex flex-wrap gap-1.5">
    {#each augers as a (a)}
      <li class="flex items-center border border-line bg-sheet pl-2.5">
        <Fraction mm={a} {units} />
        <button
          class="btn btn-plain btn-icon"
          aria-label={msg.augers_take_the_auger_off_the({ short: short(a, units) })}
          disabled={augers.length === 1}
          onclick={() => drop(a)}><X size={16} /></button
        >
      </li>
    {/each}
  </ul>
  <div class="mt-2 max-w-40">
    <TapeEntry label={msg.augers_another_auger} optional {units} value={undefined} oncommit={add} />
  </div>
  <p class="mt-1 text-[0.88rem] text-pencil">
    {#if said !== undefined}<strong class="text-ink">{msg.common_said_here}</strong>
      <button
        class="underline pointer-coarse:min-h-11"
        onclick={() => set(null, msg.augers_augers_as_said_elsewhere({ level: level.name }))}
        >{msg.common_clear}</button
      >{:else}{msg.augers_from({ v1: level.rules.from['hole/augers'] ?? '' })}{/if}
  </p>
</section>
