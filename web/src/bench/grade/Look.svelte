<script lang="ts">
  // The look of the run and what it asks: each choice with what it costs.
  import type { Grade } from '../../gen/api'
  import type { Session } from '../../lib/session.svelte'
  import { bulk, short } from '../../lib/tape'
  import Choice from '../../parts/Choice.svelte'
  import Pick from '../../parts/Pick.svelte'
  import LengthField from '../LengthField.svelte'
  import NumberField from '../NumberField.svelte'
  import LookParts from './LookParts.svelte'

  let { session }: { session: Session } = $props()
  const looks = $derived(session.catalogue.choices['grade/look']!)
  const stepWays = $derived(session.catalogue.choices['grade/steps']!)
  const grade = $derived(session.value<Grade>(session.at('/grade')))
  const had = $derived(looks.map((l) => ({ ...l, refused: session.run.looksRefused[l.value] })))
  const units = $derived(session.units)
  const chosen = (field: string) => session.choice(session.at(`/grade/${field}`))
  const look = $derived(chosen('look'))
  const give = $derived(chosen('give'))
  const steps = $derived(chosen('steps'))
  const present = $derived(new Set<string>([look, ...(grade?.parts ?? []).map((p) => p.look)]))
  const leans = $derived(present.has('raked') || present.has('rolling'))
  const totals = $derived(session.run.totals)
  const set = (field: string, value: unknown, what: string) =>
    session.commit([{ path: session.at(`/grade/${field}`), value }], what)
  const named = (value: string, list: { value: string; name: string }[]) =>
    list.find((o) => o.value === value)?.name ?? value

  const stiff = $derived(session.value<number>(session.at('/grade/straight')) ?? 0)
  const soil = $derived(
    [
      totals.cut > 1e-6 ? `cut ${bulk(totals.cut, units)}` : '',
      totals.fill > 1e-6 ? `fill ${bulk(totals.fill, units)}` : '',
      totals.infillBoards ? `${totals.infillBoards} infill boards` : '',
    ]
      .filter(Boolean)
      .join(', '),
  )
</script>

<div class="grid max-w-6xl gap-x-8 gap-y-4 lg:grid-cols-2">
  <div class="grid min-w-0 grid-cols-1 content-start gap-4">
    <Choice label="On the slope" value={look} options={had} onpick={(v) => set('look', v, named(v, looks))} />
    {#if present.has('stepped')}
      <Choice
        label="Steps"
        value={steps}
        options={stepWays}
        onpick={(v) => set('steps', v, `Steps: ${named(v, stepWays).toLowerCase()}`)}
      />
    {/if}
  </div>
  <div class="grid min-w-0 grid-cols-1 content-start gap-4">
    {#if present.has('raked') || (present.has('stepped') && steps === 'gradual')}
      <div>
        <label for="stiff" class="label mb-1">Follow the ground … straight line</label>
        <input
          id="stiff"
          type="range"
          min="0"
          max="100"
          step="5"
          class="h-11 w-full accent-(--mallow)"
          value={Math.round(stiff * 100)}
          aria-valuetext="{Math.round(stiff * 100)} of 100 towards straight"
          oninput={(e) =>
            session.preview(
              [{ path: session.at('/grade/straight'), value: +e.currentTarget.value / 100 }],
              true,
            )}
          onchange={(e) =>
            set('straight', +e.currentTarget.value / 100, `${e.currentTarget.value} % straight`)}
        />
        <p class="flex justify-between text-[0.9rem] text-pencil">
          <span>every bump shows on top</span><span>bumps are taken out, gaps vary</span>
        </p>
      </div>
    {/if}
    <p class="border-l-4 border-l-line bg-sheet px-3 py-2" data-testid="grade-sums">
      {totals.gradePosts}
      {totals.gradePosts === 1 ? 'grade post' : 'grade posts'}, {totals.steps}
      {totals.steps === 1 ? 'step' : 'steps'}{soil ? `; ${soil}` : '; no earth to move'}.
      {#if session.run.topLine?.limit}
        {@const l = session.run.topLine.limit}
        <span class="block"
          >{l.post} is the post that limits a level top: {l.spare >= 0
            ? `${short(l.spare, units)} more and the longest stock, ${short(l.stock, units)}, is too short.`
            : `the longest stock, ${short(l.stock, units)}, is ${short(-l.spare, units)} too short.`}</span
        >
      {/if}
    </p>
    <Choice
      label="Where both gaps cannot be held"
      value={give}
      options={session.catalogue.choices['grade/give']!}
      onpick={(v) => set('give', v, v === 'both' ? 'Half cut, half fill' : v === 'cut' ? 'Cut' : 'Fill')}
    />
  </div>
  <div class="grid grid-cols-2 gap-3 sm:grid-cols-3 lg:col-span-2 lg:grid-cols-5">
    <LengthField {session} path={session.at('/fence/height')} label="Fence height" />
    <LengthField {session} path={session.at('/fence/gapLeast')} label="Least gap under it" />
    <LengthField {session} path={session.at('/fence/gapMost')} label="Most gap under it" />
    <LengthField {session} path={session.at('/grade/startGap')} label="Gap held at the first post" optional />
    <LengthField {session} path={session.at('/grade/endGap')} label="Gap held at the last post" optional />
    {#if leans}
      <LengthField {session} path={session.at('/grade/rack')} label="Panel racks at most" optional />
    {/if}
    {#if present.has('rolling')}
      <LengthField {session} path={session.at('/grade/dips')} label="Take out dips up to" optional />
    {/if}
    {#if present.has('stepped') && steps === 'round'}
      <LengthField {session} path={session.at('/grade/stepBy')} label="Drop by multiples of" optional />
      <NumberField {session} path={session.at('/grade/holdLevel')} label="Panels level at the top" />
      <NumberField {session} path={session.at('/grade/stepEase')} label="Drop may change by, increments" />
    {/if}
    {#if present.has('stepped') && (steps === 'round' || steps === 'gradual')}
      <LengthField {session} path={session.at('/grade/stepMost')} label="Drop at most" optional />
    {/if}
    {#if present.has('stepped') || present.has('level')}
      <Pick
        label="Under the low end"
        value={chosen('infill')}
        options={session.catalogue.choices['grade/infill']!}
        onpick={(v) => set('infill', v, `Infill: ${v}`)}
      />
      {#if chosen('infill') !== 'earth'}
        <LengthField {session} path={session.at('/grade/board')} label="Height of a board" optional />
      {/if}
    {/if}
    <Pick
      label="Tops over a gate"
      value={chosen('across')}
      options={session.catalogue.choices['grade/across']!}
      onpick={(v) => set('across', v, v === 'flat' ? 'Gates flat' : 'Tops go on over gates')}
    />
    <LengthField {session} path={session.at('/post/above')} label="Post above the fence" />
    <LengthField {session} path={session.at('/grade/strip')} label="Strip that is cut or filled" optional />
  </div>
</div>
<LookParts {session} />
