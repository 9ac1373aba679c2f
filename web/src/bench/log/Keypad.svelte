<script lang="ts">
  // Keys that fit a tape: digits, feet, inches and the fractions on it. What a keyboard, a
  // voice or a tape with a button types into the field is read as it is elsewhere.
  import Delete from '@lucide/svelte/icons/delete'
  import Bluetooth from '@lucide/svelte/icons/bluetooth'
  import KeyboardIcon from '@lucide/svelte/icons/keyboard'
  import type { GaugeRequest, Reading } from '../../gen/api'
  import { api } from '../../lib/api'
  import type { Differing } from '../../lib/log'
  import type { Session } from '../../lib/session.svelte'
  import { tape } from '../../lib/tape'
  import Fraction from '../../parts/Fraction.svelte'
  import * as msg from '../../gen/messages'

  interface Props {
    session: Session
    of: Differing
    post: string
    /** Id of the post, for a device that measures there. */
    postId: string
    hint: string
    onenter: (value: number, words: string) => void
    oncancel: () => void
  }
  let { session, of, post, postId, hint, onenter, oncancel }: Props = $props()
  const units = $derived(session.units)
  const metric = $derived(units.system === 'metric')
  const id = $props.id()

  const RUB = 'rub'
  let text = $state('')
  let side = $state(0)
  let typing = $state(false)
  let reading = $state.raw<Reading | null>(null)
  let field = $state<HTMLInputElement>()
  let asked: AbortController | undefined
  let pending: Promise<void> = Promise.resolve()

  const number = $derived(Number(text.trim().replace(',', '.')))
  const ready = $derived(
    of.enter === 'words'
      ? !!text.trim()
      : of.enter === 'number'
        ? !!text.trim() && Number.isFinite(number) && number >= 0
        : !!reading?.ok && reading.length >= 0,
  )
  const keys = $derived(
    of.enter === 'number'
      ? ['7', '8', '9', '4', '5', '6', '1', '2', '3', '0', '.', RUB]
      : metric
        ? ['7', '8', '9', 'm', '4', '5', '6', 'cm', '1', '2', '3', 'mm', '0', '.', RUB]
        : ['7', '8', '9', '′', '4', '5', '6', '″', '1', '2', '3', RUB, '0', '.', '/'],
  )
  const fractions = [1, 2, 3, 4, 5, 6, 7].map((n) => {
    const by = n % 4 === 0 ? 4 : n % 2 === 0 ? 2 : 1
    return { text: `${n / by}/${8 / by}`, mm: (n * 25.4) / 8 }
  })

  function read(next: string) {
    text = next
    reading = null
    if (of.enter !== 'length' || !next.trim()) return
    asked?.abort()
    const mine = (asked = new AbortController())
    pending = api
      .tape(next, units.system, of.id === 'gap' ? 'station' : '', mine.signal)
      .then((r) => {
        if (!mine.signal.aborted) reading = r
      })
      .catch(() => {
        if (!mine.signal.aborted)
          reading = {
            ok: false,
            length: 0,
            bare: false,
            others: [],
            why: msg.tape_entry_mallow_is_not_answering_so,
          }
      })
  }
  const press = (key: string) =>
    key === RUB
      ? read(text.trimEnd().slice(0, -1))
      : read(
          key === '′'
            ? `${text}' `
            : key === '″'
              ? `${text}"`
              : /^[a-z]/.test(key)
                ? `${text} ${key} `
                : text + key,
        )
  const fraction = (f: string) => read(`${text.trimEnd()} ${f}"`)

  // Devices that send what they measure: a tape with a button, a level, an inclinometer.
  // Those that ship with Mallow are simulated.
  const gauges = ['gap', 'line', 'depth', 'width', 'plumb', 'lean', 'top']
  let taking = $state(false)
  async function takeReading() {
    taking = true
    try {
      const sent = await api.gauge({ doc: session.doc, post: postId, of: of.id as GaugeRequest['of'] })
      side = of.sides && sent.value < 0 ? 1 : 0
      read(tape(of.sides ? Math.abs(sent.value) : sent.value, units))
    } catch (e) {
      reading = {
        ok: false,
        length: 0,
        bare: false,
        others: [],
        why: e instanceof Error ? e.message : String(e),
      }
      text ||= ' '
    } finally {
      taking = false
      field?.focus()
    }
  }

  async function enter() {
    await pending
    if (!ready) return
    const sign = of.sides && side === 1 ? -1 : 1
    onenter(of.enter === 'length' ? sign * reading!.length : number, text.trim())
  }
  $effect(() => field?.focus())
