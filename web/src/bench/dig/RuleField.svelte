<script lang="ts">
  // One rule at one level: what is in force, who said it, and the level's own
  // say, which can be taken back.
  import { wrongSays } from '../../lib/wrong'
  import { choiceName } from '../../lib/names'
  import type { Rule, Units } from '../../gen/api'
  import { own, say, type Level } from '../../lib/rules'
  import type { Session } from '../../lib/session.svelte'
  import { short, usualUnits } from '../../lib/tape'
  import NumberEntry from '../../parts/NumberEntry.svelte'
  import Pick from '../../parts/Pick.svelte'
  import TapeEntry from '../../parts/TapeEntry.svelte'
  import * as msg from '../../gen/messages'

  interface Props {
    session: Session
    level: Level
    rule: Rule
  }
  let { session, level, rule }: Props = $props()
  const field = $derived(rule.field)
  const label = $derived(rule.name)
  const kind = $derived(rule.entry)
  /** Choices that the run's fence system rules out here, and why. */
  const refused = $derived((level.rules.refused as Record<string, Record<string, string>>)[field] ?? {})
  const options = $derived(
    field === 'setting/bag'
      ? session.catalogue.bags.map((b) => ({ value: b.id, name: b.name }))
      : (session.catalogue.choices[field] ?? []),
  )
  const units = $derived(session.units)
  const value = $derived(level.rules.values[field])
  const from = $derived(level.rules.from[field])
  const said = $derived(own(session, level, field))
  const entered = $derived(level.rules.entered[field] as Units['system'] | undefined)
  const error = $derived(session.errorAt(`${level.rules.path}/${field}`))
  const wrong = $derived(error ? wrongSays(error) : '')
  const [list, name] = $derived(field.split('/') as [string, string])
  const per = $derived((entered ?? units.system) === 'metric' ? 1000 : 304.8)

  function set(to: unknown, shown: string, system?: 'imperial' | 'metric') {
    const values: Record<string, unknown> = { [field]: to }
    if (to !== null && system && system !== units.system) values[`${list}/entered/${name}`] = system
    else if (entered && (system || to === null)) values[`${list}/entered/${name}`] = null
    session.commit(say(level, values), `${label} ${shown}, ${level.name}`)
  }
  const clear = () => set(null, msg.rule_field_as_said_elsewhere)
</script>

<div class="min-w-0" data-rule={field}>
  {#if kind === 'length' || kind === 'per height'}
    <TapeEntry
      {label}
      {units}
      optional={rule.byHand || said !== undefined}
      value={value === undefined
        ? undefined
        : kind === 'length'
          ? (value as number)
          : (value as number) * per}
      error={wrong}
      oncommit={(mm, system) =>
        set(
          mm === null ? null : kind === 'length' ? mm : mm / per,
          mm === null ? msg.common_by_the_rules : short(mm, units),
          system,
        )}
    />
  {:else if kind === 'ratio' || kind === 'percent'}
    {@const by = kind === 'percent' ? 100 : 1}
    <NumberEntry
      {label}
      value={value === undefined ? undefined : (value as number) * by}
      error={wrong}
      oncommit={(n) => set(n / by, String(n))}
    />
  {:else if kind === 'switch'}
    <div class="label mb-1">{label}</div>
    <button
      class="btn w-full"
      role="switch"
      aria-checked={value === true}
      aria-label={label}
      onclick={() => set(!value, value ? msg.common_no : msg.common_yes)}
      >{value ? msg.common_yes : msg.common_no}</button
    >
  {:else}
    <Pick
      {label}
      value={String(value)}
      options={options.map((o) => ({ ...o, refused: refused[o.value] }))}
      onpick={(v) => set(v, choiceName(v, field))}
    />
  {/if}
  <p class="mt-0.5 flex min-h-6 flex-wrap items-baseline gap-x-2 text-[0.88rem] text-pencil">
    {#if said !== undefined}
      <strong class="font-semibold text-ink">{msg.common_said_here}</strong>
      <button class="min-h-6 underline pointer-coarse:min-h-11" onclick={clear}
        >{msg.common_clear}<span class="sr-only"> {label}</span></button
      >
    {:else if value !== undefined}
      {msg.rule_field_from({ from: from ?? '' })}
    {/if}
    {#if entered && entered !== units.system && kind !== 'switch'}
      <span
        >{msg.rule_field_entered_as({
          v1: short(kind === 'length' ? (value as number) : (value as number) * per, usualUnits(entered)),
          v2:
            kind === 'per height'
              ? entered === 'metric'
                ? msg.rule_field_per_metre
                : msg.rule_field_per_foot
              : '',
        })}</span
      >
    {/if}
  </p>
</div>
