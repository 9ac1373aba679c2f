<script lang="ts">
  // The row of stages with the picked post, and under it the work of the stage
  // that is open, with the load or the findings beside it.
  import { Tabs } from 'bits-ui'
  import ListChecks from '@lucide/svelte/icons/list-checks'
  import CircleHelp from '@lucide/svelte/icons/circle-question-mark'
  import Printer from '@lucide/svelte/icons/printer'
  import TriangleAlert from '@lucide/svelte/icons/triangle-alert'
  import type { View } from '../drawing/view.svelte'
  import { layout } from '../lib/layout.svelte'
  import type { Session } from '../lib/session.svelte'
  import { stages, type Stage } from '../lib/stages'
  import { bulk } from '../lib/tape'
  import Load from '../load/Load.svelte'
  import Later from '../parts/Later.svelte'
  import Words from '../parts/Words.svelte'
  import Guide from './Guide.svelte'
  import PostStrip from './PostStrip.svelte'
  import * as msg from '../gen/messages'

  let { session, view, stage = $bindable() }: { session: Session; view: View; stage: Stage } = $props()
  let guiding = $state(false)
  // Each stage's bench is loaded when it is first opened.
  const panels: Record<Stage, () => Promise<{ default: unknown }>> = {
    walk: () => import('./walk/Walk.svelte'),
    string: () => import('./string/StringBench.svelte'),
    space: () => import('./space/Space.svelte'),
    grade: () => import('./grade/Grade.svelte'),
    gates: () => import('./gates/GatesBench.svelte'),
    dig: () => import('./dig/Dig.svelte'),
    pour: () => import('./pour/Pour.svelte'),
    build: () => import('./build/Build.svelte'),
    days: () => import('./days/Days.svelte'),
    log: () => import('./log/Log.svelte'),
  }
  const toCheck = $derived(
    session.plan.findings.filter((f) => f.severity === 'cannot' || f.severity === 'check'),
  )
  const count = (id: Stage) => toCheck.filter((f) => f.stage === id).length
  const grave = (id?: Stage) => toCheck.some((f) => f.severity === 'cannot' && (!id || f.stage === id))
  const cautions = $derived(session.plan.cautions.filter((c) => c.stage === stage))
  const sheets = $derived(session.catalogue.sheets.filter((k) => k.stage === stage))
  const reminders = $derived(session.run.reminders.filter((c) => c.stage === stage))
  const t = $derived(session.plan.totals)
  let row = $state<HTMLElement>()

  /** On a narrow screen the open stage is in sight in its row. */
  $effect(() => {
    void stage
    const open = row?.querySelector<HTMLElement>('[data-state="active"]')
    const list = open?.parentElement
    if (open && list) list.scrollLeft = open.offsetLeft - (list.clientWidth - open.clientWidth) / 2
  })
</script>

<Tabs.Root
  bind:value={
    () => stage,
    (v) => {
      stage = v as Stage
      layout.makeRoom()
    }
  }
  class="flex min-h-0 min-w-0 flex-1 flex-col"
  activationMode="automatic"
