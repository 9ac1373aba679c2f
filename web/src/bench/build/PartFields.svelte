<script lang="ts">
  // What a run may have otherwise than its fence type in one part. Whatever is
  // changed, the run keeps the whole part as its own.
  import type { FencePart } from '../../gen/api'
  import type { Session } from '../../lib/session.svelte'
  import Choice from '../../parts/Choice.svelte'
  import NumberEntry from '../../parts/NumberEntry.svelte'
  import TapeEntry from '../../parts/TapeEntry.svelte'
  import * as msg from '../../gen/messages'

  let { session, part, path }: { session: Session; part: FencePart; path: string } = $props()
  const units = $derived(session.units)
  const set = (change: Partial<FencePart>) =>
    session.commit([{ path, value: { ...part, ...change } }], msg.build_is_changed({ part: part.name }))
  const gap = $derived(part.gap ?? { want: 0, least: 0, most: 0 })
  const side = $derived(part.by === 'along' || part.by === 'rows')
  const lengths = $derived(
    [
      { name: msg.build_width, field: 'width', value: part.width },
      { name: msg.build_thick, field: 'thick', value: part.thick },
      { name: msg.build_spacing, field: 'spacing', value: part.spacing },
      { name: msg.build_more_than, field: 'more', value: part.more },
    ].filter((f) => f.value !== undefined),
  )
</script>

<div class="mt-2 grid max-w-3xl grid-cols-2 items-start gap-3 sm:grid-cols-4">
  {#each lengths as f (f.field)}
    <TapeEntry
      label={f.name}
      {units}
      value={f.value}
      error={session.wrongAt(`${path}/${f.field}`)}
      oncommit={(mm) => mm !== null && set({ [f.field]: mm })}
    />
  {/each}
  {#if side}
    {#each [{ name: msg.build_gap_want, key: 'want' as const }, { name: msg.build_gap_least, key: 'least' as const }, { name: msg.build_gap_most, key: 'most' as const }] as g (g.key)}
      <TapeEntry
        label={g.name}
        {units}
        value={gap[g.key]}
        error={session.wrongAt(`${path}/gap/${g.key}`)}
        oncommit={(mm) => mm !== null && set({ gap: { ...gap, [g.key]: mm } })}
      />
    {/each}
  {:else if part.by !== 'rails' || part.each}
    <NumberEntry label={msg.build_each} value={part.each ?? 1} oncommit={(n) => set({ each: n })} />
  {/if}
  {#if part.box}<NumberEntry label={msg.build_box} value={part.box} oncommit={(n) => set({ box: n })} />{/if}
</div>
{#if part.by === 'along' && part.kind === 'board'}
  <div class="mt-2 max-w-xl">
    <Choice
      label={msg.build_tops}
      value={part.top ?? 'flat'}
      options={[
        { value: 'flat', name: msg.build_flat },
        { value: 'dog ear', name: msg.build_dog_ear },
        { value: 'sloped', name: msg.build_sloped },
      ]}
      onpick={(v) => set({ top: v === 'flat' ? undefined : (v as FencePart['top']) })}
    />
  </div>
{/if}
{#if side && !part.ends}
  <div class="mt-2 max-w-md">
    <Choice
      label={msg.build_rip}
      value={part.rip ? 'rip' : 'share'}
      options={[
        { value: 'share', name: msg.build_share_gaps },
        { value: 'rip', name: msg.build_rip_last },
      ]}
      onpick={(v) => set({ rip: v === 'rip' || undefined })}
    />
  </div>
{/if}
