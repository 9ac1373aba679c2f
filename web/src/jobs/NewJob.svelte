<script lang="ts">
  // A new job: what a customer says on the phone. Any answer may be left out,
  // and the whole plan stands.
  import { tick } from 'svelte'
  import { Dialog } from 'bits-ui'
  import Check from '@lucide/svelte/icons/check'
  import X from '@lucide/svelte/icons/x'
  import { go } from '../lib/router'
  import Patterns from '../drawing/Patterns.svelte'
  import Scene from '../drawing/Scene.svelte'
  import type { Answers, FenceType, Job, Units } from '../gen/api'
  import { api, Refused } from '../lib/api'
  import Choice from '../parts/Choice.svelte'
  import Fraction from '../parts/Fraction.svelte'
  import TapeEntry from '../parts/TapeEntry.svelte'
  import { tape } from '../lib/tape'
  import { spelling } from '../lib/spelling.svelte'
  import * as msg from '../gen/messages'

  let { onclose }: { onclose: () => void } = $props()
  let open = $state(true)
  let name = $state('')
  let system = $state<Units['system']>(
    (localStorage.getItem('mallow.system') as Units['system'] | null) ?? 'imperial',
  )
  $effect(() => {
    spelling.british = system === 'metric'
  })
  const units = $derived<Units>({ system, smallestMark: system === 'metric' ? 1 : 25.4 / 16 })
  let fences = $state.raw<FenceType[]>([])
  let assumed = $state<number>()
  let fence = $state('')
  let height = $state<number>()
  let length = $state<number>()
  let gate = $state<'' | 'walk' | 'drive'>('')
  let slope = $state<'flat' | 'falls'>('flat')
  let fall = $state<number>()
  let frost = $state<number>()
  let winter = $state<Answers['winter'] | ''>('')
  let trouble = $state('')
  let busy = $state(false)

  $effect(() => {
    const of = system
    api.fences(of).then(
      ({ fences: all, assumed: taken }) => {
        if (of !== system) return
        // The type that was picked is there in the other units too.
        const had = fences.find((f) => f.id === fence)
        fences = all
        assumed = taken
        fence = all.find((f) => f.name === had?.name)?.id ?? ''
      },
      (e: unknown) => (trouble = e instanceof Error ? e.message : String(e)),
    )
  })
  let longPart = $state.raw<HTMLElement>()
  let slopePart = $state.raw<HTMLElement>()
  /** An answer by mouse leads on to what is typed next. Keys stay where they are, and no thumb wants a keyboard yet. */
  function onTo(part: HTMLElement | undefined) {
    if (document.activeElement?.matches(':focus-visible') || !matchMedia('(pointer: fine)').matches) return
    void tick().then(() => part?.querySelector('input')?.focus())
  }
  const picked = $derived(fences.find((f) => f.id === fence))
  const bare = $derived(picked?.gate)

  async function made(req: Parameters<typeof api.create>[0]) {
    busy = true
    trouble = ''
    try {
      localStorage.setItem('mallow.system', system)
      const job = await api.create(req)
      open = false
      await go(`/jobs/${job.id}`)
    } catch (e) {
      const fields = e instanceof Refused ? e.problem.fields : undefined
      trouble = fields?.length
        ? fields
            .map((f) =>
              msg.new_job_does_not_go_here({ slice: f.field.slice(1), given: f.given, allowed: f.allowed }),
            )
            .join('. ') + '.'
        : e instanceof Error
          ? e.message
          : String(e)
    } finally {
      busy = false
    }
  }
  const plan = () =>
    made({
      answers: {
        system,
        name: name.trim() || undefined,
        fence: fence || undefined,
        height,
        length,
        gate: gate && !bare ? gate : undefined,
        fall: slope === 'falls' ? fall : undefined,
        frost: winter ? undefined : frost,
        winter: winter || undefined,
      },
      what: msg.common_new_job,
    })

  async function file(e: Event & { currentTarget: HTMLInputElement }) {
    const f = e.currentTarget.files?.[0]
    if (!f) return
    let doc: Job
    try {
      doc = JSON.parse(await f.text()) as Job
    } catch {
      trouble = msg.new_job_is_not_a_job_document({ v1: f.name })
      return
    }
    await made({ doc, what: msg.new_job_read_from_a_file })
  }
</script>

