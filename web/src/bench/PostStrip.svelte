<script lang="ts">
  // The picked post in the row of stages: where it stands, and what this stage
  // asks of it.
  import type { Figure as Address } from '../gen/api'
  import ChevronLeft from '@lucide/svelte/icons/chevron-left'
  import ChevronRight from '@lucide/svelte/icons/chevron-right'
  import type { View } from '../drawing/view.svelte'
  import type { Session } from '../lib/session.svelte'
  import type { Stage } from '../lib/stages'
  import { breakAt, canHold, holdAt, letGo, newHold } from '../lib/hold'
  import { tape } from '../lib/tape'
  import { postRole } from '../lib/names'
  import Later from '../parts/Later.svelte'
  import Figure from '../parts/Figure.svelte'
  import Fraction from '../parts/Fraction.svelte'
  import { ofBay, ofPost, ofString } from '../lib/figure'
  import * as msg from '../gen/messages'

  let { session, view, stage }: { session: Session; view: View; stage: Stage } = $props()
  const units = $derived(session.units)
  const p = $derived(session.run.posts[session.post]!)
  const bay = $derived(session.run.bays[session.post])

  const leans = $derived(bay?.look === 'raked' || bay?.look === 'rolling')

  /** What is typed to go to a post by its name; null while nobody does. */
  let named = $state<string | null>(null)
  let missing = $state(false)
  const focused = (e: HTMLInputElement) => e.focus()

  /** Goes to the post of a name, in this run before the others. A number alone will do. */
  function find() {
    const name = named!
      .trim()
      .toLowerCase()
      .replace(/^(?=\d)/, 'p')
    const here = [session.run, ...session.plan.runs.filter((r) => r.id !== session.run.id)]
    const run = here.find((r) => r.posts.some((q) => q.label.toLowerCase() === name))
    missing = !run && name !== ''
    if (!run) return
    if (run.id !== session.run.id) session.pickRun(run.id)
    go(run.posts.findIndex((q) => q.label.toLowerCase() === name) - session.post)
    named = null
  }

  function go(by: number) {
    session.post = Math.min(Math.max(session.post + by, 0), session.run.posts.length - 1)
    view.show(session.drawn.posts[session.drawnPost]!.station)
  }
</script>

