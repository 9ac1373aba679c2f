<script lang="ts">
  // One gate at a time: its opening, its swing, its posts, and how it hangs.
  import { Tabs } from 'bits-ui'
  import Trash2 from '@lucide/svelte/icons/trash-2'
  import type { View } from '../../drawing/view.svelte'
  import type { Session } from '../../lib/session.svelte'
  import Parts from '../Parts.svelte'
  import AddGate from './AddGate.svelte'
  import GateOpening from './GateOpening.svelte'
  import GatePosts from './GatePosts.svelte'
  import GateSwing from './GateSwing.svelte'
  import Hang from './Hang.svelte'
  import Passage from './Passage.svelte'
  import * as msg from '../../gen/messages'

  let { session, view }: { session: Session; view: View } = $props()
  const all = $derived(
    session.plan.runs.flatMap((run) => run.gates.map((gate) => ({ run, gate, key: run.id + '/' + gate.id }))),
  )
  const gate = $derived(session.gate)
  const troubles = (run: string, id: string) =>
    session.plan.findings.filter(
      (f) => f.stage === 'gates' && f.severity !== 'note' && f.place.run === run && f.place.gate === id,
    ).length
  const parts = [
    { id: 'opening', name: msg.gates_bench_opening, note: '' },
    { id: 'swing', name: msg.gates_bench_swing, note: '' },
    { id: 'posts', name: msg.common_posts, note: '' },
    { id: 'hang', name: msg.common_hang_it, note: '' },
    { id: 'passage', name: msg.gates_bench_drive_and_safety, note: '' },
  ] as const

  function pick(run: string, id: string) {
    session.pickRun(run)
    session.gateID = id
    const g = session.gate
    if (!g) return
    session.post = Math.max(
      0,
      session.run.posts.findIndex((p) => p.label === g.first),
    )
    view.show(session.drawn.posts[session.drawnPost]!.station)
  }
</script>

<div class="cue flex-none">
  <div
    class="flex items-center gap-1.5 overflow-x-auto border-b border-line px-3 py-1.5"
    role="group"
    aria-label={msg.gates_bench_gates_of_the_job}
  >
    {#each all as { run, gate: g, key } (key)}
      {@const n = troubles(run.id, g.id)}
      <button
        class="btn flex-none {run.id === session.run.id && g.id === gate?.id
          ? 'border-mallow bg-mallow-wash shadow-[inset_0_0_0_1px_var(--mallow)]'
          : ''}"
        aria-pressed={run.id === session.run.id && g.id === gate?.id}
        onclick={() => pick(run.id, g.id)}
        >{g.name || g.id}<span class="font-normal text-pencil">{run.name || run.id}</span>{#if n}<span
            class="border border-warn bg-warn-wash px-1 text-[0.85rem] text-warn"
            >{n}<span class="sr-only"> {msg.common_to_check}</span></span
          >{/if}</button
      >
    {/each}
    {#if gate}
      <button
        class="btn flex-none"
        onclick={() => session.commit([{ path: gate.path, value: null }], `${gate.name || gate.id} removed`)}
        ><Trash2 size={18} aria-hidden="true" />{msg.gates_bench_remove({ v1: gate.name || gate.id })}</button
      >
    {/if}
    <AddGate {session} onadded={(id) => pick(session.run.id, id)} />
  </div>
</div>

{#if !gate}
  <p class="max-w-prose p-3">
    {msg.gates_bench_no_gate_on_a_gate({ v1: session.run.name || session.run.id })}
  </p>
{:else}
  {#key session.run.id + gate.id}
    <Parts
      label={msg.gates_bench_parts_of_the_gate}
      {parts}
      value={session.nav.parts.gates}
      onpick={(id) => (session.nav.parts.gates = id as typeof session.nav.parts.gates)}
    >
      <Tabs.Content value="opening"
        >{#if session.nav.parts.gates === 'opening'}<GateOpening {session} {gate} />{/if}</Tabs.Content
      >
      <Tabs.Content value="swing"
        >{#if session.nav.parts.gates === 'swing'}<GateSwing {session} {gate} />{/if}</Tabs.Content
      >
      <Tabs.Content value="posts"
        >{#if session.nav.parts.gates === 'posts'}<GatePosts {session} {gate} />{/if}</Tabs.Content
      >
      <Tabs.Content value="hang"
        >{#if session.nav.parts.gates === 'hang'}<Hang {session} {gate} />{/if}</Tabs.Content
      >
      <Tabs.Content value="passage"
        >{#if session.nav.parts.gates === 'passage'}<Passage {session} {gate} />{/if}</Tabs.Content
      >
    </Parts>
  {/key}
{/if}
