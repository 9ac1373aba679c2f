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
      p ? `Gate posts: ${name}` : 'Gate posts as the others',
    )
  }
  const role = (hung: boolean | undefined) =>
    gate.kind === 'slide' ? 'guide post' : hung ? 'hinge post' : 'latch post'
</script>

<div class="grid max-w-6xl gap-5">
  {#if gate.leaves.length}
    <!-- A wide table scrolls by itself, and by keys. -->
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <div
      {@attach scrolls}
      class="relative overflow-x-auto border border-line bg-sheet"
      role="region"
      aria-label="What the leaves pull with"
      tabindex="0"
    >
      <table class="sheet-table w-full">
        <caption class="px-2 pt-2 text-left font-bold">What the leaves pull with</caption>
        <thead
          ><tr
            ><th scope="col">Leaf on</th><th scope="col">Weight</th><th scope="col">Pulls over</th><th
              scope="col">Hinges apart</th
            ><th scope="col">Pull on each hinge</th><th scope="col">Of the footing’s limit</th></tr
          ></thead
        >
        <tbody>
          {#each gate.leaves as l (l.post)}
            {@const p = posts.find((q) => q.label === l.post)!}
            <tr>
              <td class="font-bold">{l.post}</td>
              <td>{weight(l.mass, units)}{l.estimated ? ', estimated' : ''}</td>
              <td>{torque(l.moment, units)}</td>
              <td><Fraction mm={l.spacing} {units} /></td>
              <td class="text-[1.05rem] font-semibold"
                ><Figure why={ofGate(session.run, gate, 'pull')} of="{name}, pull on the hinges"
                  >{force(l.pull, units)}</Figure
                ></td
              >
              <td
                >{#if p.wind?.leaf}<Figure why={ofPost(session.run, p, 'gust')} of="{p.label} gust"
                    >{Math.round(100 * p.wind.leaf.share)} %</Figure
                  >{:else}—{/if}</td
              >
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
    <div class="grid max-w-3xl grid-cols-2 items-start gap-2 sm:grid-cols-4">
      <NumberEntry
        label="{gate.leaves.length > 1 ? 'The wider leaf' : 'The leaf'}, {units.system === 'metric'
          ? 'kg'
          : 'lb'}"
        value={given}
        hint="left empty: estimated"
        error={session.wrongAt(`${gate.path}/weight`)}
        oncommit={(n) =>
          session.commit([{ path: `${gate.path}/weight`, value: n * perMass }], `Leaf of ${name}: ${n}`)}
        onclear={() =>
          session.commit([{ path: `${gate.path}/weight`, value: null }], `Leaf of ${name} estimated`)}
      />
      <LengthField {session} path="{gate.path}/hingeIn" label="Hinges in by" hint="from top and bottom" />
      <LengthField
        {session}
        path={session.at('/hole/hingeExtraDepth')}
        label="Hinge posts deeper"
        optional
        hint="than latch posts, on this run"
      />
      <LengthField
        {session}
        path={session.at('/hole/hingeExtraWidth')}
        label="Hinge holes wider"
        optional
        hint="before the next auger"
      />
    </div>
  {/if}
  <div class="max-w-xs">
    <Pick
      label="Gate posts of {session.run.name || session.run.id}"
      value={size}
      options={[
        { value: '-', name: 'as the other end posts' },
        ...sizes.map((s) => ({ value: s.name, name: s.name })),
        ...(size === 'own' ? [{ value: 'own', name: 'own size' }] : []),
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
                {#if card.method !== 'driven'}Hole <strong
                    ><Figure why={ofPost(session.run, p, 'holeWidth')} of="{p.label} hole width"
                      ><Fraction mm={p.holeWidth} {units} /></Figure
                    >
                    ×
                    <Figure why={ofPost(session.run, p, 'holeDepth')} of="{p.label} hole depth"
                      ><Fraction mm={p.holeDepth} {units} /></Figure
                    ></strong
                  >,&nbsp;{/if}foot <Fraction mm={p.foot} {units} /> deep, <Fraction mm={p.reveal} {units} /> above
                ground.
              </p>
            {:else}<p>An old post stands here and stays.</p>{/if}
            {#if gate.lengths.some((l) => l.post === p.label)}
              <table class="sheet-table w-full">
                <caption class="text-left text-[0.95rem] text-pencil"
                  >A post of, and how deep it stands. Tap a length to set the gate posts so deep.</caption
                >
                <tbody>
                  {#each gate.lengths.filter((l) => l.post === p.label) as l (l.length)}
                    <tr class={l.taken ? 'font-bold' : ''}>
                      <td class="px-1"
                        ><button
                          class="btn min-h-9 px-2 py-0.5 pointer-coarse:min-h-11"
                          aria-label="Set gate posts of {short(l.length, units)} as deep as they reach"
                          onclick={() => session.commit(l.edits, `Gate posts ${short(l.foot, units)} deep`)}
                          ><Fraction mm={l.length} {units} /></button
                        ></td
                      >
                      <td class="px-1"><Fraction mm={l.foot} {units} /></td>
                      <td class="px-1 {l.enough ? '' : 'text-stop'}"
                        >{l.taken
                          ? 'taken'
                          : l.enough
                            ? 'longer'
                            : `${short(l.asked - l.foot, units)} short`}</td
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
