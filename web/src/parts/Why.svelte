<script lang="ts">
  import TriangleAlert from '@lucide/svelte/icons/triangle-alert'
  import type { Explained, RuleSetting } from '../gen/api'
  import type { Session } from '../lib/session.svelte'
  import { short } from '../lib/tape'
  import { choiceName } from '../lib/names'
  import Fraction from './Fraction.svelte'
  import NumberEntry from './NumberEntry.svelte'
  import Pick from './Pick.svelte'
  import TapeEntry from './TapeEntry.svelte'
  import Words from './Words.svelte'
  import * as msg from '../gen/messages'

  let { session, reason, of }: { session: Session; reason: Explained; of: string } = $props()
  const units = $derived(session.units)
  const steps = $derived(reason.steps)

  /** A rise for each foot, or for each metre, of height. */
  const per = $derived(units.system === 'metric' ? 1000 : 304.8)

  function usual(s: RuleSetting): string {
    if (s.usual === undefined) return s.changed ? msg.why_usually_not_set : ''
    if (s.kind === 'length') return `usually ${short(s.usual as number, units)}`
    if (s.kind === 'percent') return `usually ${100 * (s.usual as number)}`
    if (s.kind === 'per height') return `usually ${short((s.usual as number) * per, units)}`
    if (s.kind === 'switch') return `usually ${s.usual ? msg.why_yes : msg.why_no}`
    return `usually ${s.kind === 'choice' ? choiceName(String(s.usual), s.path) : s.usual}`
  }

  /** Who said it, where that is not just the usual value. */
  const said = (s: RuleSetting) =>
    !s.from || s.from === 'usual'
      ? ''
      : s.from.startsWith('the fence') || s.from.startsWith('the site')
        ? `from ${s.from}`
        : msg.why_said_for({ from: s.from })

  function set(s: RuleSetting, value: unknown, shown: string) {
    session.commit([{ path: s.path, value }], `${s.name}: ${shown}`)
  }
</script>

<div class="border-b border-rule px-4 pt-3 pb-3">
  <div class="text-[0.9rem] font-medium text-pencil">{of}</div>
  <p class="mt-0.5 text-[1.1rem] leading-snug font-semibold"><Words says={reason.sentence} {units} /></p>
</div>
<ul>
  {#each steps as step, i (i)}
    <li
      class="border-b border-rule px-4 py-2.5 last:border-0 {step.governs
        ? 'border-l-4 border-l-mallow pl-3'
        : ''}"
    >
      <div class="flex flex-wrap items-baseline gap-x-2">
        <span class="font-semibold">{step.rule}</span>
        {#if step.governs}<span class="text-[0.88rem] font-semibold text-mallow">{msg.why_governs}</span>{/if}
        {#if reason.asked?.[i] !== undefined}
          <span class="ml-auto text-[1.05rem] font-semibold"
            ><span class="sr-only">{msg.why_asks} </span><Fraction mm={reason.asked[i]} {units} /></span
          >
        {/if}
      </div>
      <p class="text-[0.88rem] leading-snug text-pencil">
        {step.source.kind}{#if step.source.name}: {step.source.name}{/if}
      </p>
      <p class="leading-snug"><Words says={step.says} {units} /></p>
      {#each step.settings ?? [] as s (s.path)}
        <div class="mt-2 grid grid-cols-[1fr_9rem] items-start gap-x-3">
          <div class="pt-2 text-[0.92rem] leading-tight">
            {s.name}
            <span class="block text-[0.88rem] {s.changed ? 'font-semibold text-warn' : 'text-pencil'}">
              {s.changed ? msg.why_changed({ usual: usual(s) }) : usual(s)}
            </span>
            {#if said(s)}<span class="block text-[0.88rem] text-pencil">{said(s)}</span>{/if}
          </div>
          {#if s.kind === 'length'}
            <TapeEntry
              label={s.name}
              field={s.path}
              hideLabel
              optional={s.usual === undefined && s.path.includes('/hole/')}
              value={s.value as number | undefined}
              {units}
              error={session.wrongAt(s.path)}
              oncommit={(mm) => set(s, mm, mm === null ? msg.common_by_the_rules : short(mm, units))}
            />
          {:else if s.kind === 'switch'}
            <button
              class="btn w-full"
              role="switch"
              aria-checked={s.value === true}
              aria-label={s.name}
              onclick={() => set(s, !s.value, s.value ? 'no' : 'yes')}
              >{s.value ? msg.common_yes : msg.common_no}</button
            >
          {:else if s.kind === 'per height'}
            <TapeEntry
              label={s.name}
              hideLabel
              value={(s.value as number) * per}
              {units}
              error={session.wrongAt(s.path)}
              oncommit={(mm) => mm !== null && set(s, mm / per, short(mm, units))}
            />
          {:else if s.kind === 'ratio' || s.kind === 'percent'}
            {@const by = s.kind === 'percent' ? 100 : 1}
            <NumberEntry
              label={s.name}
              hideLabel
              value={Math.round((s.value as number) * by * 1e6) / 1e6}
              oncommit={(n) => set(s, n / by, String(n))}
            />
          {:else}
            <Pick
              label={s.name}
              hideLabel
              value={String(s.value)}
              options={(s.choices ?? []).map((c) => ({ value: c, name: choiceName(c, s.path) }))}
              onpick={(v) => set(s, v, choiceName(v, s.path))}
            />
          {/if}
        </div>
      {/each}
    </li>
  {/each}
</ul>
{#if reason.caution}
  <p class="flex gap-2 border-t border-rule bg-warn-wash px-4 py-2.5 text-[0.92rem] leading-snug text-warn">
    <TriangleAlert size={18} class="mt-0.5 shrink-0" aria-hidden="true" />{reason.caution}
  </p>
{/if}
