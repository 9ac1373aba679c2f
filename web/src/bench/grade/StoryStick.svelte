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
  import * as msg from '../../gen/messages'

  let { session }: { session: Session } = $props()
  const units = $derived(session.units)
  const t = $derived(session.run.topLine)
  const rails = $derived(session.at('/fence/rails'))
  const byHand = $derived(session.value<number[]>(rails))
  const steps = $derived(session.run.totals.steps)
</script>

{#if !t}
  <p class="text-pencil">{msg.common_first_how_long_is_the}</p>
{:else}
  <div class="grid max-w-5xl gap-6 lg:grid-cols-[26rem_1fr]">
    <div class="border border-line bg-sheet">
      <Picture
        {session}
        view={{ of: 'stick' }}
        wide={420}
        tall={400}
        label={msg.story_stick_story_stick_of({ v1: session.run.name || session.run.id })}
        of="stick"
      />
    </div>
    <div class="grid min-w-0 content-start gap-3">
      <p>
        {msg.story_stick_cut_a_straight_stick_mark} <strong><Fraction mm={t.mark} {units} /></strong>
        {msg.story_stick_below_the_fence_s_top}
      </p>
      <div {@attach scrolls} class="relative overflow-x-auto border border-line bg-sheet">
        <table class="sheet-table w-full" data-testid="stick">
          <caption class="px-2 pt-2 text-left font-bold">{msg.story_stick_from_the_reference_mark_up}</caption
          >
          <thead
            ><tr
              ><th scope="col">{msg.common_mark}</th><th scope="col">{msg.story_stick_upper_edge}</th><th
                scope="col">{msg.story_stick_lower_edge}</th
              ></tr
            ></thead
          >
          <tbody>
            {#each t.stick as m, i (i)}
              <tr class={m.kind === 'mark' ? 'bg-mallow-wash font-bold' : ''}>
                <td>{m.name}</td>
                <td class="font-semibold"
                  >{#if m.kind === 'mark'}0{:else}{m.up > 0
                      ? msg.story_stick_up
                      : msg.story_stick_down}<Fraction mm={Math.abs(m.up)} {units} />{/if}</td
                >
                <td
                  >{#if Math.abs(m.up - m.to) > 0.01}{m.to > 0
                      ? msg.story_stick_up
                      : msg.story_stick_down}<Fraction mm={Math.abs(m.to)} {units} />{/if}</td
                >
              </tr>
            {/each}
          </tbody>
        </table>
      </div>
      <section class="border border-line bg-sheet p-3" aria-label={msg.story_stick_rails}>
        <h3 class="mb-2 font-bold">{msg.story_stick_rails_middles_above_the_fence}</h3>
        <div class="grid grid-cols-2 gap-3 sm:grid-cols-3">
          {#if byHand}
            {#each byHand.keys() as i (i)}
              {@const name =
                i === 0
                  ? msg.story_stick_bottom_rail
                  : i === byHand.length - 1
                    ? msg.story_stick_top_rail
                    : msg.story_stick_rail({ v1: i + 1 })}
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
            <NumberField
              {session}
              path={session.at('/spacing/rails')}
              label={msg.story_stick_rails_spread_evenly}
            />
          {/if}
          <LengthField
            {session}
            path={session.at('/fence/railWidth')}
            label={msg.story_stick_height_of_a_rail}
            optional
          />
        </div>
        {#if byHand}
          <button
            class="btn mt-3"
            onclick={() =>
              session.commit(
                [{ path: session.at('/fence/rails'), value: null }],
                msg.story_stick_rails_spread_evenly_2,
              )}>{msg.story_stick_spread_them_evenly}</button
          >
        {:else if t.rails.length}
          <button
            class="btn mt-3"
            onclick={() =>
              session.commit(
                [{ path: session.at('/fence/rails'), value: t.rails }],
                msg.story_stick_rails_placed_by_hand,
              )}>{msg.story_stick_place_each_by_hand}</button
          >
        {/if}
      </section>
      {#if steps}
        <p class="border-l-4 border-l-warn bg-sheet px-3 py-2">
          {msg.story_stick_this_run_steps_a_post}
        </p>
      {/if}
      {#if session.run.topLine?.stick.some((m) => m.kind === 'hole')}
        <p class="border-l-4 border-l-line bg-sheet px-3 py-2">
          {msg.story_stick_holes_are_cut_before_the}
        </p>
      {/if}
    </div>
  </div>
{/if}