{#snippet title(n: number, text: string)}
  <h3 class="mb-1 font-bold"><span class="mr-1.5 text-mallow">{n}</span>{text}</h3>
{/snippet}

<Dialog.Root bind:open onOpenChangeComplete={(now) => !now && onclose()}>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-40 bg-black/50" />
    <Dialog.Content
      class="fixed inset-0 z-50 m-auto flex max-h-dvh max-w-5xl flex-col border-ink bg-paper text-ink sm:inset-3 sm:h-fit sm:max-h-[calc(100dvh-1.5rem)] sm:border"
    >
      <div class="flex flex-none items-center gap-3 border-b border-line px-4 py-1.5">
        <Dialog.Title class="flex-1 text-[1.15rem] font-bold">{msg.common_new_job}</Dialog.Title>
        <Dialog.Description class="sr-only">{msg.new_job_six_questions_any_may_be}</Dialog.Description>
        <div class="flex" role="radiogroup" aria-label={msg.new_job_measured_in}>
          {#each [['imperial', msg.new_job_feet], ['metric', msg.new_job_meters]] as const as [id, label] (id)}
            <button
              class="btn -ml-px {system === id ? 'border-ink bg-ink text-paper' : ''}"
              role="radio"
              aria-checked={system === id}
              onclick={() => (system = id)}>{label}</button
            >
          {/each}
        </div>
        <Dialog.Close class="btn btn-plain btn-icon" aria-label={msg.common_close}
          ><X size={20} /></Dialog.Close
        >
      </div>
      <form
        class="flex min-h-0 flex-1 flex-col"
        onsubmit={(e) => {
          e.preventDefault()
          void plan()
        }}
      >
        <div
          class="grid min-h-0 flex-1 gap-x-6 gap-y-4 overflow-auto p-4 md:grid-cols-[minmax(0,1.25fr)_minmax(0,1fr)]"
        >
          <section aria-label={msg.new_job_which_fence}>
            {@render title(1, msg.new_job_which_fence_2)}
            <div
              class="grid grid-cols-2 gap-1.5 sm:grid-cols-3"
              role="radiogroup"
              aria-label={msg.new_job_which_fence}
            >
              {#each fences as f (f.id)}
                <button
                  type="button"
                  role="radio"
                  aria-checked={f.id === fence}
                  title={f.says}
                  class="relative flex flex-col border bg-sheet p-1 text-left {f.id === fence
                    ? 'border-mallow shadow-[inset_0_0_0_2px_var(--mallow)]'
                    : 'border-line hover:border-ink'}"
                  onclick={() => {
                    fence = f.id === fence ? '' : f.id
                    if (fence && length === undefined) onTo(longPart)
                  }}
                >
                  {#if f.drawing}
                    <svg viewBox="0 0 {f.drawing.width} 76" class="block w-full" aria-hidden="true"
                      ><Scene drawing={f.drawing} {units} stress="looks" /></svg
                    >
                  {/if}
                  <span class="px-1 pb-0.5 text-[0.88rem] leading-tight font-semibold">{f.name}</span>
                  {#if f.id === fence}<Check
                      size={18}
                      class="absolute top-1 right-1 bg-mallow text-on-mallow"
                      aria-hidden="true"
                    />{/if}
                </button>
              {:else}
                <p class="col-span-full text-pencil" aria-busy="true">{msg.new_job_drawing_the_fences}</p>
              {/each}
              <button
                type="button"
                role="radio"
                aria-checked={!fence}
                class="min-h-11 border p-1.5 text-left text-[0.88rem] font-semibold {fence
                  ? 'border-line bg-sheet'
                  : 'border-mallow bg-mallow-wash'}"
                onclick={() => (fence = '')}>{msg.new_job_none_of_these_set_it}</button
              >
            </div>
          </section>
          <div class="grid content-start gap-4">
            <div class="grid grid-cols-2 gap-3">
              <section>
                {@render title(2, msg.new_job_how_high)}
                <TapeEntry
                  label={msg.new_job_height_above_ground}
                  field="fence/height"
                  {units}
                  value={height}
                  optional
                  oncommit={(mm) => (height = mm ?? undefined)}
                />
                <p class="mt-0.5 min-h-6 text-pencil">
                  {#if picked && height === undefined}{msg.new_job_blank}
                    <Fraction mm={picked.height} {units} />{/if}
                </p>
              </section>
              <section bind:this={longPart}>
                {@render title(3, msg.new_job_how_long)}
                <TapeEntry
                  label={msg.new_job_end_post_to_end_post}
                  field="length"
                  long
                  {units}
                  value={length}
                  optional
                  oncommit={(mm) => (length = mm ?? undefined)}
                />
                <p class="mt-0.5 min-h-6 text-pencil">
                  {#if length === undefined && assumed}{msg.new_job_blank_assumed({
                      v1: tape(picked?.assumed ?? assumed, units),
                    })}{/if}
                </p>
              </section>
            </div>
            {#if !bare}
              <section>
                {@render title(4, msg.new_job_a_gate)}
                <Choice
                  label={msg.new_job_in_the_middle_drag_it}
                  value={gate || 'none'}
                  options={[
                    { value: 'none', name: msg.new_job_no_gate },
                    { value: 'walk', name: msg.new_job_walk_gate },
                    { value: 'drive', name: msg.new_job_drive_gate },
                  ]}
                  onpick={(v) => (gate = v === 'none' ? '' : (v as typeof gate))}
                />
              </section>
            {/if}
            <section bind:this={slopePart}>
              {@render title(5, msg.new_job_flat_or_does_it_fall)}
              <Choice
                label={msg.new_job_from_the_first_post_to}
                value={slope}
                options={[
                  { value: 'flat', name: msg.new_job_about_flat },
                  { value: 'falls', name: msg.new_job_it_falls },
                ]}
                onpick={(v) => {
                  slope = v as typeof slope
                  if (slope === 'falls') onTo(slopePart)
                }}
              />
              {#if slope === 'falls'}
                <div class="mt-2 w-1/2 pr-1.5">
                  <TapeEntry
                    label={msg.new_job_lower_at_the_far_end}
                    field="ground/height"
                    {units}
                    value={fall}
                    optional
                    hint={msg.new_job_minus_where_it_rises}
                    oncommit={(mm) => (fall = mm ?? undefined)}
                  />
                </div>
              {/if}
            </section>
            <section>
              {@render title(6, msg.new_job_how_deep_does_the_frost)}
              <div class="grid grid-cols-[minmax(0,2fr)_minmax(0,3fr)] items-start gap-3">
                <TapeEntry
                  label={msg.common_frost_depth}
                  field="site/frostDepth"
                  {units}
                  value={winter ? undefined : frost}
                  disabled={!!winter}
                  optional
                  hint={msg.new_job_the_local_building_office_knows}
                  oncommit={(mm) => (frost = mm ?? undefined)}
                />
                <Choice
                  label={msg.new_job_don_t_know_in_winter}
                  value={winter || (frost === undefined ? 'cold' : '')}
                  options={[
                    { value: 'mild', name: msg.new_job_hard_for_days },
                    { value: 'cold', name: msg.new_job_for_weeks },
                    { value: 'severe', name: msg.new_job_for_months },
                  ]}
                  onpick={(v) => (winter = v as typeof winter)}
                />
              </div>
              {#if frost === undefined || winter}<p class="mt-1 text-pencil">
                  {msg.new_job_estimated_and_marked_as_an}{#if winter}
                    <button type="button" class="underline" onclick={() => (winter = '')}
                      >{msg.new_job_enter_a_depth_instead}</button
                    >{/if}
                </p>{/if}
            </section>
            <div>
              <label class="label mb-1" for="job-name">{msg.common_name_of_the_job}</label>
              <input
                id="job-name"
                class="field"
                maxlength="120"
                placeholder={msg.new_job_the_site_or_whose_it}
                bind:value={name}
                autocomplete="off"
              />
            </div>
          </div>
        </div>
        <div class="flex flex-none flex-wrap items-center gap-2 border-t border-line bg-paper px-4 py-2">
          {#if trouble}<p class="w-full font-medium text-stop" role="alert">{trouble}</p>{/if}
          <button class="btn btn-main min-w-40 flex-1 sm:flex-none" type="submit" disabled={busy}
            >{busy ? msg.new_job_planning : msg.new_job_plan_it}</button
          >
          <label class="btn btn-plain underline focus-within:outline-3 focus-within:outline-mallow">
            {msg.new_job_open_a_job_file}
            <input type="file" accept=".json,application/json" class="sr-only" onchange={file} />
          </label>
        </div>
      </form>
      <Patterns />
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
