<script lang="ts">
  // How the gate is sized: any one measure, and the others follow.
  import { wrongSays } from '../../lib/wrong'
  import type { Figure as Address, Hardware, PlannedGate } from '../../gen/api'
  import type { Session } from '../../lib/session.svelte'
  import { short } from '../../lib/tape'
  import Choice from '../../parts/Choice.svelte'
  import Figure from '../../parts/Figure.svelte'
  import Fraction from '../../parts/Fraction.svelte'
  import Pick from '../../parts/Pick.svelte'
  import TapeEntry from '../../parts/TapeEntry.svelte'
  import Words from '../../parts/Words.svelte'
  import LengthField from '../LengthField.svelte'
  import FrontView from './FrontView.svelte'
  import { ofGate } from '../../lib/figure'

  let { session, gate }: { session: Session; gate: PlannedGate } = $props()
  const units = $derived(session.units)
  const name = $derived(gate.name || gate.id)
  const at = (field: string) => `${gate.path}/${field}`
  const set = (field: string, value: unknown, what: string) =>
    session.commit([{ path: at(field), value }], what)
  const posts = $derived(
    [gate.first, gate.second].map((id) => session.run.posts.find((p) => p.label === id)!),
  )
  const leaves = $derived(gate.leaves.length)
  const slide = $derived(gate.kind === 'slide')
  const first = $derived(slide ? gate.runBack!.past : (gate.leaves[0]?.width ?? 0))
  const second = $derived(gate.leaves[1]?.width)
  const uneven = $derived(session.value<number>(at('second')) !== undefined)

  /** Sizing by one measure lets the others go. */
  function size(by: 'leaf' | 'clear' | 'opening', mm: number | null) {
    if (mm === null) return
    session.commit(
      [
        { path: at('leaf'), value: null },
        { path: at('clear'), value: null },
        // How many leaves there are must not hang on how they are measured.
        ...(slide ? [] : [{ path: at('leaves'), value: leaves }]),
        { path: at(by), value: mm },
      ],
      `${name}: ${{ leaf: 'leaf', clear: 'clear way', opening: 'inside' }[by]} ${short(mm, units)}`,
    )
  }
  function pair(n: number) {
    session.commit(
      [
        { path: at('kind'), value: null },
        { path: at('leaves'), value: n },
        { path: at('leaf'), value: null },
        { path: at('second'), value: null },
        ...(gate.sizedBy === 'leaf' ? [{ path: at('opening'), value: gate.opening }] : []),
      ],
      `${name}: ${n === 2 ? 'two leaves' : 'one leaf'}`,
    )
  }
  const kind = $derived(slide ? 'slide' : leaves === 2 ? 'double' : 'single')
  function pickKind(v: string) {
    if (v === 'slide')
      session.commit(
        [
          { path: at('kind'), value: 'slide' },
          { path: at('leaf'), value: null },
          { path: at('second'), value: null },
          ...(gate.sizedBy === 'leaf' ? [{ path: at('opening'), value: gate.opening }] : []),
        ],
        `${name} slides`,
      )
    else pair(v === 'double' ? 2 : 1)
  }
  const hardware = $derived(session.value<Hardware>(at('hardware')))
  const sets = $derived(
    session.catalogue.hardware
      .filter((h) => h.system === units.system || h.takes.kind === hardware?.kind)
      .map((h) => ({ value: h.takes.kind ?? '', name: h.name })),
  )
  const taken = $derived(session.catalogue.hardware.find((h) => h.takes.kind === hardware?.kind))
  const err = (field: string) => {
    const e = session.errorAt(at(field))
    return e ? wrongSays(e) : ''
  }
  /** A gap of one's own is no catalogue's any more. */
  const own = (field: keyof Hardware, mm: number | null) =>
    mm !== null &&
    session.commit(
      [{ path: at('hardware'), value: { ...hardware, [field]: mm, kind: '' } }],
      `${name}: ${field} gap ${short(mm, units)}`,
    )
</script>

