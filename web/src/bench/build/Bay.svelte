<script lang="ts">
  // One bay, that of the picked post, with all its parts; pulled apart on demand.
  import Layers from '@lucide/svelte/icons/layers'
  import Picture from '../../drawing/Picture.svelte'
  import { BuiltRun } from '../../lib/built.svelte'
  import { ofPart } from '../../lib/figure'
  import type { Session } from '../../lib/session.svelte'
  import Figure from '../../parts/Figure.svelte'
  import Fraction from '../../parts/Fraction.svelte'
  import * as msg from '../../gen/messages'

  let { session }: { session: Session } = $props()
  // svelte-ignore state_referenced_locally
  const asked = new BuiltRun(session)
  const units = $derived(session.units)
  const run = $derived(session.run)
  let apart = $state(false)
  /** The bay that begins at the picked post, or the next one that is fenced. */
  const bay = $derived.by(() => {
    const fenced = (i: number) => run.bays[i] && !run.bays[i].gate
    for (let i = session.post; i < run.bays.length; i++) if (fenced(i)) return run.bays[i]
    for (let i = run.bays.length - 1; i >= 0; i--) if (fenced(i)) return run.bays[i]
    return undefined
  })
  const spaced = $derived((asked.built?.parts ?? []).filter((p) => p.gap !== undefined))
</script>

{#if asked.refused}<p class="text-stop">{asked.refused}</p>{/if}
{#if asked.built && !asked.built.parts.length}<p class="text-pencil">{msg.build_no_type}</p>{/if}
{#if bay}
  <div class="flex flex-wrap items-center justify-between gap-2">
    <h2 class="font-bold">{msg.build_bay_from_to({ label: bay.label, from: bay.from, to: bay.to })}</h2>
    <button class="btn" aria-pressed={apart} onclick={() => (apart = !apart)}
      ><Layers size={18} aria-hidden="true" />{apart ? msg.build_together : msg.build_apart}</button
    >
  </div>
  <div class="grid gap-4 xl:grid-cols-[minmax(0,1fr)_15rem]">
    <Picture
      {session}
      view={{ of: 'bay', bay: bay.id, apart, stress: 'build' }}
      wide={860}
      tall={apart ? 520 : 380}
      label={msg.build_picture({ label: bay.label })}
      of="bay"
    />
    <dl class="grid content-start gap-3">
      {#each spaced as p (p.part.id)}
        <div>
          <dt class="label">{msg.build_spacer({ part: p.part.name })}</dt>
          <dd class="text-[1.35rem] font-bold">
            <Figure why={ofPart(run, p.part)} of={p.part.name}
              ><Fraction mm={p.gap!} {units} />{#if p.gapTo}&nbsp;– <Fraction
                  mm={p.gapTo}
                  {units}
                />{/if}</Figure
            >
          </dd>
          {#if p.wider}<dd class="text-pencil">{msg.build_wider({ count: p.wider })}</dd>{/if}
          {#if p.ripped}<dd class="text-pencil">{msg.build_ripped({ count: p.ripped })}</dd>{/if}
          {#if !p.fits}<dd class="font-semibold text-warn">{msg.build_does_not_fit}</dd>{/if}
        </div>
      {/each}
    </dl>
  </div>
{/if}
