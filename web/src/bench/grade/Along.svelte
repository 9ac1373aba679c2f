<script lang="ts">
  // The fence as an eye sees it that looks along it from one end, tops and
  // faces in true perspective: a flow that looks wrong is seen wrong here.
  import type { Session } from '../../lib/session.svelte'
  import Picture from '../../drawing/Picture.svelte'
  import Choice from '../../parts/Choice.svelte'
  import LengthField from '../LengthField.svelte'

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
  <p class="text-pencil">First, how long is the run?</p>
{:else}
  <div class="grid max-w-6xl gap-x-6 gap-y-3 lg:grid-cols-[1fr_15rem]">
    <div class="border border-line bg-sheet" data-testid="along">
      <Picture
        {session}
        view={{ of: 'along', fromEnd: end === 'last', closer, aside: aside * 10, back: back.mm }}
        wide={1100}
        tall={350}
        label="{run.name || run.id} seen along the line from its {end} post"
        of="along"
      />
    </div>
    <div class="grid min-w-0 grid-cols-1 content-start gap-3">
      <Choice
        label="Stand at the"
        value={end}
        options={[
          { value: 'first', name: 'first post' },
          { value: 'last', name: 'last post' },
        ]}
        onpick={(v) => (end = v as typeof end)}
      />
      <label class="label"
        >Look closer
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
        >Step aside from the line
        <input
          type="range"
          min="15"
          max="400"
          step="5"
          class="h-11 w-full accent-(--mallow)"
          bind:value={aside}
        />
      </label>
      <LengthField {session} path={session.at('/grade/eyeHeight')} label="Height of the eyes" optional />
      <p class="text-[0.92rem] text-pencil">
        Nothing is stretched. Close to the line, a bump that a tape steps over shows at once. The eye stands {back.words}
        back from the end post; rings are grade posts.
      </p>
    </div>
  </div>
{/if}