{#snippet fact(name: string, why: Address, mm: number, long = false, besides = false)}
  <div class={besides ? 'max-sm:hidden' : ''}>
    <dt class="text-[0.82rem] leading-[1.05rem] whitespace-nowrap text-pencil">{name}</dt>
    <dd class="text-[1rem] leading-[1.35rem] font-bold sm:text-[1.12rem] whitespace-nowrap">
      <Figure {why} of="{p.label} {name.toLowerCase()}"><Fraction {mm} {units} {long} /></Figure>
    </dd>
  </div>
{/snippet}

{#if p}
  <section
    class="flex min-h-12 min-w-0 items-center gap-x-1 overflow-hidden max-lg:w-full max-lg:border-t max-lg:border-rule max-lg:bg-sheet"
    aria-label={msg.post_strip_the_picked_post}
  >
    <button
      class="btn btn-plain btn-icon max-sm:min-w-9"
      aria-label={msg.post_strip_post_before}
      disabled={session.post === 0}
      onclick={() => go(-1)}><ChevronLeft size={22} /></button
    >
    {#if named === null}
      <button
        class="min-h-11 min-w-10 text-center sm:min-w-12 text-[1.15rem] font-bold text-mallow underline decoration-dotted underline-offset-4"
        title={msg.post_strip_go_to_a_post_by}
        onclick={() => (named = '')}><span data-testid="post">{p.label}</span></button
      >
    {:else}
      <input
        class="field w-24 text-center text-[1.15rem] font-bold {missing ? 'text-stop' : ''}"
        aria-label={msg.post_strip_go_to_post}
        aria-invalid={missing}
        placeholder={p.label}
        bind:value={named}
        use:focused
        onkeydown={(e) => {
          if (e.key === 'Enter') find()
          else if (e.key === 'Escape') named = null
          else missing = false
        }}
        onblur={() => (named = null)}
      />
      {#if missing}<span class="text-stop" role="alert">{msg.post_strip_no_post_of_that_name}</span>{/if}
    {/if}
    <button
      class="btn btn-plain btn-icon max-sm:min-w-9"
      aria-label={msg.post_strip_next_post}
      disabled={session.post === session.run.posts.length - 1}
      onclick={() => go(1)}><ChevronRight size={22} /></button
    >
    <dl class="relative flex min-w-0 flex-1 gap-x-2.5 overflow-x-auto px-0.5 sm:gap-x-5 [&_button]:min-h-6">
      {@render fact(
        p.kind === 'line'
          ? msg.post_strip_from_start
          : msg.post_strip_from_start_post({ postRole: postRole(p, session.run) }),
        ofPost(session.run, p, 'station'),
        p.station,
        true,
        true,
      )}
      {#if stage === 'walk'}
        {@render fact(msg.common_ground, ofPost(session.run, p, 'station'), p.ground)}
        {@render fact(msg.post_strip_along_the_slope, ofPost(session.run, p, 'station'), p.slopeTape, true)}
      {:else if stage === 'space'}
        {#if bay}{@render fact(
            bay.odd ? msg.post_strip_to_the_next_odd_bay : msg.post_strip_to_the_next_centers,
            ofBay(session.run, bay, 'spacing'),
            bay.centreToCentre,
          )}{/if}
        {#if bay}{@render fact(msg.post_strip_clear, ofBay(session.run, bay, 'spacing'), bay.clear)}{/if}
      {:else if stage === 'string'}
        {@const hung = session.run.string?.posts[session.post]}
        {#if hung}
          {@render fact(msg.common_mark_over_the_string, ofString(session.run, 'sag'), hung.mark)}
          {@render fact(msg.common_low_string_above_ground, ofString(session.run, 'constant'), hung.low)}
        {/if}
      {:else if stage === 'grade' || stage === 'gates'}
        {@render fact(msg.common_above_ground_2, ofPost(session.run, p, 'top'), p.reveal)}
        {#if p.stock !== undefined}
          {@render fact(msg.common_post, ofPost(session.run, p, 'stock'), p.stock)}
          {#if stage === 'grade'}{@render fact(
              msg.post_strip_cut_off,
              ofPost(session.run, p, 'stock'),
              p.cutOff ?? 0,
            )}{/if}
        {/if}
      {:else if stage === 'dig'}
        {@render fact(msg.post_strip_hole_width, ofPost(session.run, p, 'holeWidth'), p.holeWidth)}
        {@render fact(msg.common_dig, ofPost(session.run, p, 'holeDepth'), p.holeDepth)}
        {@render fact(msg.post_strip_bottom_of_post, ofPost(session.run, p, 'holeDepth'), p.foot)}
      {:else}
        {@render fact(msg.common_gravel, ofPost(session.run, p, 'concrete'), p.gravel)}
        {@render fact(msg.common_concrete, ofPost(session.run, p, 'concrete'), p.concrete)}
        <div>
          <dt class="text-[0.82rem] leading-[1.05rem] text-pencil">{msg.common_bags_2}</dt>
          <dd class="text-[1rem] leading-[1.35rem] font-bold sm:text-[1.12rem]">
            <Figure why={ofPost(session.run, p, 'concrete')} of={msg.post_strip_concrete({ label: p.label })}
              >{p.bags.toFixed(1)}</Figure
            >
          </dd>
        </div>
      {/if}
    </dl>
    {#if stage === 'space' && p.held}
      <button
        class="btn flex-none"
        onclick={() => session.commit(letGo(session, p.held!), `${p.label} released`)}
        >{p.landed
          ? msg.post_strip_release_set_here
          : p.grade
            ? msg.post_strip_release_grade_post
            : msg.post_strip_release}</button
      >
    {:else if stage === 'space' && canHold(p)}
      <button
        class="btn flex-none"
        title={msg.common_keep_a_post_here}
        onclick={() =>
          session.commit(
            holdAt(session, newHold(session), p.station),
            msg.common_kept_at({ label: p.label, tape: tape(p.station, units) }),
          )}>{msg.post_strip_keep_here}</button
      >
    {:else if stage === 'grade' && canHold(p) && p.held && p.grade}
      <button
        class="btn flex-none"
        onclick={() => session.commit(letGo(session, p.held!), `${p.label} released`)}
        >{msg.post_strip_release_grade_post}</button
      >
    {:else if stage === 'grade' && canHold(p) && !p.held && leans}
      <button
        class="btn flex-none"
        onclick={() =>
          session.commit(
            breakAt(session, newHold(session), p.station),
            msg.post_strip_the_top_may_break_at({ label: p.label }),
          )}>{msg.post_strip_break_the_top_here}</button
      >
    {:else if stage === 'space' && p.stays}<span class="px-2 font-medium whitespace-nowrap"
        >{msg.post_strip_old_post_stays}</span
      >{/if}
    <Later load={() => import('./Seen.svelte')} name={msg.post_strip_what_was_seen} props={{ session }} />
  </section>
{/if}
