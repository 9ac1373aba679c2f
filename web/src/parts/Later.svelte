<script lang="ts">
  // A part of the interface that is loaded when it is first shown. Where it
  // cannot be had, because nobody answers, that is said, and it is asked for
  // again by itself until it comes.
  import type { Component } from 'svelte'
  import NotLoaded from './NotLoaded.svelte'
  import * as msg from '../gen/messages'

  interface Props {
    load: () => Promise<{ default: unknown }>
    /** What it is called, while it is on its way. */
    name?: string
    props: Record<string, unknown>
  }
  let { load, name = '', props }: Props = $props()
  const AGAIN = 2000
  let Part = $state.raw<Component<Record<string, unknown>> | null>(null)
  let failed = $state(false)

  $effect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined
    let live = true
    const ask = () => {
      clearTimeout(timer)
      load().then(
        (m) => {
          if (live) Part = m.default as typeof Part
        },
        () => {
          if (!live) return
          failed = true
          timer = setTimeout(ask, AGAIN)
        },
      )
    }
    ask()
    window.addEventListener('online', ask)
    return () => {
      live = false
      clearTimeout(timer)
      window.removeEventListener('online', ask)
    }
  })
</script>

{#if Part}<Part {...props} />
{:else if failed}<NotLoaded {name} />
{:else if name}<p class="p-2 text-pencil" aria-busy="true">{msg.later_opening({ name })}</p>{/if}
