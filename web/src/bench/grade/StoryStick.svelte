<script lang="ts">
  // The story stick: every mark that is the same on all posts, from the
  // reference mark, drawn to scale.
  import Picture from '../../drawing/Picture.svelte'
  import type { Session } from '../../lib/session.svelte'
  import { short } from '../../lib/tape'
  import Fraction from '../../parts/Fraction.svelte'
  import TapeEntry from '../../parts/TapeEntry.svelte'
  import LengthField from '../LengthField.svelte'
  import NumberField from '../NumberField.svelte'
  import { scrolls } from '../../lib/scrolls'

  let { session }: { session: Session } = $props()
  const units = $derived(session.units)
  const t = $derived(session.run.topLine)
  const rails = $derived(session.at('/fence/rails'))
  const byHand = $derived(session.value<number[]>(rails))
  const steps = $derived(session.run.totals.steps)
</script>

{#if !t}
  <p class="text-pencil">First, how long is the run?</p>
{:else}
  <div class="grid max-w-5xl gap-6 lg:grid-cols-[26rem_1fr]">
    <div class="border border-line bg-sheet">
      <Picture
        {session}
        view={{ of: 'stick' }}
        wide={420}
        tall={400}
        label="Story stick of {session.run.name || session.run.id}"
        of="stick"
      />
    </div>
    <div class="grid min-w-0 content-start gap-3">
      <p>
        Cut a straight stick, mark it once, and hold its reference mark to that of every post: all else is
        read off it. The mark lies <strong><Fraction mm={t.mark} {units} /></strong> below the fence's top.
      </p>
      <div {@attach scrolls} class="relative overflow-x-auto border border-line bg-sheet">
        <table class="sheet-table w-full" data-testid="stick">
          <caption class="px-2 pt-2 text-left font-bold">From the reference mark, up or down</caption>
          <thead
            ><tr><th scope="col">Mark</th><th scope="col">Upper edge</th><th scope="col">Lower edge</th></tr
            ></thead
          >
          <tbody>
            {#each t.stick as m, i (i)}
              <tr class={m.kind === 'mark' ? 'bg-mallow-wash font-bold' : ''}>
                <td>{m.name}</td>
                <td class="font-semibold"
                  >{#if m.kind === 'mark'}0{:else}{m.up > 0 ? 'up ' : 'down '}<Fraction
                      mm={Math.abs(m.up)}
                      {units}
                    />{/if}</td
                >
                <td
                  >{#if Math.abs(m.up - m.to) > 0.01}{m.to > 0 ? 'up ' : 'down '}<Fraction
                      mm={Math.abs(m.to)}
                      {units}
                    />{/if}</td
                >
              </tr>
            {/each}
          </tbody>
        </table>
      </div>
      <section class="border border-line bg-sheet p-3" aria-label="Rails">
        <h3 class="mb-2 font-bold">Rails, middles above the fence's bottom</h3>
        <div class="grid grid-cols-2 gap-3 sm:grid-cols-3">
          {#if byHand}
            {#each byHand.keys() as i (i)}
              {@const name = i === 0 ? 'Bottom rail' : i === byHand.length - 1 ? 'Top rail' : `Rail ${i + 1}`}
              {@const to = (mm: number | null) => [{ path: rails, value: byHand!.with(i, mm ?? 0) }]}
              <TapeEntry
                label={name}
                {units}
                field={rails}
                value={byHand[i]!}
                error={session.wrongAt(rails)}
                onpreview={(mm) => session.preview(to(mm), true)}
                oncommit={(mm) => session.commit(to(mm), `${name} ${short(mm ?? 0, units)}`)}
              />
            {/each}
          {:else}
            <NumberField {session} path={session.at('/spacing/rails')} label="Rails, spread evenly" />
          {/if}
          <LengthField {session} path={session.at('/fence/railWidth')} label="Height of a rail" optional />
        </div>
        {#if byHand}
          <button
            class="btn mt-3"
            onclick={() =>
              session.commit([{ path: session.at('/fence/rails'), value: null }], 'Rails spread evenly')}
            >Spread them evenly</button
          >
        {:else if t.rails.length}
          <button
            class="btn mt-3"
            onclick={() =>
              session.commit([{ path: session.at('/fence/rails'), value: t.rails }], 'Rails placed by hand')}
            >Place each by hand</button
          >
        {/if}
      </section>
      {#if steps}
        <p class="border-l-4 border-l-warn bg-sheet px-3 py-2">
          This run steps: a post's mark goes by its higher panel. For the lower one move the stick down by the
          post's step, listed under Tops and bays.
        </p>
      {/if}
      {#if session.run.topLine?.stick.some((m) => m.kind === 'hole')}
        <p class="border-l-4 border-l-line bg-sheet px-3 py-2">
          Holes are cut before the posts are set; the lowest must stay above the ground at every post.
        </p>
      {/if}
    </div>
  </div>
{/if}
