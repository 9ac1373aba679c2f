<script lang="ts">
  // What was seen of the picked post on site, and one more to write down. What
  // was wrong is struck out, never erased.
  import { Popover } from 'bits-ui'
  import NotebookPen from '@lucide/svelte/icons/notebook-pen'
  import X from '@lucide/svelte/icons/x'
  import type { Fact } from '../gen/api'
  import { choiceName } from '../lib/names'
  import { note, ofPost, readIn, standing, stationOf, strike, wrongFact } from '../lib/observed'
  import type { Session } from '../lib/session.svelte'
  import { short, tape } from '../lib/tape'
  import NumberEntry from '../parts/NumberEntry.svelte'
  import Pick from '../parts/Pick.svelte'
  import TapeEntry from '../parts/TapeEntry.svelte'
  import * as msg from '../gen/messages'

  let { session }: { session: Session } = $props()
  const units = $derived(session.units)
  const post = $derived(session.run.posts[session.post]!)
  const facts = $derived(standing(session, ofPost(post)))
  const sight = (what: string) => session.catalogue.sights.find((s) => s.what === what)
  /** Where a post landed is taped under Fixed posts. */
  const kinds = $derived(
    session.catalogue.choices['observed/what']!.filter(
      (k) => sight(k.value)?.about.includes('post') && !['landed', 'struck out'].includes(k.value),
    ),
  )
  const day = new Intl.DateTimeFormat(undefined, { day: 'numeric', month: 'short' })

  let what = $state('staked')
  const measures = $derived(sight(what)?.measures ?? '')
  let value = $state<number | undefined>(undefined)
  let words = $state('')
  let open = $state(false)

  const name = (f: Fact) => choiceName(f.what, 'observed/what')
  function measured(f: Fact): string {
    if (f.what === 'landed') return tape(f.at ?? 0, units)
    if (f.value === undefined) return ''
    if (f.unit === 'bags') return String(f.value)
    return f.what === 'gravel' ? `${Math.round(f.value * 1000)} L` : short(f.value, units)
  }
  function write() {
    const unit = ({ length: readIn(session), count: 'bags', volume: 'L' } as const)[measures as 'length']
    const placed = sight(what)?.placed || sight(what)?.handed
    session.commit(
      note(session, post, {
        what: what as Fact['what'],
        ...(placed ? { at: stationOf(session, post) } : {}),
        ...(measures ? { value: measures === 'volume' ? value! / 1000 : value!, unit } : {}),
        ...(words.trim() ? { note: words.trim() } : {}),
      }),
      `${post.label}: ${choiceName(what, 'observed/what').toLowerCase()}`,
    )
    value = undefined
    words = ''
    open = false
  }
</script>

<Popover.Root bind:open>
  <Popover.Trigger
    class="btn btn-plain btn-icon relative flex-none"
    aria-label={msg.seen_write_down_what_was_seen({
      label: post.label,
      v2: facts.length ? msg.seen_written({ count: facts.length }) : '',
    })}
    title={msg.seen_write_down_what_was_seen_2}
    ><NotebookPen size={20} aria-hidden="true" />{#if facts.length}<span
        class="absolute top-0.5 right-0.5 min-w-4 bg-ink px-1 text-[0.75rem] leading-4 font-bold text-paper"
        >{facts.length}</span
      >{/if}</Popover.Trigger
  >
  <Popover.Portal>
    <Popover.Content
      sideOffset={4}
      collisionPadding={8}
      class="z-40 grid w-[min(22rem,calc(100vw-1.5rem))] gap-2 border border-ink bg-sheet p-3 text-ink shadow-lg"
      aria-label={msg.seen_what_was_seen_at({ label: post.label })}
      data-testid="seen"
    >
      {#each facts as f (f.id)}
        <span class="flex items-center border border-line bg-paper pl-2" data-fact={f.what}>
          <span
            >{name(f)}
            <strong>{measured(f)}</strong>
            {f.note ? `“${f.note}”` : ''}
            {#if f.when}<span class="text-pencil">{day.format(new Date(f.when))}</span>{/if}</span
          >
          <button
            class="btn btn-plain btn-icon min-h-9 min-w-9"
            aria-label={msg.seen_at_was_wrong_strike_it({ name: name(f), label: post.label })}
            title={msg.seen_it_was_wrong_strike_it}
            onclick={() =>
              session.commit(
                strike(session, [f]),
                msg.seen_struck_out({ label: post.label, v2: name(f).toLowerCase() }),
              )}><X size={16} aria-hidden="true" /></button
          >
        </span>
      {/each}
      <Pick label={msg.seen_what_was_seen_or_done} value={what} options={kinds} onpick={(v) => (what = v)} />
      {#if measures === 'length'}
        <TapeEntry
          label={msg.seen_how_much}
          {units}
          {value}
          optional
          oncommit={(mm) => (value = mm ?? undefined)}
        />
      {:else if measures}
        <NumberEntry
          label={measures === 'volume' ? msg.seen_litres : msg.common_how_many}
          value={value ?? 0}
          oncommit={(n) => (value = n)}
        />
      {/if}
      <div>
        <label class="label mb-1" for="seen-note">{msg.seen_in_words}</label>
        <input id="seen-note" class="field" maxlength="1000" bind:value={words} />
      </div>
      <button
        class="btn btn-main"
        disabled={(!!measures && value === undefined) || (what === 'note' && !words.trim())}
        onclick={write}>{msg.seen_write_it_down}</button
      >
      {#if wrongFact(session)}<p class="text-stop" role="alert">{wrongFact(session)}</p>{/if}
    </Popover.Content>
  </Popover.Portal>
</Popover.Root>
