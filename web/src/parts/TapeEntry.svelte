<script lang="ts">
  // One input for all lengths. It keeps every keystroke, shows how it was
  // read, and steps by the smallest mark.
  import type { Reading, Units } from '../gen/api'
  import { api } from '../lib/api'
  import { round, short, tape } from '../lib/tape'
  import Fraction from './Fraction.svelte'
  import { tip } from '../lib/tips'
  import * as msg from '../gen/messages'

  interface Props {
    label: string
    value: number | undefined
    units: Units
    /** The field of the document that it fills, or one like it: it tells what a number without a unit means. */
    field?: string
    long?: boolean
    hideLabel?: boolean
    optional?: boolean
    error?: string
    hint?: string
    disabled?: boolean
    /** `system` is that of the units that it was written in. */
    oncommit: (mm: number | null, system?: Units['system']) => void
    onpreview?: (mm: number) => void
    /** Enter was pressed and nothing is left to say of the entry. */
    onenter?: () => void
  }
  let {
    label,
    value,
    units,
    long = false,
    field = long ? 'station' : '',
    hideLabel = false,
    optional = false,
    error = '',
    hint = '',
    disabled = false,
    oncommit,
    onpreview,
    onenter,
  }: Props = $props()

  const id = $props.id()
  const shown = $derived(value === undefined ? '' : (long ? tape : short)(value, units))
  let text = $state<string | null>(null) // what is being typed; null: nothing
  let reading = $state.raw<Reading | null>(null)
  let asked: AbortController | undefined
  let pending: Promise<void> = Promise.resolve()
  let stepped: number | null = null
  let was: number | undefined // the value before this entry began; previews change it

  function begin() {
    if (text === null) was = value
  }

  const trouble = $derived(
    reading && !reading.ok && text?.trim()
      ? reading.part && reading.part !== text.trim()
        ? msg.tape_entry_did_not_understand({ part: reading.part, why: reading.why ?? '' })
        : msg.tape_entry_did_not_understand_this({ why: reading.why ?? '' })
      : text === null
        ? error
        : '',
  )

  function typed(next: string) {
    begin()
    text = next
    stepped = null
    asked?.abort()
    const mine = (asked = new AbortController())
    if (!next.trim()) {
      reading = null
      return
    }
    pending = api
      .tape(next, units.system, field, mine.signal)
      .then((r) => {
        if (mine.signal.aborted) return
        reading = r
        if (r.ok) onpreview?.(r.length)
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

  async function commit() {
    if (text === null) return
    await pending
    if (text === null) return
    if (!text.trim()) {
      if (optional && was !== undefined) oncommit(null)
      rest()
    } else if (stepped !== null || reading?.ok) {
      const mm = stepped ?? reading!.length
      const system = stepped === null ? reading!.system : undefined
      rest()
      if (was === undefined || Math.abs(mm - was) > 1e-6) oncommit(mm, system)
    }
  }

  function rest() {
    text = null
    reading = null
    stepped = null
  }

  function take(mm: number) {
    rest()
    oncommit(mm)
  }

  function key(e: KeyboardEvent) {
    if (e.key === 'Enter') {
      e.preventDefault()
      void commit().then(() => text === null && onenter?.())
    } else if (e.key === 'Escape' && text !== null) {
      e.stopPropagation()
      rest()
      if (was !== undefined) onpreview?.(was)
    } else if (e.key === 'ArrowUp' || e.key === 'ArrowDown') {
      e.preventDefault()
      begin()
      const from = stepped ?? (reading?.ok ? reading.length : (value ?? 0))
      const marks = (e.key === 'ArrowUp' ? 1 : -1) * (e.shiftKey ? 16 : 1)
      const to = round(from, units) + marks * units.smallestMark
      text = (long ? tape : short)(to, units)
      reading = null
      stepped = to
      onpreview?.(to)
    }
  }
</script>

<div class="min-w-0">
  <label for={id} class={hideLabel ? 'sr-only' : 'label mb-1'} {@attach tip(label)}>{label}</label>
  <input
    {id}
    class="field"
    type="text"
    inputmode="text"
    autocomplete="off"
    autocapitalize="off"
    spellcheck="false"
    {disabled}
    placeholder={optional ? msg.common_not_set : ''}
    value={text ?? shown}
    oninput={(e) => typed(e.currentTarget.value)}
    onkeydown={key}
    onblur={() => void commit()}
    onfocus={(e) => e.currentTarget.select()}
    aria-invalid={trouble ? 'true' : undefined}
    aria-describedby="{id}-says"
  />
  <!-- How it is read lies over what is below: nothing moves away under a hand on its way there. -->
  <div id="{id}-says" class="relative text-[0.9rem] leading-snug" aria-live="polite">
    {#if !trouble && text !== null && reading?.ok}
      <p
        class="absolute top-0 left-0 z-20 w-max max-w-72 border border-line bg-sheet px-2 py-1 text-pencil shadow-md"
      >
        {msg.tape_entry_read_as}
        <strong class="font-semibold text-ink"><Fraction mm={reading.length} {units} {long} /></strong>
        {#if reading.bare}
          {#each reading.others as other (other.text)}
            <button
              type="button"
              class="ml-1 min-h-7 border border-line px-1.5 pointer-coarse:min-h-11"
              onmousedown={(e) => e.preventDefault()}
              onclick={() => take(other.length)}>{msg.tape_entry_or({ text: other.text })}</button
            >
          {/each}
        {/if}
      </p>
    {/if}
    {#if trouble}
      <p class="mt-1 font-medium text-stop">{trouble}</p>
    {:else if hint}
      <p class="mt-1 text-pencil">{hint}</p>
    {/if}
  </div>
</div>
