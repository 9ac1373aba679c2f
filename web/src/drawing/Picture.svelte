<script lang="ts">
  // A drawing that stands by itself: as wide as its place, drawn by the core.
  import type { Snippet } from 'svelte'
  import type { Drawing, View } from '../gen/api'
  import type { Session } from '../lib/session.svelte'
  import { say } from '../lib/say'
  import Scene from './Scene.svelte'
  import * as msg from '../gen/messages'

  interface Props {
    session: Session
    view: Omit<View, 'run' | 'frame'> & { run?: string }
    /** The most that it takes, pixels. */
    wide: number
    tall: number
    stretch?: number
    label: string
    /** What hands do on it. */
    hands?: Snippet<[Drawing]>
    of?: string
  }
  let { session, view, wide, tall, stretch, label, hands, of }: Props = $props()
  const id = $props.id()
  let width = $state(0)
  const asked = $derived<View | undefined>(
    width > 60
      ? {
          run: session.run.id,
          ...view,
          frame: { width: Math.min(wide, Math.floor(width)), height: tall, stretch },
        }
      : undefined,
  )
  // A session is for the component's life.
  // svelte-ignore state_referenced_locally
  const drawing = session.drawings.keep(() => asked)
  const d = $derived(drawing())
  /** What is said in it, for who hears it. */
  const said = $derived(
    (d?.labels ?? [])
      .map((l) => l.lines.map((line) => line.map((p) => say(p, session.units)).join('')).join(', '))
      .join('; '),
  )
</script>

<div bind:clientWidth={width} style:max-width="{wide}px" style:min-height="{d ? 0 : tall * 0.6}px">
  {#if d}
    <svg
      width={d.width}
      height={d.height}
      viewBox="0 0 {d.width} {d.height}"
      class="block h-auto max-w-full {hands ? 'touch-pan-y' : ''}"
      role={hands ? 'group' : 'img'}
      aria-label={label}
      aria-describedby="{id}-said"
      data-picture={of}
    >
      <desc id="{id}-said">{said}</desc>
      <Scene drawing={d} units={session.units} stress={view.stress} />
      {@render hands?.(d)}
    </svg>
    {#if d.left}
      <p class="text-pencil" data-left>
        {msg.picture_no_room_here({
          left: d.left,
          v2: d.left === 1 ? msg.common_label_has : msg.common_labels_have,
        })}
      </p>
    {/if}
  {/if}
</div>
