<script lang="ts">
  // The work of the current stage.
  import { Tabs } from 'bits-ui'
  import Printer from '@lucide/svelte/icons/printer'
  import TriangleAlert from '@lucide/svelte/icons/triangle-alert'
  import ViewControls from '../drawing/ViewControls.svelte'
  import type { View } from '../drawing/view.svelte'
  import type { Session } from '../lib/session.svelte'
  import { stages, type Stage } from '../lib/stages'
  import Later from '../parts/Later.svelte'
  import Words from '../parts/Words.svelte'
  import Findings from './Findings.svelte'
  import NotCleared from './NotCleared.svelte'
  import Guide from './Guide.svelte'
  import PostCard from './PostCard.svelte'

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
  }
  const count = (id: Stage) =>
    session.plan.findings.filter((f) => f.stage === id && f.severity !== 'note').length
  const cautions = $derived(session.plan.cautions.filter((c) => c.stage === stage))
  const reminders = $derived(session.run.reminders.filter((c) => c.stage === stage))
</script>

<Tabs.Root
  bind:value={() => stage, (v) => (stage = v as Stage)}
  class="flex min-h-0 min-w-0 flex-1 flex-col"
  activationMode="automatic"
>
  <div class="flex flex-none items-center justify-between border-b border-line bg-paper">
    <Tabs.List class="flex min-w-0 overflow-x-auto max-lg:flex-1" aria-label="Stages of the work">
      {#each stages as s (s.id)}
        <Tabs.Trigger
          value={s.id}
          class="relative min-h-12 flex-1 border-b-4 px-3 text-[1.02rem] font-semibold whitespace-nowrap data-[state=active]:border-mallow data-[state=active]:bg-sheet data-[state=inactive]:border-transparent data-[state=inactive]:text-pencil sm:flex-none sm:px-3.5"
        >
          {s.name}{#if count(s.id)}<span
              class="ml-1.5 inline-block min-w-5 border border-warn bg-warn-wash px-1 text-center text-[0.85rem] leading-5 text-warn"
              >{count(s.id)}<span class="sr-only"> to look at</span></span
            >{/if}{#if s.id === 'dig' && !session.plan.before.ready}<span
              class="ml-1.5 inline-block border border-stop bg-stop-wash px-1 text-[0.8rem] leading-5 text-stop max-sm:sr-only"
              >not cleared</span
            >{/if}
        </Tabs.Trigger>
      {/each}
    </Tabs.List>
    {#if session.run.posts.length}<div class="pr-1 max-lg:hidden"><ViewControls {view} {session} /></div>{/if}
  </div>
  {#each stages as s (s.id)}
    <Tabs.Content
      value={s.id}
      class="relative min-h-0 flex-1 overflow-auto bg-paper p-3 focus-visible:outline-offset-[-3px] sm:p-4"
      tabindex={-1}
    >
      {#if stage === s.id}
        <Guide {session} bind:shown={guiding} />
        <Findings {session} stage={s.id} />
        {#if !session.plan.before.ready && (s.id === 'dig' || s.id === 'space')}
          <NotCleared
            {session}
            slim={s.id === 'space'}
            onopen={() => {
              session.nav.parts.walk = 'before'
              stage = 'walk'
            }}
          />
        {/if}
        {#if session.run.posts.length && s.id !== 'walk' && s.id !== 'gates'}<PostCard
            {session}
            {view}
            stage={s.id}
          />{/if}
        {#if reminders.length}
          <ul class="mb-4 grid max-w-4xl gap-1" data-testid="reminders">
            {#each reminders as r, i (i)}
              <li class="border-l-4 border-l-line bg-sheet px-3 py-1.5 leading-snug">
                <Words says={r.says} units={session.units} />
              </li>
            {/each}
          </ul>
        {/if}
        {#if session.run.posts.length || !guiding}
          <Later load={panels[s.id]} name={s.name} props={{ session, view }} />
        {/if}
        {@const sheets = session.catalogue.sheets.filter((k) => k.stage === s.id)}
        {#if session.run.posts.length && sheets.length}
          <p class="mt-5">
            <button class="btn" onclick={() => (session.nav.printing = true)}
              ><Printer size={18} aria-hidden="true" />On paper: {sheets
                .map((k) => k.name.toLowerCase())
                .join(', ')}</button
            >
          </p>
        {/if}
        {#if cautions.length}
          <ul class="mt-5 grid max-w-4xl gap-1.5">
            {#each cautions as c, i (i)}
              <li class="flex gap-2 bg-warn-wash px-3 py-2 leading-snug text-warn">
                <TriangleAlert size={18} class="mt-0.5 shrink-0" aria-hidden="true" />
                <span><Words says={c.says} units={session.units} /></span>
              </li>
            {/each}
          </ul>
        {/if}
      {/if}
    </Tabs.Content>
  {/each}
</Tabs.Root>