>
  <div class="flex flex-none flex-wrap items-stretch border-b border-line bg-paper lg:flex-nowrap">
    <div class="cue min-w-0 max-lg:flex-1" bind:this={row}>
      <Tabs.List class="flex min-w-0 overflow-x-auto" aria-label={msg.bench_stages_of_the_work}>
        {#each stages as s (s.id)}
          <Tabs.Trigger
            value={s.id}
            class="relative min-h-12 flex-none border-b-4 px-3 text-[1.02rem] font-semibold whitespace-nowrap data-[state=active]:border-mallow data-[state=active]:bg-sheet data-[state=inactive]:border-transparent data-[state=inactive]:text-pencil lg:px-2"
          >
            {s.name}{#if count(s.id)}<span
                class="ml-1 inline-block min-w-5 border px-1 text-center text-[0.85rem] leading-5 {grave(s.id)
                  ? 'border-stop bg-stop-wash text-stop'
                  : 'border-warn bg-warn-wash text-warn'}"
                >{count(s.id)}<span class="sr-only"> {msg.common_to_check}</span></span
              >{/if}
          </Tabs.Trigger>
        {/each}
      </Tabs.List>
    </div>
    <button
      class="btn btn-plain flex-none px-2 {grave() ? 'text-stop' : toCheck.length ? 'text-warn' : ''}"
      aria-label={msg.bench_findings_to_check({ count: toCheck.length })}
      aria-expanded={layout.findings}
      onclick={() => layout.set({ findings: !layout.findings })}
      ><ListChecks size={20} aria-hidden="true" /><span class="max-2xl:hidden">{msg.common_findings}</span>
      {#if toCheck.length}<strong>{toCheck.length}</strong>{/if}</button
    >
    {#if session.run.posts.length}
      <div
        class="min-w-0 max-lg:order-last max-lg:w-full lg:min-w-60 lg:flex-1 lg:border-l lg:border-rule {stage ===
        'log'
          ? 'max-lg:hidden'
          : ''}"
      >
        <PostStrip {session} {view} {stage} />
      </div>
    {/if}
    {#if !layout.load && !layout.findings}
      <button
        class="btn btn-plain ml-auto flex-none px-2 font-semibold whitespace-nowrap max-lg:hidden"
        title={msg.common_show_the_load}
        onclick={() => layout.set({ load: true })}
        >{msg.bench_posts_bags({
          posts: t.posts,
          bags: t.bags,
          bulk: bulk(t.gravelLoose, session.units),
        })}</button
      >
    {/if}
  </div>
  <div class="flex min-h-0 flex-1 max-lg:flex-col">
    {#each stages as s (s.id)}
      <Tabs.Content
        value={s.id}
        class="relative min-h-0 min-w-0 flex-1 bg-paper focus-visible:outline-offset-[-3px] {stage === s.id
          ? 'flex flex-col'
          : ''}"
        tabindex={-1}
        id="bench-{s.id}"
      >
        {#if stage === s.id}
          <div class="relative min-h-0 flex-1 overflow-auto" data-bench>
            {#if session.run.posts.length === 0 || guiding}
              <div class="p-3 empty:hidden sm:p-4"><Guide {session} bind:shown={guiding} /></div>
            {/if}
            {#if session.run.posts.length || !guiding}
              <Later load={panels[s.id]} name={s.name} props={{ session, view }} />
            {/if}
            <div class="grid gap-3 px-3 pb-4 empty:hidden sm:px-4">
              {#if reminders.length}
                <ul class="grid max-w-4xl gap-1" data-testid="reminders">
                  {#each reminders as r, i (i)}
                    <li class="border-l-4 border-l-line bg-sheet px-3 py-1.5 leading-snug">
                      <Words says={r.says} units={session.units} />
                    </li>
                  {/each}
                </ul>
              {/if}
              <p class="flex flex-wrap gap-2">
                <button class="btn" onclick={() => (session.nav.keys = true)}
                  ><CircleHelp size={18} aria-hidden="true" />{msg.help_about}</button
                >
                {#if session.run.posts.length && sheets.length}<button
                    class="btn"
                    onclick={() => (session.nav.printing = true)}
                    ><Printer size={18} aria-hidden="true" />{msg.bench_on_paper({
                      v1: sheets.map((k) => k.name.toLowerCase()).join(', '),
                    })}</button
                  >{/if}
              </p>
              {#if cautions.length}
                <ul class="grid max-w-4xl gap-1.5">
                  {#each cautions as c, i (i)}
                    <li class="flex gap-2 bg-warn-wash px-3 py-2 leading-snug text-warn">
                      <TriangleAlert size={18} class="mt-0.5 shrink-0" aria-hidden="true" />
                      <span><Words says={c.says} units={session.units} /></span>
                    </li>
                  {/each}
                </ul>
              {/if}
            </div>
          </div>
        {/if}
      </Tabs.Content>
    {/each}
    {#if layout.findings}
      <Later load={() => import('./FindingList.svelte')} props={{ session, stage }} />
    {/if}
    <Load {session} hidden={!layout.load || layout.findings} />
  </div>
</Tabs.Root>
