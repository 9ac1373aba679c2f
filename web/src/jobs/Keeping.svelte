<script lang="ts">
  // How the jobs are kept: where they are, the backups, and what goes by age.
  import { onMount } from 'svelte'
  import type { Keeping, KeptBackup } from '../gen/api'
  import { api } from '../lib/api'
  import { bytes } from '../lib/bytes'
  import Masthead from '../parts/Masthead.svelte'

  let kept = $state.raw<Keeping | null>(null)
  let trouble = $state('')
  let done = $state('')
  let busy = $state('')
  /** The backup that is asked about before it is put back. */
  let asked = $state.raw<KeptBackup | null>(null)

  const when = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' })
  const count = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`
  function why(b: KeptBackup): string {
    if (b.why === 'daily') return 'the day’s'
    if (b.why === 'asked') return 'made by hand'
    if (b.why === 'before-restore') return 'what was there before a backup was put back'
    return 'before Mallow was brought up to date'
  }

  async function act(what: string, how: () => Promise<Keeping>, says: string) {
    busy = what
    done = ''
    try {
      kept = await how()
      trouble = ''
      done = says
    } catch (e) {
      trouble = e instanceof Error ? e.message : String(e)
    } finally {
      busy = ''
      asked = null
    }
  }
  onMount(() => {
    document.title = 'Keeping · Mallow'
    void act('', api.keeping, '')
  })
</script>

<Masthead />
<main class="mx-auto max-w-4xl p-3 pb-24 sm:p-6">
  <h1 class="text-2xl font-bold">Keeping</h1>
  {#if trouble}
    <p class="mt-4 border border-stop bg-stop-wash p-4 font-semibold text-stop" role="alert">{trouble}</p>
  {/if}
  {#if kept?.trouble}
    <p class="mt-4 border border-stop bg-stop-wash p-4 font-semibold text-stop" role="alert">
      {kept.trouble}
    </p>
  {/if}
  {#if done}<p class="mt-4 border border-good p-3 font-semibold text-good" role="status">{done}</p>{/if}
  {#if !kept && !trouble}<p class="mt-6 text-pencil" aria-busy="true">Looking …</p>{/if}
  {#if kept}
    <p class="mt-3">
      {count(kept.jobs, 'job', 'jobs')} with {count(kept.revisions, 'revision', 'revisions')} in {bytes(
        kept.bytes,
      )}, in the folder <span class="font-semibold break-all">{kept.folder}</span>.
      {#if kept.throwaway}<strong class="text-warn"
          >This is a demo: all of it is gone when Mallow stops.</strong
        >{/if}
      {#if kept.replica}A second copy, at most a second behind, is kept at <span
          class="font-semibold break-all">{kept.replica}</span
        >.{/if}
    </p>

    <section class="mt-6" aria-labelledby="backups">
      <div class="flex flex-wrap items-center justify-between gap-3">
        <h2 id="backups" class="text-lg font-bold">Backups</h2>
        <button
          class="btn btn-main"
          disabled={busy !== ''}
          onclick={() => act('backup', api.backUp, 'Backed up, and the copy was verified.')}
          >{busy === 'backup' ? 'Copying and verifying …' : 'Back up now'}</button
        >
      </div>
      <p class="mt-1 max-w-prose text-pencil">
        {#if kept.throwaway}In a demo none is made by itself; with your own jobs one is made{:else}Made{/if} every
        day, and before anything is changed that could go wrong. The last 7 days, 4 weeks and 6 months are kept,
        and the last 5 others. They lie on the same disk as the jobs: copy one to another disk now and then.
      </p>
      {#if !kept.backups.length}
        <p class="mt-3 border-t border-rule py-3">None yet.</p>
      {/if}
      <ul class="mt-3 grid">
        {#each kept.backups as b (b.name)}
          <li class="border-t border-rule py-1.5">
            <div class="flex flex-wrap items-center justify-between gap-x-4">
              <span class="min-w-0">
                <span class="font-semibold">{when.format(new Date(b.at))}</span>
                <span class="text-pencil">{why(b)} · {bytes(b.bytes)}</span>
                <span class="block text-[0.9rem] break-all text-pencil">{b.name}</span>
              </span>
              <button class="btn" disabled={busy !== ''} onclick={() => (asked = b)}
                >Put back<span class="sr-only"> the backup of {when.format(new Date(b.at))}</span></button
              >
            </div>
            {#if asked?.name === b.name}
              <div class="my-2 border border-warn bg-warn-wash p-3" role="alert">
                <p>
                  All jobs become what they were at {when.format(new Date(b.at))}. What is there now is backed
                  up first, and can be put back the same way.
                </p>
                <p class="mt-2 flex flex-wrap gap-2">
                  <button
                    class="btn btn-main"
                    disabled={busy !== ''}
                    onclick={() =>
                      act(
                        'restore',
                        () => api.putBack(b.name),
                        'The backup was put back. What was there before is the newest backup now.',
                      )}>{busy === 'restore' ? 'Putting back …' : 'Put all jobs back'}</button
                  >
                  <button class="btn" onclick={() => (asked = null)}>Leave it</button>
                </p>
              </div>
            {/if}
          </li>
        {/each}
      </ul>
    </section>

    <section class="mt-8" aria-labelledby="tidying">
      <h2 id="tidying" class="text-lg font-bold">What goes by age</h2>
      <label class="mt-1 flex min-h-11 items-center gap-3">
        <input
          type="checkbox"
          class="size-5 accent-(--mallow)"
          checked={kept.tidying.on}
          onchange={(e) => {
            const on = e.currentTarget.checked
            void act('', () => api.setTidying(on), '')
          }}
        />
        Thin old history and empty the bin
      </label>
      <p class="max-w-prose text-pencil">
        Of each job’s history all of the last 30 days stays, then the last of each day for a year, then the
        last of each month. Pinned revisions and the current one always stay. Deleted jobs stay in the bin for
        30 days. What is to go is shown here for a day first, and is in the backups after.
      </p>
      <p class="mt-2 font-semibold">
        {#if !kept.tidying.on}Nothing goes.
        {:else if kept.tidying.revisions + kept.tidying.jobs === 0}Nothing is old enough to go.
        {:else}
          {count(kept.tidying.revisions, 'old revision', 'old revisions')} and {count(
            kept.tidying.jobs,
            'job from the bin',
            'jobs from the bin',
          )} go {kept.tidying.due ? `after ${when.format(new Date(kept.tidying.due))}` : 'in a day or two'}.
        {/if}
      </p>
    </section>

    <section class="mt-8" aria-labelledby="out">
      <h2 id="out" class="text-lg font-bold">Take everything out</h2>
      <p class="mt-1 max-w-prose text-pencil">
        Every job that can be read, as job documents in one zip file. Any Mallow takes them in again.
      </p>
      <p class="mt-2"><a class="btn inline-flex" href="/api/jobs.zip" download>All jobs (ZIP)</a></p>
    </section>
  {/if}
  <p class="mt-8"><a class="btn inline-flex" href="/">All jobs</a></p>
</main>
