<script lang="ts">
  // Strings: how posts are brought into line and to height, and how corners
  // are squared.
  import Printer from '@lucide/svelte/icons/printer'
  import type { View } from '../../drawing/view.svelte'
  import type { Session } from '../../lib/session.svelte'
  import Fraction from '../../parts/Fraction.svelte'
  import PostTable from '../PostTable.svelte'
  import RunStrings from './RunStrings.svelte'
  import Squaring from './Squaring.svelte'
  import * as msg from '../../gen/messages'

  let { session, view }: { session: Session; view: View } = $props()
  const units = $derived(session.units)
  const sheet = $derived(
    new URLSearchParams({
      sheet: 'strings',
      run: session.run.id,
      stage: session.nav.stage,
      paper: units.system === 'metric' ? 'a4' : 'letter',
    }).toString(),
  )
  const string = $derived(session.run.string)
  const hung = (id: string) => string?.posts.find((p) => p.post === id)
</script>

<div class="p-3 sm:p-4 lg:py-3">
  <div class="grid gap-x-8 gap-y-6 xl:grid-cols-[minmax(0,1fr)_27rem]">
    <RunStrings {session} />
    <div class="grid min-w-0 grid-cols-1 content-start gap-5">
      <Squaring {session} />
      <a class="btn" href="/jobs/{session.id}/sheets?{sheet}"
        ><Printer size={18} aria-hidden="true" />{msg.string_bench_strings_sheet}</a
      >
    </div>
  </div>

  {#if string}
    <PostTable
      {session}
      {view}
      caption={string.sight ? msg.string_bench_posts_in_line_by_eye : msg.string_bench_at_each_post}
      head={string.sight
        ? [
            msg.string_bench_set,
            msg.string_bench_sight_mark_above_ground,
            msg.string_bench_over_the_line_of_sight,
          ]
        : [
            msg.common_low_string_above_ground,
            msg.string_bench_blown_aside,
            msg.string_bench_height_string_above_ground,
            msg.string_bench_it_hangs_low_by,
            msg.common_mark_over_the_string,
          ]}
    >
      {#snippet row(p)}
        {@const h = hung(p.label)}
        {#if h && string.sight}
          <td>{string.order.indexOf(p.label) + 1}</td>
          <td class="text-[1.05rem] font-semibold"><Fraction mm={p.reveal - string.mark} {units} /></td>
          <td><Fraction mm={h.mark} {units} /></td>
        {:else if h}
          <td><Fraction mm={h.low} {units} /></td>
          <td><Fraction mm={h.drift} {units} /></td>
          <td><Fraction mm={h.high} {units} /></td>
          <td class={h.sag > string.sagAllowed ? 'font-semibold text-warn' : ''}
            ><Fraction mm={h.sag} {units} /></td
          >
          <td class="text-[1.05rem] font-semibold"><Fraction mm={h.mark} {units} /></td>
        {/if}
      {/snippet}
    </PostTable>
  {/if}
</div>
