<script lang="ts">
  import { Dialog } from 'bits-ui'
  import { go } from '../lib/router'
  import type { Job } from '../gen/api'
  import { api } from '../lib/api'
  import Choice from '../parts/Choice.svelte'

  let { open = $bindable(false) }: { open: boolean } = $props()
  let name = $state('')
  let system = $state<'imperial' | 'metric'>(
    (localStorage.getItem('mallow.system') as 'imperial' | 'metric' | null) ?? 'imperial',
  )
  let trouble = $state('')

  async function make(doc?: Job) {
    if (!doc && !name.trim()) {
      trouble = 'Give the job a name: the site, or whose it is.'
      return
    }
    try {
      localStorage.setItem('mallow.system', system)
      const job = await api.create(doc ? { doc, what: 'Read from a file' } : { name: name.trim(), system })
      open = false
      await go(`/jobs/${job.id}`)
    } catch (e) {
      trouble = e instanceof Error ? e.message : String(e)
    }
  }

  async function file(e: Event & { currentTarget: HTMLInputElement }) {
    const f = e.currentTarget.files?.[0]
    if (!f) return
    try {
      await make(JSON.parse(await f.text()) as Job)
    } catch {
      trouble = `${f.name} is not a job document: it is not JSON.`
    }
  }
</script>

<Dialog.Root bind:open>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-40 bg-black/50" />
    <Dialog.Content
      class="fixed top-1/2 left-1/2 z-50 max-h-[92dvh] w-[min(30rem,calc(100vw-1.5rem))] -translate-x-1/2 -translate-y-1/2 overflow-auto border border-ink bg-sheet p-5 text-ink"
    >
      <Dialog.Title class="text-xl font-bold">New job</Dialog.Title>
      <form
        class="mt-4 grid gap-4"
        onsubmit={(e) => {
          e.preventDefault()
          void make()
        }}
      >
        <div>
          <label class="label mb-1" for="job-name">Name</label>
          <input id="job-name" class="field" maxlength="120" bind:value={name} autocomplete="off" />
        </div>
        <Choice
          label="Measured in"
          value={system}
          options={[
            { value: 'imperial', name: 'Feet and inches', costs: 'tape to 1/16 in' },
            { value: 'metric', name: 'Metres', costs: 'tape to 1 mm' },
          ]}
          onpick={(v) => (system = v as typeof system)}
        />
        {#if trouble}<p class="font-medium text-stop" role="alert">{trouble}</p>{/if}
        <div class="flex flex-wrap gap-2">
          <button class="btn btn-main flex-1" type="submit">Start measuring</button>
          <Dialog.Close class="btn" type="button">Not now</Dialog.Close>
        </div>
        <label
          class="btn btn-plain justify-start px-0 underline focus-within:outline-3 focus-within:outline-mallow"
        >
          or open a job document
          <input type="file" accept=".json,application/json" class="sr-only" onchange={file} />
        </label>
      </form>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
