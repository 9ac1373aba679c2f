<script lang="ts">
  // The system that is printed in, and the smallest mark of the tape.
  import type { Session } from '../lib/session.svelte'
  import { short } from '../lib/tape'
  import Choice from '../parts/Choice.svelte'
  import Pick from '../parts/Pick.svelte'
  import * as msg from '../gen/messages'

  let { session }: { session: Session } = $props()

  function setSystem(system: string) {
    const smallestMark = session.catalogue.marks[system]![system === 'metric' ? 0 : 1]!
    session.commit(
      [{ path: '/units', value: { ...session.doc.units, system, smallestMark } }],
      msg.tape_printed_in({ system }),
    )
  }
</script>

<Choice
  label={msg.tape_printed_in_2}
  value={session.doc.units.system}
  options={[
    { value: 'imperial', name: msg.tape_feet_and_inches },
    { value: 'metric', name: msg.tape_metres },
  ]}
  onpick={setSystem}
/>
<Pick
  label={msg.tape_smallest_mark_on_the_tape}
  value={String(session.doc.units.smallestMark)}
  options={(session.catalogue.marks[session.doc.units.system] ?? []).map((m) => ({
    value: String(m),
    name: short(m, { system: session.doc.units.system, smallestMark: m }),
  }))}
  onpick={(m) => session.commit([{ path: '/units/smallestMark', value: Number(m) }], msg.tape_smallest_mark)}
/>
<p class="text-[0.9rem] text-pencil">
  {msg.tape_only_printing_changes_every_length}
</p>
