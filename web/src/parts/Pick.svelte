<script lang="ts">
  import { Select } from 'bits-ui'
  import ChevronDown from '@lucide/svelte/icons/chevron-down'
  import Check from '@lucide/svelte/icons/check'
  import { tip } from '../lib/tips'
  import * as msg from '../gen/messages'

  interface Props {
    label: string
    value: string
    /** What is refused stays in the list, with the reason. */
    options: { value: string; name: string; refused?: string }[]
    hideLabel?: boolean
    onpick: (value: string) => void
  }
  let { label, value, options, hideLabel = false, onpick }: Props = $props()
  const id = $props.id()
  const name = $derived(options.find((o) => o.value === value)?.name ?? value)
</script>

<div>
  <div id="{id}-l" class={hideLabel ? 'sr-only' : 'label mb-1'} {@attach tip(label)}>{label}</div>
  <Select.Root
    type="single"
    items={options.map((o) => ({ value: o.value, label: o.name }))}
    bind:value={() => value, (v) => v && v !== value && onpick(v)}
  >
    <Select.Trigger
      class="field flex items-center justify-between gap-2 text-left"
      aria-labelledby="{id}-l {id}-v"
    >
      <span id="{id}-v" class="truncate">{name}</span>
      <ChevronDown size={18} aria-hidden="true" />
    </Select.Trigger>
    <Select.Portal>
      <Select.Content
        sideOffset={4}
        class="z-50 max-h-[60dvh] min-w-(--bits-select-anchor-width) overflow-auto border border-ink bg-sheet p-1 text-ink shadow-lg"
      >
        <Select.Viewport>
          {#each options as o (o.value)}
            <Select.Item
              value={o.value}
              label={o.name}
              disabled={!!o.refused}
              aria-disabled={o.refused ? true : undefined}
              class="flex data-disabled:text-pencil min-h-11 items-center justify-between gap-3 px-2.5 data-highlighted:bg-mallow-wash"
            >
              {#snippet children({ selected })}
                <span class="max-w-80"
                  >{o.name}{#if o.refused}<span class="block text-[0.88rem] leading-snug"
                      >{msg.common_not_here({ refused: o.refused })}</span
                    >{/if}</span
                >
                {#if selected}<Check size={18} aria-hidden="true" />{/if}
              {/snippet}
            </Select.Item>
          {/each}
        </Select.Viewport>
      </Select.Content>
    </Select.Portal>
  </Select.Root>
</div>
