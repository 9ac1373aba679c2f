<script lang="ts">
  // The fence as an eye sees it that looks along it from one end, tops and
  // faces in true perspective: a flow that looks wrong is seen wrong here.
  import type { Session } from '../../lib/session.svelte'
  import Picture from '../../drawing/Picture.svelte'
  import Choice from '../../parts/Choice.svelte'
  import LengthField from '../LengthField.svelte'
  import * as msg from '../../gen/messages'

  let { session }: { session: Session } = $props()
  const run = $derived(session.run)
  let end = $state<'first' | 'last'>('first')
  let closer = $state(1)
  let aside = $state(200)
  /** Steps back from the end post: a round figure in either system. */
  const back = $derived(
    session.units.system === 'metric' ? { mm: 3000, words: '3 m' } : { mm: 3048, words: '10 ft' },
  )
</script>

{#if !run.posts.length}
  <p class="text-pencil">{msg.common_first_how_long_is_the}</p>
{:else}
  <div class="grid max-w-6xl gap-x-6 gap-y-3 lg:grid-cols-[1fr_15rem]">
    <div class="border border-line bg-sheet" data-testid="along">
      <Picture
        {session}
        view={{ of: 'along', fromEnd: end === 'last', closer, aside: aside * 10, back: back.mm }}
        wide={1100}
        tall={350}
        label={msg.along_seen_along_the_line_from({ v1: run.name || run.id, end })}
        of="along"
      />
    </div>
    <div class="grid min-w-0 grid-cols-1 content-start gap-3">
      <Choice
        label={msg.along_stand_at_the}
        value={end}
        options={[
          { value: 'first', name: msg.along_first_post },
          { value: 'last', name: msg.along_last_post },
        ]}
        onpick={(v) => (end = v as typeof end)}
      />
      <label class="label"
        >{msg.along_look_closer}
        <input
          type="range"
          min="1"
          max="12"
          step="0.5"
          class="h-11 w-full accent-(--mallow)"
          bind:value={closer}
        />
      </label>
      <label class="label"
        >{msg.along_step_aside_from_the_line}
        <input
          type="range"
          min="15"
          max="400"
          step="5"
          class="h-11 w-full accent-(--mallow)"
          bind:value={aside}
        />
      </label>
      <LengthField
        {session}
        path={session.at('/grade/eyeHeight')}
        label={msg.along_height_of_the_eyes}
        optional
      />
      <p class="text-[0.92rem] text-pencil">
        {msg.along_nothing_is_stretched_close_to({ words: back.words })}
      </p>
    </div>
  </div>
{/if}
