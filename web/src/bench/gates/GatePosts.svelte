<script lang="ts">
  // What the leaves ask of their posts, and which post length stands how deep.
  import type { PlannedGate, Terminal } from '../../gen/api'
  import type { Session } from '../../lib/session.svelte'
  import { force, short, torque, weight } from '../../lib/tape'
  import Figure from '../../parts/Figure.svelte'
  import Fraction from '../../parts/Fraction.svelte'
  import Pick from '../../parts/Pick.svelte'
  import NumberEntry from '../../parts/NumberEntry.svelte'
  import LengthField from '../LengthField.svelte'
  import HolePicture from '../dig/HolePicture.svelte'
  import { ofGate, ofPost } from '../../lib/figure'
  import { scrolls } from '../../lib/scrolls'
  import * as msg from '../../gen/messages'

  let { session, gate }: { session: Session; gate: PlannedGate } = $props()
  const units = $derived(session.units)
  const name = $derived(gate.name || gate.id)
  const posts = $derived(
    [gate.first, gate.second].map((id) => session.run.posts.find((p) => p.label === id)!),
  )
  const perMass = $derived(units.system === 'metric' ? 1 : 0.45359237)
  const given = $derived.by(() => {
    const kg = session.value<number>(`${gate.path}/weight`)
    return kg === undefined ? undefined : Math.round((kg / perMass) * 10) / 10
  })
  const sizes = $derived(session.catalogue.posts.filter((p) => p.system === units.system))
  const section = $derived(session.value<Terminal>(session.at('/gatePost')))
  const size = $derived(
    section
      ? (sizes.find(
          (p) =>
            p.shape === section.shape &&
            Math.abs(p.width - (section.width ?? 0)) < 0.01 &&
            p.hollow === (section.hollow ?? false),
        )?.name ?? 'own')
      : '-',
  )
  function takeSize(name: string) {
    const p = sizes.find((s) => s.name === name)
    const value = p ? { shape: p.shape, width: p.width, hollow: p.hollow, wall: p.wall } : null
    session.commit(
      [{ path: session.at('/gatePost'), value }],
      p ? msg.gate_posts_gate_posts({ name }) : msg.gate_posts_gate_posts_as_the_others,
    )
  }
  const role = (hung: boolean | undefined) =>
    gate.kind === 'slide'
      ? msg.gate_posts_guide_post
      : hung
        ? msg.gate_posts_hinge_post
        : msg.gate_posts_latch_post
</script>

