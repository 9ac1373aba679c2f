<script lang="ts">
  // The next post, big: what it asks for, one tap for what is done, many posts with one
  // sweep, and what differs in one tap more.
  import Camera from '@lucide/svelte/icons/camera'
  import ChevronLeft from '@lucide/svelte/icons/chevron-left'
  import ChevronRight from '@lucide/svelte/icons/chevron-right'
  import X from '@lucide/svelte/icons/x'
  import Check from '@lucide/svelte/icons/check'
  import Undo2 from '@lucide/svelte/icons/undo-2'
  import type { View } from '../../drawing/view.svelte'
  import type { Fact, Log, PlannedPost } from '../../gen/api'
  import { api } from '../../lib/api'
  import { choiceName } from '../../lib/names'
  import { differing, marks, own, reached, type Differing, type Mark } from '../../lib/log'
  import { noteAll, ofPost, readIn, standing, stationOf, strike, wrongFact } from '../../lib/observed'
  import type { Session } from '../../lib/session.svelte'
  import { writer } from '../../lib/writer.svelte'
  import Fraction from '../../parts/Fraction.svelte'
  import Later from '../../parts/Later.svelte'
  import Words from '../../parts/Words.svelte'
  import Sweep from './Sweep.svelte'
  import WaysAt from './WaysAt.svelte'
  import * as msg from '../../gen/messages'

  let { session, view, log }: { session: Session; view: View; log: Log | undefined } = $props()
  const units = $derived(session.units)
  const posts = $derived(own(session))
  const far = $derived(reached(session))
  const post = $derived(session.run.posts[session.post]!)
  const before = $derived(session.run.posts[session.post - 1])
  const here = $derived(!post.shared && !post.stays)
  const done = $derived(far.get(post.id) ?? 0)
  const entry = $derived(log?.posts.find((p) => p.id === post.id))
  const facts = $derived(standing(session, ofPost(post)))

  /** Posts that were swept over; none: the one that is picked. */
  let swept = $state.raw<string[]>([])
  let entering = $state.raw<Differing | null>(null)
  let differs = $state(false)
  /** What the crew is at: the next post is offered the same. */
  let at = $state.raw<Mark | null>(null)
  const offered = $derived(Math.max(done, at ? marks.indexOf(at) : 0))
  /** What was written last, so that it can be taken back. */
  let last = $state.raw<{ says: string; on: string[]; ids: Set<string> } | null>(null)

  const keypad = () => import('./Keypad.svelte')
  const name = (what: Fact['what']) => choiceName(what, 'observed/what')
  const ids = () => new Set(((session.value<Fact[]>('/observed') ?? []) as Fact[]).map((f) => f.id))

  function write(all: { post: PlannedPost; fact: Omit<Fact, 'id' | 'on'> }[], says: string) {
    const had = ids()
    session.commit(noteAll(session, all), says)
    last = { says, on: all.map((a) => ofPost(a.post)), ids: had }
  }

  /** The next post of the run that is not so far yet; where all are, that of the next run. */
  function onward(n: number) {
    const now = reached(session)
    const next = posts.find((p) => p.at > session.post && (now.get(p.post.id) ?? 0) < n)
    if (next) {
      session.post = next.at
      view.show(session.drawn.posts[session.drawnPost]!.station)
      return
    }
    const runs = session.plan.runs
    const from = runs.findIndex((r) => r.id === session.run.id)
    for (const r of runs.slice(from + 1)) {
      const first = r.posts.findIndex((p) => !p.shared && !p.stays && (now.get(p.id) ?? 0) < n)
      if (first < 0) continue
      session.pickRun(r.id)
      session.post = first
      return
    }
  }

  function mark(what: Mark) {
    const n = marks.indexOf(what) + 1
    at = what
    const chosen = swept.length
      ? posts.filter((p) => swept.includes(p.post.id)).map((p) => p.post)
      : here
        ? [post]
        : []
    const all = chosen.filter((p) => (far.get(p.id) ?? 0) < n)
    if (!all.length) return
    const label = all.length === 1 ? all[0]!.label : `${all[0]!.label} – ${all.at(-1)!.label}`
    write(
      all.map((p) => ({ post: p, fact: { what } })),
      `${label}: ${name(what).toLowerCase()}`,
    )
    if (swept.length) session.post = posts.find((p) => p.post.id === all.at(-1)!.id)!.at
    swept = []
    differs = false
    entering = null
    onward(n)
  }

  function enter(value: number, words: string) {
    const d = entering!
    const unit = d.enter === 'length' ? readIn(session) : d.id === 'bags' ? 'bags' : ('L' as const)
    const down = stationOf(session, post)
    const sight = session.catalogue.sights.find((s) => s.what === d.what)
    const fact: Omit<Fact, 'id' | 'on'> =
      d.enter === 'words'
        ? { what: d.what, note: words }
        : d.id === 'gap'
          ? { what: d.what, at: (before?.station ?? 0) + value }
          : {
              what: d.what,
              value: d.id === 'gravel' ? value / 1000 : value,
              unit,
              ...(sight?.placed || sight?.handed ? { at: down } : {}),
            }
    write([{ post, fact }], `${post.label}: ${d.name.toLowerCase()}`)
    entering = null
    differs = false
  }

  function go(to: number) {
    session.post = to
    swept = []
    view.show(session.drawn.posts[session.drawnPost]!.station)
  }

  let sending = $state(false)
  let trouble = $state('')
  /** A photograph is made small, kept with the job, and noted at its post. */
  async function photograph(input: HTMLInputElement) {
    const file = input.files?.[0]
    const of = post
    input.value = ''
    if (!file) return
    sending = true
    trouble = ''
    let small: Blob | undefined
    try {
      small = await (await import('../../lib/photo')).shrunk(file)
      const kept = await api.addPhoto(session.id, small)
      write([{ post: of, fact: { what: 'note', photo: kept.id } }], msg.log_photo_of({ label: of.label }))
    } catch (e) {
      trouble = small
        ? msg.log_photo_not_kept({ why: e instanceof Error ? e.message : String(e) })
        : msg.log_photo_unread
    } finally {
      sending = false
    }
  }

  function takeBack() {
    const l = last!
    const wrote = (session.value<Fact[]>('/observed') ?? []).filter(
      (f) => !l.ids.has(f.id) && l.on.includes(f.on) && f.what !== 'struck out',
    )
    session.commit(strike(session, wrote), msg.log_taken_back({ what: l.says }))
    const back = session.run.posts.findIndex((p) => ofPost(p) === l.on[0])
    if (back >= 0) session.post = back
    last = null
  }
  const gap = $derived(before ? post.station - before.station : 0)
