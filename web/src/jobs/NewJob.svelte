<script lang="ts">
  // A new job: what a customer says on the phone. Any answer may be left out,
  // and the whole plan stands.
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

  let { onclose }: { onclose: () => void } = $props()
  let open = $state(true)
  let name = $state('')
  let system = $state<Units['system']>(
    (localStorage.getItem('mallow.system') as Units['system'] | null) ?? 'imperial',
  )
  const units = $derived<Units>({ system, smallestMark: system === 'metric' ? 1 : 25.4 / 16 })
  let fences = $state.raw<FenceType[]>([])
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
      ({ fences: all }) => {
        if (of !== system) return
        // The type that was picked is there in the other units too.
        const had = fences.find((f) => f.id === fence)
        fences = all
        fence = all.find((f) => f.name === had?.name)?.id ?? ''
      },
      (e: unknown) => (trouble = e instanceof Error ? e.message : String(e)),
    )
  })
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
        ? fields.map((f) => `${f.field.slice(1)}: ${f.given} does not go here; ${f.allowed}`).join('. ') + '.'
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
      what: 'New job',
    })

  async function file(e: Event & { currentTarget: HTMLInputElement }) {
    const f = e.currentTarget.files?.[0]
    if (!f) return
    let doc: Job
    try {
      doc = JSON.parse(await f.text()) as Job
    } catch {
      trouble = `${f.name} is not a job document: it is not JSON. Pick the file that Mallow saved.`
      return
    }
    await made({ doc, what: 'Read from a file' })
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
        <Dialog.Title class="flex-1 text-[1.15rem] font-bold">New job</Dialog.Title>
        <Dialog.Description class="sr-only">Six questions; any may be left out.</Dialog.Description>
        <div class="flex" role="radiogroup" aria-label="Measured in">
          {#each [['imperial', 'Feet'], ['metric', 'Meters']] as const as [id, label] (id)}
            <button
              class="btn -ml-px {system === id ? 'border-ink bg-ink text-paper' : ''}"
              role="radio"
              aria-checked={system === id}
              onclick={() => (system = id)}>{label}</button
            >
          {/each}
        </div>
        <Dialog.Close class="btn btn-plain btn-icon" aria-label="Close"><X size={20} /></Dialog.Close>
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
          <section aria-label="Which fence">
            {@render title(1, 'Which fence?')}
            <div class="grid grid-cols-2 gap-1.5 sm:grid-cols-3" role="radiogroup" aria-label="Which fence">
              {#each fences as f (f.id)}
                <button
                  type="button"
                  role="radio"
                  aria-checked={f.id === fence}
                  title={f.says}
                  class="relative flex flex-col border bg-sheet p-1 text-left {f.id === fence
                    ? 'border-mallow shadow-[inset_0_0_0_2px_var(--mallow)]'
                    : 'border-line hover:border-ink'}"
                  onclick={() => (fence = f.id === fence ? '' : f.id)}
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
                <p class="col-span-full text-pencil" aria-busy="true">Drawing the fences …</p>
              {/each}
              <button
                type="button"
                role="radio"
                aria-checked={!fence}
                class="min-h-11 border p-1.5 text-left text-[0.88rem] font-semibold {fence
                  ? 'border-line bg-sheet'
                  : 'border-mallow bg-mallow-wash'}"
                onclick={() => (fence = '')}>None of these: set it up later</button
              >
            </div>
          </section>
          <div class="grid content-start gap-4">
            <div class="grid grid-cols-2 gap-3">
              <section>
                {@render title(2, 'How high?')}
                <TapeEntry
                  label="Height above ground"
                  field="fence/height"
                  {units}
                  value={height}
                  optional
                  oncommit={(mm) => (height = mm ?? undefined)}
                />
                <p class="mt-0.5 min-h-6 text-pencil">
                  {#if picked && height === undefined}Blank: <Fraction mm={picked.height} {units} />{/if}
                </p>
              </section>
              <section>
                {@render title(3, 'How long?')}
                <TapeEntry
                  label="End post to end post"
                  field="length"
                  long
                  {units}
                  value={length}
                  optional
                  oncommit={(mm) => (length = mm ?? undefined)}
                />
                <p class="mt-0.5 min-h-6 text-pencil">
                  {#if length === undefined}Blank: {system === 'metric' ? '20 m' : '60 ft'} assumed{/if}
                </p>
              </section>
            </div>
            {#if !bare}
              <section>
                {@render title(4, 'A gate?')}
                <Choice
                  label="In the middle; drag it later"
                  value={gate || 'none'}
                  options={[
                    { value: 'none', name: 'No gate' },
                    { value: 'walk', name: 'Walk gate' },
                    { value: 'drive', name: 'Drive gate' },
                  ]}
                  onpick={(v) => (gate = v === 'none' ? '' : (v as typeof gate))}
                />
              </section>
            {/if}
            <section>
              {@render title(5, 'Flat, or does it fall?')}
              <Choice
                label="From the first post to the last"
                value={slope}
                options={[
                  { value: 'flat', name: 'About flat' },
                  { value: 'falls', name: 'It falls' },
                ]}
                onpick={(v) => (slope = v as typeof slope)}
              />
              {#if slope === 'falls'}
                <div class="mt-2 w-1/2 pr-1.5">
                  <TapeEntry
                    label="Lower at the far end by"
                    field="ground/height"
                    {units}
                    value={fall}
                    optional
                    hint="Minus where it rises."
                    oncommit={(mm) => (fall = mm ?? undefined)}
                  />
                </div>
              {/if}
            </section>
            <section>
              {@render title(6, 'How deep does the frost go?')}
              <div class="grid grid-cols-[minmax(0,2fr)_minmax(0,3fr)] items-start gap-3">
                <TapeEntry
                  label="Frost depth"
                  field="site/frostDepth"
                  {units}
                  value={winter ? undefined : frost}
                  disabled={!!winter}
                  optional
                  hint="The local building office knows. 0: none."
                  oncommit={(mm) => (frost = mm ?? undefined)}
                />
                <Choice
                  label="Don't know: in winter the ground is"
                  value={winter || (frost === undefined ? 'cold' : '')}
                  options={[
                    { value: 'mild', name: 'hard for days' },
                    { value: 'cold', name: 'for weeks' },
                    { value: 'severe', name: 'for months' },
                  ]}
                  onpick={(v) => (winter = v as typeof winter)}
                />
              </div>
              {#if frost === undefined || winter}<p class="mt-1 text-pencil">
                  Estimated, and marked as an estimate until you enter the office's figure.{#if winter}
                    <button type="button" class="underline" onclick={() => (winter = '')}
                      >Enter a depth instead</button
                    >{/if}
                </p>{/if}
            </section>
            <div>
              <label class="label mb-1" for="job-name">Name of the job</label>
              <input
                id="job-name"
                class="field"
                maxlength="120"
                placeholder="the site, or whose it is"
                bind:value={name}
                autocomplete="off"
              />
            </div>
          </div>
        </div>
        <div class="flex flex-none flex-wrap items-center gap-2 border-t border-line bg-paper px-4 py-2">
          {#if trouble}<p class="w-full font-medium text-stop" role="alert">{trouble}</p>{/if}
          <button class="btn btn-main min-w-40 flex-1 sm:flex-none" type="submit" disabled={busy}
            >{busy ? 'Planning …' : 'Plan it'}</button
          >
          <label class="btn btn-plain underline focus-within:outline-3 focus-within:outline-mallow">
            Open a job file
            <input type="file" accept=".json,application/json" class="sr-only" onchange={file} />
          </label>
        </div>
      </form>
      <Patterns />
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
