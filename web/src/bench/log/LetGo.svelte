<script lang="ts">
  // By how much posts of the run may differ before something is to be done: its fence
  // type's table, and what is changed on this run.
  import type { Run, Tolerances } from '../../gen/api'
  import type { Session } from '../../lib/session.svelte'
  import TapeEntry from '../../parts/TapeEntry.svelte'
  import * as msg from '../../gen/messages'

  let { session }: { session: Session } = $props()
  const units = $derived(session.units)
  const rows = [
    { id: 'line', name: msg.log_off_string },
    { id: 'bay', name: msg.log_may_bay },
    { id: 'plumb', name: msg.log_may_plumb },
    { id: 'depth', name: msg.log_may_depth },
    { id: 'width', name: msg.log_may_width },
    { id: 'top', name: msg.log_top },
    { id: 'pack', name: msg.log_may_pack },
  ] as const
  const own = $derived(session.own<Tolerances>(session.at('/tolerances')) ?? {})
  const system = $derived(session.own<Run['system']>(session.at('/system')))
  const type = $derived(session.catalogue.systems.find((s) => s.id === system)?.tolerances ?? {})
  const usual = $derived(session.catalogue.tolerances[units.system]!)
  const from = (id: (typeof rows)[number]['id']) =>
    own[id] !== undefined ? msg.log_of_run : type[id] !== undefined ? msg.log_of_type : msg.log_usual
</script>

<div class="grid max-w-3xl gap-3" data-testid="let-go">
  <p class="text-pencil">{msg.log_let_go_says}</p>
  <div class="grid grid-cols-2 gap-x-3 gap-y-2 sm:grid-cols-4">
    {#each rows as r (r.id)}
      <TapeEntry
        label={r.name}
        {units}
        optional
        value={own[r.id] ?? type[r.id] ?? usual[r.id]}
        hint={from(r.id)}
        error={session.wrongAt(session.at(`/tolerances/${r.id}`))}
        oncommit={(mm) =>
          session.commit(
            [{ path: session.at(`/tolerances/${r.id}`), value: mm }],
            msg.log_may_be({ what: r.name }),
          )}
      />
    {/each}
  </div>
</div>
