<script lang="ts">
  // One thing that was written down, and the way to strike it out.
  import X from '@lucide/svelte/icons/x'
  import type { Fact } from '../../gen/api'
  import { wayName } from '../../lib/log'
  import { choiceName } from '../../lib/names'
  import { strike } from '../../lib/observed'
  import type { Session } from '../../lib/session.svelte'
  import { short, tape } from '../../lib/tape'
  import Photo from './Photo.svelte'
  import * as msg from '../../gen/messages'

  interface Props {
    session: Session
    fact: Fact
    label: string
    onstrike: () => void
  }
  let { session, fact, label, onstrike }: Props = $props()
  const units = $derived(session.units)
  const name = $derived(choiceName(fact.what, 'observed/what'))
  const day = new Intl.DateTimeFormat(undefined, {
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
  })
  const measured = $derived(
    fact.what === 'landed'
      ? tape(fact.at ?? 0, units)
      : fact.value === undefined
        ? ''
        : fact.unit === 'bags'
          ? String(fact.value)
          : fact.what === 'gravel'
            ? `${Math.round(fact.value * 1000)} L`
            : short(fact.value, units),
  )
</script>

{#if fact.photo}<span class="flex-none py-1 pr-2"
    ><Photo {session} id={fact.photo} {label} size="h-14 w-14" /></span
  >{/if}
<span class="flex-1 py-1"
  >{name} <strong>{measured}</strong>{fact.way ? ` ${msg.log_way({ way: wayName(session, fact.way) })}` : ''}
  {fact.note ? `“${fact.note}”` : ''}
  <span class="text-pencil"
    >{fact.when ? day.format(new Date(fact.when)) : ''}{fact.who ? `, ${fact.who}` : ''}</span
  ></span
>
<button
  class="btn btn-plain btn-icon"
  aria-label={msg.seen_at_was_wrong_strike_it({ name: name.replace(/ (at|by|to)$/, ''), label })}
  title={msg.seen_it_was_wrong_strike_it}
  onclick={() => {
    session.commit(strike(session, [fact]), msg.seen_struck_out({ label, v2: name.toLowerCase() }))
    onstrike()
  }}><X size={18} aria-hidden="true" /></button
>
