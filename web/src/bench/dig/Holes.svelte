<script lang="ts">
  import type { View } from '../../drawing/view.svelte'
  import type { Session } from '../../lib/session.svelte'
  import Figure from '../../parts/Figure.svelte'
  import Fraction from '../../parts/Fraction.svelte'
  import PostTable from '../PostTable.svelte'
  import { ofPost } from '../../lib/figure'

  let { session, view }: { session: Session; view: View } = $props()
  const units = $derived(session.units)
</script>

<PostTable
  {session}
  {view}
  caption="Holes"
  head={['Width', 'Dig', 'Concrete bottom', 'Foot of the post', 'Gravel', 'Post from', '']}
>
  {#snippet row(p)}
    <td
      ><Figure why={ofPost(session.run, p, 'holeWidth')} of="{p.label} hole width"
        ><Fraction mm={p.holeWidth} {units} /></Figure
      ></td
    >
    <td class="text-[1.05rem] font-semibold"
      ><Figure why={ofPost(session.run, p, 'holeDepth')} of="{p.label} hole depth"
        ><Fraction mm={p.holeDepth} {units} /></Figure
      ></td
    >
    <td><Fraction mm={p.bottom} {units} /></td>
    <td><Fraction mm={p.foot} {units} /></td>
    <td><Fraction mm={p.gravel} {units} /></td>
    <td
      >{#if p.stock !== undefined}<Fraction mm={p.stock} {units} />{:else if p.stays}old post{:else}<span
          class="text-stop">none long enough</span
        >{/if}</td
    >
    <td class="text-pencil"
      >{[
        p.driven ? 'driven' : '',
        p.hand?.length ? 'by hand' : '',
        p.stopped ? `stopped by ${p.stopped.what}` : '',
        p.repoured ? 'old footing out' : '',
        p.spot && !p.stopped ? 'own rules' : '',
        p.shared ? 'dug with the run before' : '',
      ]
        .filter(Boolean)
        .join(', ')}</td
    >
  {/snippet}
</PostTable>
<p class="mt-2">
  <a
    class="underline"
    href="/api/jobs/{session.id}/export?{new URLSearchParams({ what: 'holes', run: session.run.id })}"
    download>All of it as CSV</a
  >, with every layer, bag and gust.
</p>
