<script lang="ts">
  // The post that is picked, large: what a crew member reads at the hole.
  import type { Figure as Address } from '../gen/api'
  import ChevronLeft from '@lucide/svelte/icons/chevron-left'
  import ChevronRight from '@lucide/svelte/icons/chevron-right'
  import type { View } from '../drawing/view.svelte'
  import type { Session } from '../lib/session.svelte'
  import type { Stage } from '../lib/stages'
  import { breakAt, canHold, holdAt, letGo, newHold } from '../lib/hold'
  import { small, tape } from '../lib/tape'
  import { postRole } from '../lib/names'
  import Later from '../parts/Later.svelte'
  import Figure from '../parts/Figure.svelte'
  import Fraction from '../parts/Fraction.svelte'
  import { ofBay, ofPost, ofString } from '../lib/figure'

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

{#snippet fact(name: string, why: Address, mm: number, long = false)}
  <div>
    <dt class="text-[0.88rem] text-pencil">{name}</dt>
    <dd class="text-[1.3rem] font-bold">
      <Figure {why} of="{p.label} {name.toLowerCase()}"><Fraction {mm} {units} {long} /></Figure>
    </dd>
  </div>
{/snippet}

<section
  class="mb-4 flex flex-wrap items-center gap-x-1 gap-y-2 border border-line bg-sheet p-1.5"
  aria-label="The post"
>
  <button
    class="btn btn-plain btn-icon"
    aria-label="Post before"
    disabled={session.post === 0}
    onclick={() => go(-1)}><ChevronLeft size={22} /></button
  >
  {#if named === null}
    <button
      class="min-h-11 min-w-16 text-center text-[1.15rem] font-bold text-mallow underline decoration-dotted underline-offset-4"
      title="Go to a post by its name"
      onclick={() => (named = '')}><span data-testid="post">{p.label}</span></button
    >
  {:else}
    <input
      class="field w-24 text-center text-[1.15rem] font-bold {missing ? 'text-stop' : ''}"
      aria-label="Go to post"
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
    {#if missing}<span class="text-stop" role="alert">no post of that name here</span>{/if}
  {/if}
  <button
    class="btn btn-plain btn-icon"
    aria-label="Next post"
    disabled={session.post === session.run.posts.length - 1}
    onclick={() => go(1)}><ChevronRight size={22} /></button
  >
  <dl class="flex flex-wrap gap-x-6 gap-y-1 px-2">
    {@render fact(
      p.kind === 'line' ? 'Station' : `Station, ${postRole(p, session.run)} post`,
      ofPost(session.run, p, 'station'),
      p.station,
      true,
    )}
    {#if stage === 'space'}
      {@render fact('Along the slope', ofPost(session.run, p, 'station'), p.slopeTape, true)}
      {#if bay}{@render fact(
          bay.odd ? 'To the next, odd bay' : 'To the next, centres',
          ofBay(session.run, bay, 'spacing'),
          bay.centreToCentre,
        )}{/if}
      {#if bay}{@render fact('Clear', ofBay(session.run, bay, 'spacing'), bay.clear)}{/if}
    {:else if stage === 'string'}
      {@const hung = session.run.string?.posts[session.post]}
      {#if hung}
        {@render fact('Mark over the hung string', ofString(session.run, 'sag'), hung.mark)}
        {@render fact('Low string above ground', ofString(session.run, 'constant'), hung.low)}
      {/if}
    {:else if stage === 'grade'}
      {@render fact('Top above ground', ofPost(session.run, p, 'top'), p.reveal)}
      {#if p.stock !== undefined}
        {@render fact('Post', ofPost(session.run, p, 'stock'), p.stock)}
        {@render fact('Cut off', ofPost(session.run, p, 'stock'), p.cutOff ?? 0)}
      {/if}
      {#if bay}{@render fact('Gap to the next, most', ofBay(session.run, bay, 'gap'), bay.gapMost.gap)}{/if}
    {:else if stage === 'dig'}
      {@render fact('Hole width', ofPost(session.run, p, 'holeWidth'), p.holeWidth)}
      {@render fact('Dig', ofPost(session.run, p, 'holeDepth'), p.holeDepth)}
      {@render fact('Foot of the post', ofPost(session.run, p, 'holeDepth'), p.foot)}
      {#if p.stock !== undefined}{@render fact('Post', ofPost(session.run, p, 'stock'), p.stock)}{/if}
    {:else}
      {@render fact('Gravel', ofPost(session.run, p, 'concrete'), p.gravel)}
      {@render fact('Concrete', ofPost(session.run, p, 'concrete'), p.concrete)}
      <div>
        <dt class="text-[0.88rem] text-pencil">Bags to pour</dt>
        <dd class="text-[1.3rem] font-bold">
          <Figure why={ofPost(session.run, p, 'concrete')} of="{p.label} concrete">{p.bags.toFixed(2)}</Figure
          >
        </dd>
      </div>
      <div>
        <dt class="text-[0.88rem] text-pencil">Volume</dt>
        <dd class="text-[1.3rem] font-bold">
          <Figure why={ofPost(session.run, p, 'concrete')} of="{p.label} concrete"
            >{small(p.concreteVolume, units)}</Figure
          >
        </dd>
      </div>
    {/if}
  </dl>
  {#if stage === 'space' && p.held}
    <button class="btn" onclick={() => session.commit(letGo(session, p.held!), `${p.label} let go`)}
      >{p.landed ? 'Landed here: let go' : p.grade ? 'Grade post: let go' : 'Held: let go'}</button
    >
  {:else if stage === 'space' && canHold(p)}
    <button
      class="btn"
      onclick={() =>
        session.commit(
          holdAt(session, newHold(session), p.station),
          `${p.label} held at ${tape(p.station, units)}`,
        )}>Hold here</button
    >
  {:else if stage === 'grade' && canHold(p) && p.held && p.grade}
    <button class="btn" onclick={() => session.commit(letGo(session, p.held!), `${p.label} let go`)}
      >Grade post: let go</button
    >
  {:else if stage === 'grade' && canHold(p) && !p.held && leans}
    <button
      class="btn"
      onclick={() =>
        session.commit(breakAt(session, newHold(session), p.station), `The top may break at ${p.label}`)}
      >Break the top here</button
    >
  {:else if stage === 'space' && p.stays}<span class="px-2 font-medium">Old post, stays</span>{/if}
  <Later load={() => import('./Seen.svelte')} name="What was seen" props={{ session }} />
</section>
