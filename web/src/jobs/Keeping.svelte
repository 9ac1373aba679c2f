<script lang="ts">
  // How the jobs are kept: where they are, the backups, and what goes by age.
  import { onMount } from 'svelte'
  import type { Keeping, KeptBackup } from '../gen/api'
  import { api } from '../lib/api'
  import { bytes } from '../lib/bytes'
  import Masthead from '../parts/Masthead.svelte'
  import * as msg from '../gen/messages'

  let kept = $state.raw<Keeping | null>(null)
  let trouble = $state('')
  let done = $state('')
  let busy = $state('')
  /** The backup that is asked about before it is put back. */
  let asked = $state.raw<KeptBackup | null>(null)

  const when = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' })
  const count = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`
  function why(b: KeptBackup): string {
    if (b.why === 'daily') return msg.keeping_the_days
    if (b.why === 'asked') return msg.keeping_made_by_hand
    if (b.why === 'before-restore') return msg.keeping_what_was_there_before_a
    return msg.keeping_before_mallow_was_brought_up
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
    document.title = msg.keeping_keeping_mallow
    void act('', api.keeping, '')
    // How the second copy is changes by itself.
    const timer = setInterval(() => void glance(), 5000)
    return () => clearInterval(timer)
  })
  async function glance() {
    if (busy || !kept?.replica || document.visibilityState !== 'visible') return
    const now = await api.keeping().catch(() => null)
    if (now && !busy) kept = now
  }
</script>

<Masthead />
<main class="mx-auto max-w-4xl p-3 pb-24 sm:p-6">
  <h1 class="text-2xl font-bold">{msg.common_keeping}</h1>
  {#if trouble}
    <p class="mt-4 border border-stop bg-stop-wash p-4 font-semibold text-stop" role="alert">{trouble}</p>
  {/if}
  {#if kept?.trouble}
    <p class="mt-4 border border-stop bg-stop-wash p-4 font-semibold text-stop" role="alert">
      {kept.trouble}
    </p>
  {/if}
  {#if done}<p class="mt-4 border border-good p-3 font-semibold text-good" role="status">{done}</p>{/if}
  {#if !kept && !trouble}<p class="mt-6 text-pencil" aria-busy="true">{msg.keeping_looking}</p>{/if}
  {#if kept}
    <p class="mt-3">
      {msg.keeping_with_in_in_the_folder({
        count: count(kept.jobs, 'job', 'jobs'),
        count2: count(kept.revisions, 'revision', 'revisions'),
        bytes: bytes(kept.bytes),
      })} <span class="font-semibold break-all">{kept.folder}</span>.
      {#if kept.throwaway}<strong class="text-warn">{msg.keeping_this_is_a_demo_all}</strong>{/if}
      {#if kept.replica}{msg.keeping_a_second_copy_at_most}
        <span class="font-semibold break-all">{kept.replica.at}</span>.{/if}
    </p>

    {#if kept.replica?.wrong}
      <p class="mt-3 border border-stop bg-stop-wash p-4 text-stop" role="alert" data-testid="replica">
        <strong>{msg.keeping_replica_takes_nothing({ at: kept.replica.at })}</strong>
        {msg.keeping_replica_wrong({ wrong: kept.replica.wrong })}
        {#if kept.replica.held}{msg.keeping_replica_held({
            v1: when.format(new Date(kept.replica.held)),
          })}{/if}
      </p>
    {/if}

    <section class="mt-6" aria-labelledby="backups">
      <div class="flex flex-wrap items-center justify-between gap-3">
        <h2 id="backups" class="text-lg font-bold">{msg.keeping_backups}</h2>
        <button
          class="btn btn-main"
          disabled={busy !== ''}
          onclick={() => act('backup', api.backUp, msg.keeping_backed_up_and_the_copy)}
          >{busy === 'backup' ? msg.keeping_copying_and_verifying : msg.keeping_back_up_now}</button
        >
      </div>
      <p class="mt-1 max-w-prose text-pencil">
        {#if kept.throwaway}{msg.keeping_in_a_demo_none_is}{:else}{msg.keeping_made}{/if}
        {msg.keeping_every_day_and_before_anything}
      </p>
      {#if kept.trial?.failed}
        <p class="mt-2 border border-stop bg-stop-wash p-3 text-stop" role="alert">
          {msg.keeping_trial_failed({ name: kept.trial.name, why: kept.trial.failed })}
          {#if kept.trial.held}{msg.keeping_trial_held({ v1: when.format(new Date(kept.trial.held)) })}{/if}
        </p>
      {:else if kept.trial}
        <p class="mt-1 text-pencil">
          {msg.keeping_trial_well({
            v1: when.format(new Date(kept.trial.at)),
            count: count(kept.trial.jobs, 'job', 'jobs'),
          })}
        </p>
      {/if}
      {#if !kept.backups.length}
        <p class="mt-3 border-t border-rule py-3">{msg.keeping_none_yet}</p>
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
                >{msg.common_put_back}<span class="sr-only">
                  {msg.keeping_the_backup_of({ v1: when.format(new Date(b.at)) })}</span
                ></button
              >
            </div>
            {#if asked?.name === b.name}
              <div class="my-2 border border-warn bg-warn-wash p-3" role="alert">
                <p>
                  {msg.keeping_all_jobs_become_what_they({ v1: when.format(new Date(b.at)) })}
                </p>
                <p class="mt-2 flex flex-wrap gap-2">
                  <button
                    class="btn btn-main"
                    disabled={busy !== ''}
                    onclick={() =>
                      act('restore', () => api.putBack(b.name), msg.keeping_the_backup_was_put_back)}
                    >{busy === 'restore' ? msg.keeping_putting_back : msg.keeping_put_all_jobs_back}</button
                  >
                  <button class="btn" onclick={() => (asked = null)}>{msg.common_leave_it}</button>
                </p>
              </div>
            {/if}
          </li>
        {/each}
      </ul>
    </section>

    <section class="mt-8" aria-labelledby="tidying">
      <h2 id="tidying" class="text-lg font-bold">{msg.keeping_what_goes_by_age}</h2>
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
        {msg.keeping_thin_old_history_and_empty}
      </label>
      <p class="max-w-prose text-pencil">
        {msg.keeping_of_each_jobs_history_all}
      </p>
      <p class="mt-2 font-semibold">
        {#if !kept.tidying.on}{msg.keeping_nothing_goes}
        {:else if kept.tidying.revisions + kept.tidying.jobs === 0}{msg.keeping_nothing_is_old_enough_to}
        {:else}
          {msg.keeping_and_go({
            count: count(kept.tidying.revisions, 'old revision', 'old revisions'),
            count2: count(kept.tidying.jobs, 'job from the bin', 'jobs from the bin'),
            v3: kept.tidying.due
              ? msg.keeping_after({ v1: when.format(new Date(kept.tidying.due)) })
              : msg.keeping_in_a_day_or_two,
          })}
        {/if}
      </p>
    </section>

    <section class="mt-8" aria-labelledby="out">
      <h2 id="out" class="text-lg font-bold">{msg.keeping_take_everything_out}</h2>
      <p class="mt-1 max-w-prose text-pencil">
        {msg.keeping_every_job_that_can_be}
      </p>
      <p class="mt-2">
        <a class="btn inline-flex" href="/api/jobs.zip" download>{msg.keeping_all_jobs_zip}</a>
      </p>
    </section>
  {/if}
  <p class="mt-8"><a class="btn inline-flex" href="/">{msg.common_all_jobs}</a></p>
</main>
