<script lang="ts">
  // A choice of a few, all in sight, each with what it costs.
  import { RadioGroup } from 'bits-ui'
  import { tip } from '../lib/tips'
  import * as msg from '../gen/messages'

  interface Option {
    value: string
    name: string
    costs?: string
    /** Why it cannot be had here; it stays in sight. */
    refused?: string
  }
  interface Props {
    label: string
    value: string
    options: Option[]
    onpick: (value: string) => void
  }
  let { label, value, options, onpick }: Props = $props()
  const id = $props.id()
</script>

<div>
  <div id="{id}-l" class="label mb-1" {@attach tip(label)}>{label}</div>
  <RadioGroup.Root
    aria-labelledby="{id}-l"
    class="grid gap-1.5 {options.length === 3 ? 'grid-cols-3' : 'grid-cols-2'}"
    bind:value={() => value, (v) => v !== value && onpick(v)}
  >
    {#each options as o (o.value)}
      <RadioGroup.Item
        value={o.value}
        disabled={!!o.refused && o.value !== value}
        class="min-h-11 border px-2.5 py-1.5 text-left leading-tight data-[state=checked]:border-mallow data-[state=checked]:bg-mallow-wash data-[state=checked]:shadow-[inset_0_0_0_1px_var(--mallow)] data-[state=unchecked]:border-line data-[state=unchecked]:bg-sheet data-disabled:border-dashed data-disabled:text-pencil"
      >
        {#snippet children({ checked })}
          <span class="font-semibold"
            >{o.name}{#if checked}<span class="sr-only">{msg.choice_chosen}</span>{/if}</span
          >
          {#if o.refused}<span class="mt-0.5 block text-[0.88rem] {checked ? 'text-warn' : ''}"
              >{msg.common_not_here({ refused: o.refused })}</span
            >{:else if o.costs}<span class="mt-0.5 block text-[0.88rem] text-pencil">{o.costs}</span>{/if}
        {/snippet}
      </RadioGroup.Item>
    {/each}
  </RadioGroup.Root>
</div>