</script>

<div class="grid max-w-3xl gap-3" data-testid="log">
  <section aria-label={msg.log_this_post} class="grid gap-2">
    <div class="flex items-start gap-4">
      <div class="flex flex-none items-center">
        <button
          class="btn btn-plain btn-icon lg:hidden"
          aria-label={msg.post_strip_post_before}
          disabled={session.post === 0}
          onclick={() => go(session.post - 1)}><ChevronLeft size={26} /></button
        >
        <strong class="min-w-16 text-center text-[2.4rem] leading-none" data-testid="log-post"
          >{post.label}</strong
        >
        <button
          class="btn btn-plain btn-icon lg:hidden"
          aria-label={msg.post_strip_next_post}
          disabled={session.post === session.run.posts.length - 1}
          onclick={() => go(session.post + 1)}><ChevronRight size={26} /></button
        >
      </div>
      <dl class="grid min-w-0 flex-1 grid-cols-2 gap-x-3 gap-y-0.5 leading-tight sm:grid-cols-4">
        {#if before}<div>
            <dt class="text-[0.85rem] text-pencil">{msg.log_from({ label: before.label })}</dt>
            <dd class="text-[1.15rem] font-bold"><Fraction mm={gap} {units} long /></dd>
          </div>{/if}
        <div>
          <dt class="text-[0.85rem] text-pencil">{msg.common_hole}</dt>
          <dd class="text-[1.15rem] font-bold">
            <Fraction mm={post.holeWidth} {units} /> × <Fraction mm={post.holeDepth} {units} />
          </dd>
        </div>
        <div>
          <dt class="text-[0.85rem] text-pencil">{msg.common_gravel}</dt>
          <dd class="text-[1.15rem] font-bold"><Fraction mm={post.gravel} {units} /></dd>
        </div>
        <div>
          <dt class="text-[0.85rem] text-pencil">{msg.common_bags_2}</dt>
          <dd class="text-[1.15rem] font-bold">{post.bags.toFixed(1)}</dd>
        </div>
      </dl>
    </div>
    {#if !here}
      <p class="text-pencil">
        {post.stays ? msg.log_old_post : msg.log_other_run}
      </p>
    {/if}
    <div class="grid grid-cols-5 gap-1.5" role="group" aria-label={msg.log_what_is_done}>
      {#each marks as m, i (m)}
        <button
          class="btn min-h-16 flex-col gap-0.5 px-1 text-[1.02rem] font-semibold {!swept.length &&
          i === offered
            ? 'btn-main'
            : ''} {!swept.length && i < done ? 'border-ink bg-rule' : ''}"
          disabled={!swept.length && (!here || i < done)}
          onclick={() => mark(m)}
          >{#if !swept.length && i < done}<Check size={18} aria-label={msg.log_done} />{/if}{name(m)}</button
        >
      {/each}
    </div>
    <div class="flex flex-wrap gap-1.5">
      <button
        class="btn min-h-12 flex-1 {differs ? 'border-ink bg-rule' : ''}"
        aria-expanded={differs}
        disabled={!here}
        onclick={() => {
          differs = !differs
          entering = null
          // A tape that types at once must find its field.
          void keypad()
        }}>{msg.log_something_differs}</button
      >
      <label class="btn relative min-h-12 {here ? '' : 'opacity-50'}">
        <Camera size={20} aria-hidden="true" /><span class="max-sm:sr-only">{msg.log_photograph}</span>
        <input
          class="absolute inset-0 cursor-pointer opacity-0"
          type="file"
          accept="image/*"
          capture="environment"
          disabled={!here || sending}
          aria-label={msg.log_photograph}
          onchange={(e) => photograph(e.currentTarget)}
        /></label
      >
      {#if last}<button class="btn min-h-12 flex-1" onclick={takeBack}
          ><Undo2 size={18} aria-hidden="true" />{msg.log_take_back({ what: last.says })}</button
        >{/if}
    </div>
    {#if differs && !entering}
      <div
        class="sheet grid grid-cols-3 gap-1.5 sm:grid-cols-5"
        role="group"
        aria-label={msg.log_what_differs}
        data-testid="differs"
      >
        <p class="col-span-full flex items-center gap-2 font-semibold lg:hidden">
          <span class="flex-1">{msg.log_what_differs_at({ label: post.label })}</span>
          <button
            class="btn btn-plain btn-icon"
            aria-label={msg.common_close}
            onclick={() => (differs = false)}><X size={20} aria-hidden="true" /></button
          >
        </p>
        {#each differing as d (d.id)}
          {#if d.id !== 'gap' || before}<button
              class="btn min-h-12 px-1.5 text-center"
              onclick={() => (entering = d)}>{d.name}</button
            >{/if}
        {/each}
      </div>
    {/if}
    {#if entering}
      {#key entering.id}<div class="sheet">
          <Later
            load={keypad}
            props={{
              session,
              of: entering,
              post: post.label,
              postId: post.id,
              hint: entering.hint?.({ before: before?.label ?? '' }) ?? '',
              onenter: enter,
              oncancel: () => (entering = null),
            }}
          />
        </div>{/key}
    {/if}
    {#if sending}<p aria-live="polite">{msg.log_photo_sending}</p>{/if}
    {#if trouble}<p class="text-stop" role="alert">{trouble}</p>{/if}
    {#if wrongFact(session)}<p class="text-stop" role="alert">{wrongFact(session)}</p>{/if}
  </section>

  {#if entry?.deviations.length}
    <section aria-label={msg.log_what_to_do} class="grid gap-2" data-testid="log-deviations">
      {#each entry.deviations as d (d.fact + d.what)}
        <p
          class="flex items-start gap-2 border-l-4 {d.state === 'open'
            ? 'border-l-warn'
            : 'border-l-line'} bg-sheet px-3 py-1.5"
        >
          <span class="flex-1"
            ><Words says={d.says} {units} />
            {#if d.state === 'let go'}<span class="text-pencil">{msg.log_is_let_go}</span
              >{:else if d.way}<span class="text-pencil">{msg.log_is_decided}</span>{/if}</span
          >
        </p>
      {/each}
      {#if entry.deviations.some((d) => d.state === 'open' || d.state === 'spaced')}
        {#key post.id}<WaysAt {session} post={post.id} />{/key}
      {/if}
    </section>
  {/if}

  <Sweep {posts} {far} picked={post.id} bind:swept onpick={go} />

  {#if facts.length}
    <ul class="grid gap-1" aria-label={msg.log_written_here({ label: post.label })}>
      {#each facts as f (f.id)}
        <li class="flex items-center border border-line bg-sheet pl-2" data-fact={f.what}>
          <Later
            load={() => import('./FactLine.svelte')}
            props={{ session, fact: f, label: post.label, onstrike: () => (last = null) }}
          />
        </li>
      {/each}
    </ul>
  {/if}

  <label class="flex items-center gap-2 text-pencil"
    >{msg.log_who}
    <input
      class="field max-w-52"
      maxlength="80"
      autocomplete="name"
      value={writer.name}
      onchange={(e) => writer.set(e.currentTarget.value)}
    /></label
  >
</div>

<style>
  /* With a glove on a phone, what is entered lies at the bottom, under the thumb. */
  @media (width < 64rem) {
    .sheet {
      position: fixed;
      inset: auto 0 0;
      z-index: 40;
      max-height: 90dvh;
      overflow: auto;
      padding: 0.5rem;
      background: var(--paper);
      border-top: 2px solid var(--ink);
    }
  }
</style>