</script>

<div
  class="grid gap-2 border border-ink bg-sheet p-2"
  role="group"
  aria-label={msg.log_keypad({ what: of.name, post })}
  data-testid="keypad"
>
  <label class="label" for={id}
    >{post}: {of.name}{#if hint}, {hint}{/if}{#if of.id === 'gravel'}, {msg.seen_litres.toLowerCase()}{/if}</label
  >
  {#if of.sides}
    <div class="grid grid-cols-2 gap-1.5" role="radiogroup" aria-label={of.name}>
      {#each of.sides as s, i (s)}
        <button
          class="btn min-h-12 {side === i ? 'border-2 border-ink bg-rule font-semibold' : ''}"
          role="radio"
          aria-checked={side === i}
          onclick={() => (side = i)}>{s}</button
        >
      {/each}
    </div>
  {/if}
  <div class="flex gap-1.5">
    <input
      {id}
      bind:this={field}
      class="field min-h-13 flex-1 text-[1.5rem] font-bold"
      inputmode={typing || of.enter === 'words' ? 'text' : 'none'}
      autocomplete="off"
      autocapitalize="off"
      spellcheck={of.enter === 'words'}
      maxlength={of.enter === 'words' ? 1000 : 60}
      value={text}
      oninput={(e) => read(e.currentTarget.value)}
      onkeydown={(e) => {
        if (e.key === 'Enter') {
          e.preventDefault()
          void enter()
        } else if (e.key === 'Escape') {
          e.stopPropagation()
          oncancel()
        }
      }}
      aria-describedby="{id}-says"
    />
    {#if gauges.includes(of.id)}<button
        class="btn btn-icon"
        aria-label={msg.log_take_reading}
        title={msg.log_take_reading}
        disabled={taking}
        onclick={takeReading}><Bluetooth size={20} aria-hidden="true" /></button
      >{/if}
    {#if of.enter !== 'words'}<button
        class="btn btn-icon"
        aria-label={msg.log_keyboard}
        aria-pressed={typing}
        title={msg.log_keyboard}
        onclick={() => {
          typing = !typing
          field?.blur()
          setTimeout(() => field?.focus())
        }}><KeyboardIcon size={20} aria-hidden="true" /></button
      >{/if}
  </div>
  <p id="{id}-says" class="min-h-6 leading-6" aria-live="polite">
    {#if of.enter === 'length' && reading?.ok}{msg.tape_entry_read_as}
      <strong><Fraction mm={reading.length} {units} long={of.id === 'gap'} /></strong
      >{:else if of.enter === 'length' && reading && text.trim()}<span class="text-stop"
        >{msg.tape_entry_did_not_understand_this({ why: reading.why ?? '' })}</span
      >{:else if of.enter === 'number' && text.trim() && !Number.isFinite(number)}<span class="text-stop"
        >{msg.number_entry_did_not_understand_a_number({ text })}</span
      >{/if}
  </p>
  {#if of.enter !== 'words'}
    {#if of.enter === 'length' && !metric}
      <div class="grid grid-cols-7 gap-1">
        {#each fractions as f (f.text)}
          <button
            class="btn min-h-12 px-0 text-[1.15rem]"
            aria-label={f.text}
            tabindex="-1"
            onclick={() => fraction(f.text)}><Fraction mm={f.mm} {units} /></button
          >
        {/each}
      </div>
    {/if}
    <div class="grid gap-1 {of.enter === 'length' ? 'grid-cols-4' : 'grid-cols-3'}">
      {#each keys as k (k)}
        <button
          class="btn min-h-13 px-0 text-[1.3rem] font-semibold {k === '0' && of.enter === 'length'
            ? 'col-span-2'
            : ''}"
          tabindex="-1"
          aria-label={k === RUB
            ? msg.log_rub_out
            : k === '′'
              ? msg.log_feet
              : k === '″'
                ? msg.log_inches
                : undefined}
          onclick={() => press(k)}
          >{#if k === RUB}<Delete size={22} aria-hidden="true" />{:else if k === '′' || k === '″'}<span
              class="text-[2rem] leading-none"
              aria-hidden="true">{k}</span
            >{:else}{k}{/if}</button
        >
      {/each}
    </div>
  {/if}
  <div class="grid grid-cols-2 gap-1.5">
    <button class="btn min-h-13" onclick={oncancel}>{msg.log_leave_out}</button>
    <button class="btn btn-main min-h-13 font-semibold" disabled={!ready} onclick={enter}
      >{msg.seen_write_it_down}</button
    >
  </div>
</div>
