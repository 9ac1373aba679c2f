<script lang="ts">
  // The marks in taping order, as running distances from one end: chained
  // from post to post, every reading's error would add up.
  import type { View } from '../../drawing/view.svelte'
  import type { Session } from '../../lib/session.svelte'
  import Fraction from '../../parts/Fraction.svelte'
  import ReportTable from '../ReportTable.svelte'
  import FileLink from '../../parts/FileLink.svelte'

  let { session, view }: { session: Session; view: View } = $props()
  const units = $derived(session.units)
  const out = $derived(session.run.setOut)
</script>

{#if !out}
  <p class="text-pencil">First, how long is the run?</p>
{:else}
  <div class="grid max-w-5xl gap-x-8 gap-y-3 md:grid-cols-2">
    <section>
      <h2 class="font-bold">Spacer sticks</h2>
      <p class="text-pencil">
        Cut to the clear opening; one held between two posts sets the next without a tape.
      </p>
      <ul class="mt-1 grid gap-1" data-testid="sticks">
        {#each out.sticks.slice(0, 4) as s (s.first)}
          <li>
            <strong class="text-[1.15rem]"><Fraction mm={s.length} {units} /></strong>
            <span class="text-pencil"
              >for {s.bays} {s.bays === 1 ? `bay, ${s.first}` : `bays, the first ${s.first}`}</span
            >
          </li>
        {/each}
        {#if out.sticks.length > 4}<li class="text-pencil">
            and {out.sticks.length - 4} more lengths: tape those
          </li>{/if}
      </ul>
    </section>
    <section>
      <h2 class="font-bold">To be sure</h2>
      <ul class="mt-1 grid list-disc gap-1 pl-5">
        <li>
          The last mark reads <strong><Fraction mm={out.check} {units} long /></strong> from the first post; measured
          back from the far end, any mark and its check add up to that.
        </li>
        {#if out.offset}
          <li>
            Every post's middle is <strong><Fraction mm={out.offset} {units} /></strong> from the string.
          </li>
        {/if}
        <li>
          <FileLink {session} what="setout" run={session.run.id}>The marks as CSV</FileLink>, with each post's
          place on the map.
        </li>
        {#each out.pins as p, i (i)}
          <li>
            Pin {i + 1} at <strong><Fraction mm={p.at} {units} long /></strong>{p.post
              ? `, at ${p.post}`
              : ''}: the tape of
            <Fraction mm={out.tape} {units} long /> ends there, and is pulled on from it.
          </li>
        {/each}
      </ul>
    </section>
  </div>
  <ReportTable {session} {view} table="setout" caption="Marks, all from {out.marks[0]!.post}" />
{/if}
