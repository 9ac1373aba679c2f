<script lang="ts">
  // The system that is printed in, and the smallest mark of the tape.
  import type { Session } from '../lib/session.svelte'
  import { short } from '../lib/tape'
  import Choice from '../parts/Choice.svelte'
  import Pick from '../parts/Pick.svelte'

  let { session }: { session: Session } = $props()

  function setSystem(system: string) {
    const smallestMark = session.catalogue.marks[system]![system === 'metric' ? 0 : 1]!
    session.commit(
      [{ path: '/units', value: { ...session.doc.units, system, smallestMark } }],
      `Printed in ${system}`,
    )
  }
</script>

<Choice
  label="Printed in"
  value={session.doc.units.system}
  options={[
    { value: 'imperial', name: 'Feet and inches' },
    { value: 'metric', name: 'Metres' },
  ]}
  onpick={setSystem}
/>
<Pick
  label="Smallest mark on the tape"
  value={String(session.doc.units.smallestMark)}
  options={(session.catalogue.marks[session.doc.units.system] ?? []).map((m) => ({
    value: String(m),
    name: short(m, { system: session.doc.units.system, smallestMark: m }),
  }))}
  onpick={(m) => session.commit([{ path: '/units/smallestMark', value: Number(m) }], 'Smallest mark')}
/>
<p class="text-[0.9rem] text-pencil">
  Only printing changes. Every length is kept exactly, and either system can be typed at any time.
</p>
