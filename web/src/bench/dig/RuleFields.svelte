<script lang="ts">
  // The rules of one part, as far as they matter at the level that is picked.
  import type { Rule } from '../../gen/api'
  import { rulesOf, type Level } from '../../lib/rules'
  import type { Session } from '../../lib/session.svelte'
  import RuleField from './RuleField.svelte'

  interface Props {
    session: Session
    level: Level
    part: Rule['part']
    /** Rules that are shown elsewhere on the bench. */
    without?: string[]
    /** Rules of another part that belong here too. */
    also?: string[]
  }
  let { session, level, part, without = [], also = [] }: Props = $props()
  const rules = $derived([
    ...rulesOf(session, level, part).filter((r) => !without.includes(r.field)),
    ...session.catalogue.rules.filter((r) => also.includes(r.field)),
  ])
</script>

<div class="grid grid-cols-2 items-end gap-x-4 gap-y-2 sm:grid-cols-3">
  {#each rules as rule (rule.field)}
    <div class={rule.field === 'setting/method' ? 'col-span-2' : ''}>
      <RuleField {session} {level} {rule} />
    </div>
  {/each}
</div>
