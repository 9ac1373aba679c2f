<script lang="ts">
  // Every task with its hours, the crew's own rate for it, and the day it begins: one
  // that is moved takes the rest along.
  import type { TaskMove, Schedule, TaskRate } from '../../gen/api'
  import { date } from '../../lib/clock'
  import type { Session } from '../../lib/session.svelte'
  import NumberEntry from '../../parts/NumberEntry.svelte'
  import * as msg from '../../gen/messages'

  let { session, schedule }: { session: Session; schedule: Schedule } = $props()
  const moves = $derived(session.value<TaskMove[]>('/days/moves') ?? [])
  const rates = $derived(session.value<TaskRate[]>('/days/rates') ?? [])

  function move(task: string, name: string, day: string) {
    const rest = moves.filter((m) => m.task !== task)
    const value = day ? [...rest, { task, date: day }] : rest
    session.commit(
      [{ path: '/days/moves', value: value.length ? value : null }],
      day ? msg.days_moved({ name, date: day }) : msg.days_moved_back({ name }),
    )
  }
  function rate(task: string, name: string, minutes: number | undefined) {
    const rest = rates.filter((r) => r.task !== task)
    const value = minutes === undefined ? rest : [...rest, { task, minutes }]
    session.commit([{ path: '/days/rates', value: value.length ? value : null }], msg.days_rate_of({ name }))
  }
  const own = (task: string) => rates.find((r) => r.task === task)?.minutes
</script>

<p class="text-pencil">{msg.days_tasks_says}</p>
<ul class="mt-2 border-t border-rule" data-testid="tasks">
  {#each schedule.tasks as t (t.id)}
    <li class="flex flex-wrap items-start gap-x-4 gap-y-1 border-b border-rule py-2" data-task={t.id}>
      <div class="min-w-44 flex-1">
        <strong class="text-[1.05rem]">{t.name}</strong>
        <p class="text-[0.95rem] text-pencil">
          {msg.days_hours({ hours: t.hours.toFixed(1) })}
          {#if t.begin}{date(t.begin)}, {t.begin.slice(11, 16)} – {t.end &&
            t.end.slice(0, 10) !== t.begin.slice(0, 10)
              ? `${date(t.end)}, `
              : ''}{t.end?.slice(11, 16)}{:else if schedule.start}<span class="text-stop"
              >{msg.days_no_place}</span
            >{/if}
        </p>
      </div>
      {#if t.rated}
        <div class="w-36">
          <NumberEntry
            label={msg.days_minutes_each}
            value={own(t.id)}
            hint={own(t.id) === undefined ? msg.days_usual_minutes({ n: t.each }) : ''}
            oncommit={(n) => rate(t.id, t.name, n)}
            onclear={() => rate(t.id, t.name, undefined)}
          />
        </div>
      {/if}
      <div>
        <label class="label mb-1" for="move-{t.id}">{msg.days_begins_on}</label>
        <input
          id="move-{t.id}"
          type="date"
          class="field {t.moved ? 'border-mallow' : ''}"
          value={moves.find((m) => m.task === t.id)?.date ?? ''}
          onchange={(e) => move(t.id, t.name, e.currentTarget.value)}
        />
      </div>
    </li>
  {/each}
</ul>
