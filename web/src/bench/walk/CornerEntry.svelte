<script lang="ts">
  // How the line turns at the start of the run, in the way it was measured.
  import type { Corner } from '../../gen/api'
  import type { Session } from '../../lib/session.svelte'
  import { degrees, turnText } from '../../lib/turn'
  import Choice from '../../parts/Choice.svelte'
  import Figure from '../../parts/Figure.svelte'
  import NumberEntry from '../../parts/NumberEntry.svelte'
  import Pick from '../../parts/Pick.svelte'
  import LengthField from '../LengthField.svelte'

  let { session, before, check }: { session: Session; before: string; check: boolean } = $props()
  const path = $derived(session.at('/corner'))
  const corner = $derived(session.value<Corner>(path))
  const planned = $derived(session.line.corners.find((c) => c.after === session.run.id))
  const by = $derived(corner?.by ?? 'none')
  const side = $derived(corner?.side ?? 'left')
  const ways = [
    { value: 'none', name: 'not measured' },
    { value: 'diagonal', name: 'a measured diagonal' },
    { value: 'interior', name: 'angle between the runs' },
    { value: 'deflection', name: 'turn off the straight-on line' },
    { value: 'offset', name: 'an offset' },
  ]
  function set(value: Corner | null) {
    session.commit([{ path, value }], value ? `Corner by ${value.by}` : 'Corner not measured')
  }
  /** Another way of measuring starts from the corner as it stands. */
  function way(v: string) {
    if (v === 'none') return set(null)
    const turn = Math.abs(planned?.turn ?? 90)
    const hand = planned?.side ?? side
    const square = planned?.square
    if (v === 'diagonal')
      set({
        by: 'diagonal',
        side: hand,
        back: square?.legA,
        forth: square?.legB,
        diagonal: square?.diagonal ?? 0,
      })
    else if (v === 'interior') set({ by: 'interior', side: hand, angle: 180 - turn })
    else if (v === 'deflection') set({ by: 'deflection', side: hand, angle: turn })
    else set({ by: 'offset', side: hand, along: square?.along ?? 0, off: square?.off ?? 3000 })
  }
</script>

<div class="flex flex-wrap items-baseline gap-x-3">
  <h3 class="font-bold">Corner from {before}{check ? ' (a check: closing decides)' : ''}</h3>
  {#if planned?.turn !== undefined}
    <span>
      turns <strong>{turnText(planned)}</strong>,
      {#if planned.square}
        <Figure why={{ line: session.line.id, of: 'corner', id: planned.after ?? '' }} of="the corner"
          ><strong>{degrees(planned.interior ?? 180)}</strong> between the runs</Figure
        >
      {/if}
      {#if !planned.measured}<em>, found from closing</em>{/if}
    </span>
  {:else}<span class="text-warn">not known yet: drawn straight on</span>{/if}
</div>
<div class="mt-2 grid grid-cols-2 items-start gap-2 pr-2 sm:grid-cols-3">
  <div class="col-span-2">
    <Pick label="Measured by" value={by} options={ways} onpick={way} />
  </div>
  {#if corner}
    <div class="max-sm:col-span-2">
      <Choice
        label="Turns"
        value={side}
        options={[
          { value: 'left', name: 'Left' },
          { value: 'right', name: 'Right' },
        ]}
        onpick={(v) => session.commit([{ path: `${path}/side`, value: v }], `Corner turns ${v}`)}
      />
    </div>
    {#if by === 'deflection' || by === 'interior'}
      <NumberEntry
        label={by === 'interior' ? 'Degrees between the runs' : 'Corner angle, ° (90 is square)'}
        value={corner.angle ?? 0}
        error={session.wrongAt(`${path}/angle`)}
        oncommit={(n) => session.commit([{ path: `${path}/angle`, value: n }], `Corner ${n}°`)}
      />
    {:else if by === 'offset'}
      <LengthField {session} path="{path}/along" label="Along the old line" hint="minus: back along it" />
      <LengthField {session} path="{path}/off" label="Then square off" />
    {:else}
      <LengthField
        {session}
        path="{path}/back"
        label="Leg back"
        optional
        hint={corner.back === undefined || corner.back === null ? 'the whole run before' : ''}
      />
      <LengthField
        {session}
        path="{path}/forth"
        label="Leg forth"
        optional
        hint={corner.forth === undefined || corner.forth === null ? 'this whole run' : ''}
      />
      <LengthField {session} path="{path}/diagonal" label="Diagonal" long />
    {/if}
  {/if}
</div>
