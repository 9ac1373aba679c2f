<script lang="ts">
  // Hanging the leaves: the marks, the order of work, and taking out a drop.
  import type { PlannedGate } from '../../gen/api'
  import { instead, ofGate, readIn, standing, wrongFact } from '../../lib/observed'
  import type { Session } from '../../lib/session.svelte'
  import { short } from '../../lib/tape'
  import Fraction from '../../parts/Fraction.svelte'
  import TapeEntry from '../../parts/TapeEntry.svelte'
  import Words from '../../parts/Words.svelte'
  import LengthField from '../LengthField.svelte'
  import DropPicture from './DropPicture.svelte'
  import FrontView from './FrontView.svelte'
  import FileLink from '../../parts/FileLink.svelte'
  import { scrolls } from '../../lib/scrolls'
  import * as msg from '../../gen/messages'

  let { session, gate }: { session: Session; gate: PlannedGate } = $props()
  const units = $derived(session.units)
  const marks = $derived([
    ...gate.leaves.flatMap((l) => l.hinges),
    ...(gate.latch && gate.kind === 'swing' ? [gate.latch] : []),
  ])
  const about = $derived(ofGate(session, gate))
  const dropped = $derived(standing(session, about, 'sag').at(-1))
  function drop(mm: number | null) {
    const now = mm === null ? [] : [{ on: about, what: 'sag' as const, value: mm, unit: readIn(session) }]
    session.commit(
      instead(session, standing(session, about, 'sag'), now),
      mm === null
        ? msg.hang_the_tip_has_not_dropped
        : msg.hang_the_tip_has_dropped_by({ short: short(mm, units) }),
    )
  }
  const adjust = $derived(gate.leaves.find((l) => l.adjust))
</script>

<div class="grid max-w-6xl gap-x-8 gap-y-4 lg:grid-cols-[minmax(0,1.1fr)_minmax(0,1fr)]">
  <div class="grid min-w-0 grid-cols-1 content-start gap-3 self-start lg:sticky lg:top-0">
    <div class="border border-line bg-sheet p-2"><FrontView {session} {gate} show="hang" /></div>
    {#if marks.length}
      <!-- A wide table scrolls by itself, and by keys. -->
      <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
      <div
        {@attach scrolls}
        class="relative overflow-x-auto border border-line bg-sheet"
        role="region"
        aria-label={msg.common_marks}
        tabindex="0"
      >
        <table class="sheet-table w-full" data-testid="hang-marks">
          <caption class="px-2 pt-2 text-left font-bold">{msg.common_marks}</caption>
          <thead
            ><tr
              ><th scope="col">{msg.common_mark}</th><th scope="col">{msg.common_post}</th><th scope="col"
                >{msg.common_above_ground_2}</th
              ><th scope="col">{msg.hang_from_the_reference_mark}</th><th scope="col"
                >{msg.hang_on_the_leaf}</th
              ></tr
            ></thead
          >
          <tbody>
            {#each marks as m (m.post + m.name)}
              <tr>
                <td class="font-semibold"
                  >{m.name}{#if m.pin}<span class="font-normal text-pencil"
                      >{msg.hang_pin({ pin: m.pin })}</span
                    >{/if}</td
                >
                <td>{m.post}</td>
                <td class="text-[1.1rem] font-bold"><Fraction mm={m.above} {units} /></td>
                <td><Fraction mm={Math.abs(m.fromMark)} {units} /> {m.fromMark < 0 ? 'up' : 'down'}</td>
                <td><Fraction mm={m.onLeaf} {units} /> {msg.hang_up}</td>
              </tr>
            {/each}
          </tbody>
        </table>
      </div>
    {/if}
    <p>
      <FileLink {session} what="gates" run={session.run.id} class="btn"
        >{msg.hang_gates_as_a_table_csv}</FileLink
      >
    </p>
  </div>
  <div class="grid min-w-0 grid-cols-1 content-start gap-4">
    {#snippet list(id: string, title: string, steps: PlannedGate['steps'], ordered: boolean)}
      <section aria-labelledby={id}>
        <h2 {id} class="font-bold">{title}</h2>
        <svelte:element
          this={ordered ? 'ol' : 'ul'}
          class="mt-1 grid gap-1 pl-6 leading-snug marker:font-bold {ordered ? 'list-decimal' : 'list-disc'}"
        >
          {#each steps as s, i (i)}<li class="pl-1"><Words says={s.says} {units} /></li>{/each}
        </svelte:element>
      </section>
    {/snippet}
    {@render list('order', msg.hang_to_order, gate.order, false)}
    {@render list('steps', msg.common_hang_it, gate.steps, true)}
    {#each gate.leaves as l (l.post)}
      {#if l.brace}<p class="border-l-4 border-l-line bg-sheet px-3 py-1.5 leading-snug">
          <strong
            >{l.brace.kind === 'unbraced'
              ? msg.hang_frame
              : msg.hang_brace({
                  v1: gate.leaves.length > 1 ? msg.hang_leaf_on({ post: l.post }) : '',
                })}{#if l.brace.kind !== 'unbraced'}<Fraction mm={l.brace.length} {units} />
              {msg.hang_corner_to_corner({ round: Math.round(l.brace.angle) })}{/if}.</strong
          >
          <Words says={l.brace.says} {units} />
        </p>{/if}
    {/each}
    <div class="max-w-xs">
      <LengthField {session} path="{gate.path}/latch" label={msg.hang_latch_above_ground} />
    </div>
    {@render list('after', msg.hang_after_a_week, gate.after, false)}
    {#if gate.kind === 'swing'}
      <section aria-labelledby="adjust">
        <h2 id="adjust" class="font-bold">{msg.hang_adjust_the_tip_has_dropped}</h2>
        <div class="mt-1 grid items-start gap-3 sm:grid-cols-[11rem_1fr]">
          <TapeEntry
            label={msg.hang_drop_at_the_tip}
            optional
            {units}
            value={dropped?.value}
            error={wrongFact(session)}
            oncommit={drop}
          />
          {#if adjust?.adjust}<DropPicture {session} {gate} leaf={adjust} adjust={adjust.adjust} />{/if}
        </div>
        {#each gate.leaves as l (l.post)}
          {#if l.adjust}
            <p class="mt-2 leading-snug {l.adjust.enough ? '' : 'text-stop'}" data-testid="turns">
              {#if gate.leaves.length > 1}<strong>{msg.hang_leaf_on_2({ post: l.post })}</strong>{/if}
              <Words says={l.adjust.says} {units} />
            </p>
          {/if}
        {/each}
      </section>
    {/if}
  </div>
</div>
