<script lang="ts">
  import { tip } from '../lib/tips'
  import * as msg from '../gen/messages'
  interface Props {
    label: string
    value: number | undefined
    error?: string
    hint?: string
    hideLabel?: boolean
    oncommit: (n: number) => void
    /** Given where the field may be left empty. */
    onclear?: () => void
  }
  let { label, value, error = '', hint = '', hideLabel = false, oncommit, onclear }: Props = $props()
  const id = $props.id()
  let text = $state<string | null>(null)
  let wrong = $state('')

  function commit() {
    if (text === null) return
    if (onclear && !text.trim()) {
      text = null
      wrong = ''
      if (value !== undefined) onclear()
      return
    }
    const n = Number(text.trim().replace(',', '.'))
    if (text.trim() === '' || !Number.isFinite(n)) {
      wrong = msg.number_entry_did_not_understand_a_number({ text })
      return
    }
    text = null
    wrong = ''
    if (n !== value) oncommit(n)
  }
</script>

<div>
  <label for={id} class={hideLabel ? 'sr-only' : 'label mb-1'} {@attach tip(label)}>{label}</label>
  <input
    {id}
    class="field"
    inputmode="decimal"
    autocomplete="off"
    placeholder={onclear ? msg.common_not_set : ''}
    value={text ?? (value === undefined ? '' : String(Math.round(value * 1e6) / 1e6))}
    oninput={(e) => (text = e.currentTarget.value)}
    onblur={commit}
    onkeydown={(e) => {
      if (e.key === 'Enter') commit()
      else if (e.key === 'Escape' && text !== null) {
        e.stopPropagation()
        text = null
        wrong = ''
      }
    }}
    aria-invalid={wrong || error ? 'true' : undefined}
    aria-describedby={wrong || error ? `${id}-says` : undefined}
  />
  {#if wrong || error}<p id="{id}-says" class="mt-1 text-[0.9rem] font-medium text-stop">
      {wrong || error}
    </p>{:else if hint}<p class="mt-1 text-[0.9rem] text-pencil">{hint}</p>{/if}
</div>
