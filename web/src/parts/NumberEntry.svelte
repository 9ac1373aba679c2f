<script lang="ts">
  interface Props {
    label: string
    value: number
    error?: string
    hideLabel?: boolean
    oncommit: (n: number) => void
  }
  let { label, value, error = '', hideLabel = false, oncommit }: Props = $props()
  const id = $props.id()
  let text = $state<string | null>(null)
  let wrong = $state('')

  function commit() {
    if (text === null) return
    const n = Number(text.trim().replace(',', '.'))
    if (text.trim() === '' || !Number.isFinite(n)) {
      wrong = `Did not understand “${text}”: a number belongs here.`
      return
    }
    text = null
    wrong = ''
    if (n !== value) oncommit(n)
  }
</script>

<div>
  <label for={id} class={hideLabel ? 'sr-only' : 'label mb-1'}>{label}</label>
  <input
    {id}
    class="field"
    inputmode="decimal"
    autocomplete="off"
    value={text ?? String(value)}
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
    </p>{/if}
</div>
