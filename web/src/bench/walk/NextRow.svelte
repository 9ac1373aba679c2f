<script lang="ts">
  // The next row of a page: where, then what was read there. Enter goes from
  // one to the other and on to the next row, so that the hands never leave
  // the keys.
  import { tick } from 'svelte'
  import Plus from '@lucide/svelte/icons/plus'
  import type { Units } from '../../gen/api'
  import TapeEntry from '../../parts/TapeEntry.svelte'
  import * as msg from '../../gen/messages'

  interface Props {
    units: Units
    at: string
    value: string
    disabled?: boolean
    /** Where the next row is taken to be, until something else is typed. */
    suggest?: number
    onrow: (at: number, value: number) => void
  }
  let { units, at, value, disabled = false, suggest, onrow }: Props = $props()
  let typed = $state<number | undefined>(undefined)
  const where = $derived(typed ?? suggest)
  let first = $state<HTMLElement>()
  let second = $state<HTMLElement>()
  const focus = async (box?: HTMLElement) => {
    await tick()
    box?.querySelector('input')?.focus()
  }
</script>

<div bind:this={first}>
  <TapeEntry
    label={at}
    hideLabel
    optional
    long
    {units}
    value={where}
    {disabled}
    oncommit={(mm) => {
      typed = mm ?? undefined
    }}
    onenter={() => where !== undefined && void focus(second)}
  />
</div>
<div bind:this={second}>
  <TapeEntry
    label={value}
    field="reading"
    hideLabel
    optional
    {units}
    value={undefined}
    disabled={disabled || where === undefined}
    oncommit={(mm) => {
      if (mm === null || where === undefined) return
      onrow(where, mm)
      typed = undefined
      void focus(first)
    }}
  />
</div>
<span class="grid place-items-center text-pencil" title={msg.next_row_new_row}
  ><Plus size={18} aria-hidden="true" /></span
>