<div class="grid max-w-6xl gap-x-8 gap-y-4 lg:grid-cols-[minmax(0,1.1fr)_minmax(0,1fr)]">
  <div class="self-start border border-line bg-sheet p-2 lg:sticky lg:top-0">
    <FrontView {session} {gate} show="opening" />
  </div>
  <div class="grid min-w-0 grid-cols-1 content-start gap-4">
    <Choice
      label="Kind"
      value={kind}
      options={[
        { value: 'single', name: 'One leaf', costs: 'the widest swing, the most pull on one post' },
        { value: 'double', name: 'Two leaves', costs: 'half the swing; a drop bolt and a second hinge post' },
        { value: 'slide', name: 'Sliding', costs: 'no swing; its run-back must stay clear' },
      ]}
      onpick={pickKind}
    />
    <section aria-labelledby="size">
      <h2 id="size" class="font-bold">Size: enter one, the others follow</h2>
      <div class="mt-1 grid grid-cols-2 items-start gap-2 sm:grid-cols-3">
        <TapeEntry
          label={leaves === 2 && !slide ? `Leaf width on ${gate.first}` : 'Leaf width'}
          field="leaf"
          {units}
          value={first}
          error={err('leaf')}
          hint={gate.sizedBy === 'leaf' ? 'decides' : 'follows'}
          oncommit={(mm) => size('leaf', mm)}
        />
        <TapeEntry
          label="Clear opening"
          field="clear"
          {units}
          value={gate.clear}
          error={err('clear')}
          hint={gate.sizedBy === 'clear' ? 'decides' : 'follows'}
          oncommit={(mm) => size('clear', mm)}
        />
        <TapeEntry
          label="Between posts"
          field="opening"
          {units}
          value={gate.opening}
          error={err('opening')}
          hint={gate.sizedBy === 'inside' ? 'decides' : 'follows'}
          oncommit={(mm) => size('opening', mm)}
        />
        {#if leaves === 2}
          <TapeEntry
            label="Leaf width on {gate.second}"
            field="second"
            {units}
            value={second}
            optional
            error={err('second')}
            hint={uneven ? 'a width of its own' : 'as the other'}
            oncommit={(mm) =>
              set(
                'second',
                mm,
                mm === null ? `${name}: equal leaves` : `${name}: second leaf ${short(mm, units)}`,
              )}
          />
        {/if}
        <LengthField {session} path={at('at')} label="Middle of the opening" long />
        <LengthField {session} path={at('gap')} label="Gap under" hint="over the highest ground" />
      </div>
      <dl class="mt-3 flex flex-wrap gap-x-6 gap-y-1" data-testid="distances">
        {#snippet figure(words: string, mm: number, why?: Address)}
          <div>
            <dt class="text-[0.88rem] text-pencil">{words}</dt>
            <dd class="text-[1.15rem] font-bold">
              {#if why !== undefined}<Figure {why} of="{name}, {words}"><Fraction {mm} {units} /></Figure
                >{:else}<Fraction {mm} {units} />{/if}
            </dd>
          </div>
        {/snippet}
        {@render figure('Inside', gate.opening, ofGate(session.run, gate, 'inside'))}
        {@render figure('Centre to centre', gate.centre)}
        {@render figure('Outside', gate.outside)}
        {@render figure('Clear opening', gate.clear, ofGate(session.run, gate, 'clear'))}
        {@render figure('Leaf, high', gate.leaf)}
      </dl>
    </section>
    {#if !slide}
      <section aria-labelledby="hw">
        <h2 id="hw" class="font-bold">Hinges and latch</h2>
        <div class="mt-1 grid items-start gap-2 sm:grid-cols-2">
          <Pick
            label="Hardware"
            value={hardware?.kind ?? ''}
            options={[...sets, ...(hardware?.kind ? [] : [{ value: '', name: 'your own gaps' }])]}
            onpick={(v) => {
              const h = session.catalogue.hardware.find((s) => s.takes.kind === v)
              if (h) set('hardware', h.takes, `${name}: ${h.name}`)
            }}
          />
          {#if taken}<p class="self-end text-[0.92rem] leading-snug text-pencil">{taken.says}</p>{/if}
        </div>
        <div class="mt-2 grid grid-cols-2 gap-2 sm:grid-cols-4">
          <TapeEntry
            label="Hinge gap"
            {units}
            value={hardware?.hinge}
            error={err('hardware/hinge')}
            oncommit={(mm) => own('hinge', mm)}
          />
          {#if leaves === 2}<TapeEntry
              label="Between leaves"
              {units}
              value={hardware?.meeting}
              error={err('hardware/meeting')}
              oncommit={(mm) => own('meeting', mm)}
            />{:else}<TapeEntry
              label="Latch gap"
              {units}
              value={hardware?.latch}
              error={err('hardware/latch')}
              oncommit={(mm) => own('latch', mm)}
            />{/if}
          <LengthField {session} path={at('thick')} label="Leaf, thick" />
          <Pick
            label="Made of"
            value={session.value<string>(at('make')) ?? ''}
            options={[
              { value: '', name: 'not said' },
              ...session.catalogue.makes.map((m) => ({ value: m.id, name: m.name })),
            ]}
            onpick={(v) =>
              set(
                'make',
                v,
                `${name}: ${session.catalogue.makes.find((m) => m.id === v)?.name.toLowerCase() ?? v}`,
              )}
          />
        </div>
      </section>
    {:else}
      <div class="grid gap-2 sm:grid-cols-2">
        <Choice
          label="Runs back past"
          value={session.choice(at('slides'))}
          options={[
            { value: 'first', name: gate.first },
            { value: 'second', name: gate.second },
          ]}
          onpick={(v) =>
            set('slides', v, `${name} runs back past ${v === 'first' ? gate.first : gate.second}`)}
        />
        <LengthField {session} path={at('overlap')} label="Longer than the opening by" />
      </div>
      <p>
        Open, it stands <strong><Fraction mm={gate.runBack!.past} {units} /></strong> past {gate.runBack!
          .post}; there are <Fraction mm={gate.runBack!.room} {units} /> to the run’s end, and
        <Fraction mm={gate.runBack!.gap} {units} /> under it at the least.
      </p>
    {/if}
    <div>
      <Choice
        label="Tops across the opening"
        value={session.choice(session.at('/grade/across'))}
        options={session.catalogue.choices['grade/across']!}
        onpick={(v) =>
          session.commit(
            [{ path: session.at('/grade/across'), value: v }],
            v === 'flat' ? 'Tops flat across gates' : 'Tops go on over gates',
          )}
      />
      <p class="mt-1 text-pencil">
        {#each posts as p, i (p.label)}{i ? ', ' : ''}{p.label}
          {#if Math.abs(p.step) < units.smallestMark / 2}meets its neighbour level{:else}steps <Fraction
              mm={Math.abs(p.step)}
              {units}
            />{/if}{/each}.
      </p>
    </div>
    <section aria-labelledby="prove">
      <h2 id="prove" class="font-bold">Prove the posts before anything is hung</h2>
      <dl class="mt-1 grid gap-1">
        {#each gate.checks as c (c.name)}
          <div class="grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-3 border-t border-rule pt-1">
            <dt>{c.name}</dt>
            <dd class="text-[1.1rem] font-bold"><Fraction mm={c.length} {units} /></dd>
            <dd class="text-[0.92rem] text-pencil col-span-2"><Words says={c.says} {units} /></dd>
          </div>
        {/each}
      </dl>
    </section>
  </div>
</div>