<div class="grid max-w-6xl gap-5">
  {#if gate.leaves.length}
    <!-- A wide table scrolls by itself, and by keys. -->
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <div
      {@attach scrolls}
      class="relative overflow-x-auto border border-line bg-sheet"
      role="region"
      aria-label={msg.gate_posts_what_the_leaves_pull_with}
      tabindex="0"
    >
      <table class="sheet-table w-full">
        <caption class="px-2 pt-2 text-left font-bold">{msg.gate_posts_what_the_leaves_pull_with}</caption>
        <thead
          ><tr
            ><th scope="col">{msg.gate_posts_leaf_on}</th><th scope="col">{msg.gate_posts_weight}</th><th
              scope="col">{msg.gate_posts_pulls_over}</th
            ><th scope="col">{msg.gate_posts_hinges_apart}</th><th scope="col"
              >{msg.gate_posts_pull_on_each_hinge}</th
            ><th scope="col">{msg.gate_posts_of_the_footings_limit}</th></tr
          ></thead
        >
        <tbody>
          {#each gate.leaves as l (l.post)}
            {@const p = posts.find((q) => q.label === l.post)!}
            <tr>
              <td class="font-bold">{l.post}</td>
              <td>{weight(l.mass, units)}{l.estimated ? msg.common_estimated : ''}</td>
              <td>{torque(l.moment, units)}</td>
              <td><Fraction mm={l.spacing} {units} /></td>
              <td class="text-[1.05rem] font-semibold"
                ><Figure
                  why={ofGate(session.run, gate, 'pull')}
                  of={msg.gate_posts_pull_on_the_hinges({ name })}>{force(l.pull, units)}</Figure
                ></td
              >
              <td
                >{#if p.wind?.leaf}<Figure
                    why={ofPost(session.run, p, 'gust')}
                    of={msg.common_gust({ label: p.label })}>{Math.round(100 * p.wind.leaf.share)} %</Figure
                  >{:else}—{/if}</td
              >
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
    <div class="grid max-w-3xl grid-cols-2 items-start gap-2 sm:grid-cols-4">
      <NumberEntry
        label="{gate.leaves.length > 1
          ? msg.gate_posts_the_wider_leaf
          : msg.common_the_leaf}, {units.system === 'metric' ? 'kg' : 'lb'}"
        value={given}
        hint={msg.common_left_empty_estimated}
        error={session.wrongAt(`${gate.path}/weight`)}
        oncommit={(n) =>
          session.commit(
            [{ path: `${gate.path}/weight`, value: n * perMass }],
            msg.gate_posts_leaf_of({ name, v2: n }),
          )}
        onclear={() =>
          session.commit(
            [{ path: `${gate.path}/weight`, value: null }],
            msg.gate_posts_leaf_of_estimated({ name }),
          )}
      />
      <LengthField
        {session}
        path="{gate.path}/hingeIn"
        label={msg.gate_posts_hinges_in_by}
        hint={msg.gate_posts_from_top_and_bottom}
      />
      <LengthField
        {session}
        path={session.at('/hole/hingeExtraDepth')}
        label={msg.gate_posts_hinge_posts_deeper}
        optional
        hint={msg.gate_posts_than_latch_posts_on_this}
      />
      <LengthField
        {session}
        path={session.at('/hole/hingeExtraWidth')}
        label={msg.gate_posts_hinge_holes_wider}
        optional
        hint={msg.gate_posts_before_the_next_auger}
      />
    </div>
  {/if}
  <div class="max-w-xs">
    <Pick
      label={msg.gate_posts_gate_posts_of({ v1: session.run.name || session.run.id })}
      value={size}
      options={[
        { value: '-', name: msg.gate_posts_as_the_other_end_posts },
        ...sizes.map((s) => ({ value: s.name, name: s.name })),
        ...(size === 'own' ? [{ value: 'own', name: msg.common_own_size }] : []),
      ]}
      onpick={takeSize}
    />
  </div>
  <div class="grid gap-4 2xl:grid-cols-2">
    {#each posts as p (p.label)}
      {@const card = session.run.cards[p.card]}
      <section class="border border-line bg-sheet p-3" aria-label="{p.label}, {role(p.hung)}">
        <h2 class="font-bold">{p.label}, {role(p.hung)}</h2>
        <div class="mt-1 grid gap-3 sm:grid-cols-[9.5rem_minmax(0,1fr)]">
          {#if card}<HolePicture {session} {card} bare />{/if}
          <div class="grid min-w-0 grid-cols-1 content-start gap-2">
            {#if card}
              <p class="text-[1.05rem] leading-snug">
                {#if card.method !== 'driven'}{msg.common_hole}
                  <strong
                    ><Figure
                      why={ofPost(session.run, p, 'holeWidth')}
                      of={msg.gate_posts_hole_width({ label: p.label })}
                      ><Fraction mm={p.holeWidth} {units} /></Figure
                    >
                    ×
                    <Figure
                      why={ofPost(session.run, p, 'holeDepth')}
                      of={msg.gate_posts_hole_depth({ label: p.label })}
                      ><Fraction mm={p.holeDepth} {units} /></Figure
                    ></strong
                  >,&nbsp;{/if}{msg.gate_posts_foot}
                <Fraction mm={p.foot} {units} />
                {msg.gate_posts_deep}
                <Fraction mm={p.reveal} {units} />
                {msg.common_above_ground}
              </p>
            {:else}<p>{msg.gate_posts_an_old_post_stands_here}</p>{/if}
            {#if gate.lengths.some((l) => l.post === p.label)}
              <table class="sheet-table w-full">
                <caption class="text-left text-[0.95rem] text-pencil"
                  >{msg.gate_posts_a_post_of_and_how}</caption
                >
                <tbody>
                  {#each gate.lengths.filter((l) => l.post === p.label) as l (l.length)}
                    <tr class={l.taken ? 'font-bold' : ''}>
                      <td class="px-1"
                        ><button
                          class="btn min-h-9 px-2 py-0.5 pointer-coarse:min-h-11"
                          aria-label={msg.gate_posts_set_gate_posts_of_as({ short: short(l.length, units) })}
                          onclick={() =>
                            session.commit(
                              l.edits,
                              msg.gate_posts_gate_posts_deep({ short: short(l.foot, units) }),
                            )}><Fraction mm={l.length} {units} /></button
                        ></td
                      >
                      <td class="px-1"><Fraction mm={l.foot} {units} /></td>
                      <td class="px-1 {l.enough ? '' : 'text-stop'}"
                        >{l.taken
                          ? 'taken'
                          : l.enough
                            ? 'longer'
                            : msg.gate_posts_short({ short: short(l.asked - l.foot, units) })}</td
                      >
                    </tr>
                  {/each}
                </tbody>
              </table>
            {/if}
          </div>
        </div>
      </section>
    {/each}
  </div>
</div>
