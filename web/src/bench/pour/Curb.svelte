<script lang="ts">
  // The mowing curb of a run: its section, what it takes, its forms with their marks.
  import type { View } from '../../drawing/view.svelte'
  import type { CurbPlan } from '../../gen/api'
  import type { Session } from '../../lib/session.svelte'
  import { bulk, short, tape } from '../../lib/tape'
  import Choice from '../../parts/Choice.svelte'
  import LengthField from '../LengthField.svelte'
  import ReportTable from '../ReportTable.svelte'
  import CurbSection from './CurbSection.svelte'
  import * as msg from '../../gen/messages'

  let { session, view }: { session: Session; view: View } = $props()
  const units = $derived(session.units)
  const path = $derived(session.at('/curb'))
  const curb = $derived<CurbPlan | undefined>(session.run.curb)
  const bare = $derived(session.plan.runs.filter((r) => !r.curb && r.posts.length))
  const whole = $derived(session.value(path) !== undefined)
  const add = (paths: string[]) =>
    session.commit(
      paths.map((p) => ({ path: p, value: {} })),
      msg.curb_added,
    )
  const gates = [
    { value: 'through', name: msg.curb_through, costs: msg.curb_through_costs },
    { value: 'stops', name: msg.curb_stops, costs: msg.curb_stops_costs },
  ]
  /** What is taken where nothing is entered. */
  const usual = (field: string, mm: number) =>
    session.own(`${path}/${field}`) === undefined
      ? msg.length_field_left_empty({ short: short(mm, units) })
      : ''
</script>

{#if !whole}
  <p class="max-w-prose">{msg.curb_says}</p>
  <div class="mt-3 flex flex-wrap gap-2">
    <button class="btn btn-main" onclick={() => add([path])}>{msg.curb_add}</button>
    {#if bare.length > 1}
      <button class="btn" onclick={() => add(bare.map((r) => r.path + '/curb'))}>{msg.curb_add_all}</button>
    {/if}
  </div>
{:else if curb}
  <div class="grid max-w-6xl items-start gap-x-8 gap-y-4 lg:grid-cols-[22rem_minmax(0,1fr)]">
    <div>
      <CurbSection {session} {curb} />
      <p class="mt-2 text-[1.15rem]" data-testid="curb-sum">
        <strong>{msg.curb_sum({ length: tape(curb.length, units), concrete: bulk(curb.buy, units) })}</strong>
      </p>
      <p class="text-pencil">
        {msg.curb_forms({
          forms: tape(curb.forms, units),
          boards: curb.boards,
          board: tape(curb.board, units),
          stakes: curb.stakes,
        })}
      </p>
      <p class="text-pencil">
        {msg.curb_gap({ gap: short(curb.least, units), bay: curb.leastAt })}
      </p>
    </div>
    <div class="grid gap-3">
      <div class="grid grid-cols-2 items-start gap-3 sm:grid-cols-3">
        <LengthField
          {session}
          path="{path}/width"
          label={msg.curb_width}
          optional
          hint={usual('width', curb.width)}
        />
        <LengthField
          {session}
          path="{path}/depth"
          label={msg.curb_depth}
          optional
          hint={usual('depth', curb.depth)}
        />
        <LengthField {session} path="{path}/above" label={msg.curb_above} optional hint={msg.curb_flush} />
        <LengthField {session} path="{path}/off" label={msg.curb_off} optional hint={msg.curb_off_says} />
        <LengthField
          {session}
          path="{path}/past"
          label={msg.curb_past}
          optional
          hint={usual('past', curb.past)}
        />
        <LengthField
          {session}
          path="{path}/joints"
          label={msg.curb_joints}
          optional
          hint={msg.curb_joints_says({ most: short(curb.most, units) })}
        />
      </div>
      {#if session.run.gates.length}
        <Choice
          label={msg.curb_at_gates}
          value={curb.gates}
          options={gates}
          onpick={(v) =>
            session.commit([{ path: `${path}/gates`, value: v }], gates.find((g) => g.value === v)!.name)}
        />
      {/if}
      <div>
        <button class="btn" onclick={() => session.commit([{ path, value: null }], msg.curb_removed)}
          >{msg.curb_remove}</button
        >
      </div>
    </div>
  </div>
  <div class="mt-4">
    <ReportTable {session} {view} table="curb" caption={msg.curb_marks} />
  </div>
{:else}
  <p class="text-pencil">{msg.curb_needs_length}</p>
{/if}
