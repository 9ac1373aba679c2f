<script lang="ts">
  // How the tops are brought to height on site, by the school that is chosen.
  import type { View } from '../../drawing/view.svelte'
  import type { Session } from '../../lib/session.svelte'
  import Choice from '../../parts/Choice.svelte'
  import Figure from '../../parts/Figure.svelte'
  import Fraction from '../../parts/Fraction.svelte'
  import Words from '../../parts/Words.svelte'
  import PostTable from '../PostTable.svelte'
  import { ofPost, ofTops } from '../../lib/figure'
  import { scrolls } from '../../lib/scrolls'

  let { session, view }: { session: Session; view: View } = $props()
  const units = $derived(session.units)
  const t = $derived(session.run.topLine)
  const schools = $derived(session.catalogue.choices['grade/by']!)
  const heads: Record<string, string> = {
    string: 'From the hung string',
    laser: 'From the laser mark to the cut',
    drops: 'Down from the level string',
    sight: 'From the line of sight',
  }
  const value = (i: number) => {
    const p = t!.posts[i]!
    return { string: p.string, laser: p.laser, drops: p.drop, sight: p.sight }[t!.by]
  }
  const tied = $derived(new Set(t?.pieces.flatMap((p) => [p.from, p.to]) ?? []))
</script>

{#if !t}
  <p class="text-pencil">First, how long is the run?</p>
{:else}
  <div class="grid max-w-6xl gap-x-8 gap-y-4 lg:grid-cols-2">
    <Choice
      label="Tops are set by"
      value={t.by}
      options={schools}
      onpick={(v) =>
        session.commit(
          [{ path: session.at('/grade/by'), value: v }],
          schools.find((s) => s.value === v)!.name,
        )}
    />
    <section>
      <h2 class="font-bold"><Figure why={ofTops(session.run)} of="how the tops are set">On site</Figure></h2>
      <ol class="mt-1 grid list-decimal gap-1.5 pl-6" data-testid="top-steps">
        {#each t.steps as s, i (i)}<li><Words says={s} {units} /></li>{/each}
      </ol>
    </section>
  </div>
  {#if t.by === 'string' || t.by === 'sight'}
    <div {@attach scrolls} class="relative mt-4 overflow-x-auto border border-line bg-sheet">
      <table class="sheet-table w-full">
        <caption class="px-2 pt-2 text-left font-bold"
          >{t.by === 'string' ? 'Strings to pull' : 'Lines of sight'}, between posts that are set first</caption
        >
        <thead
          ><tr
            ><th scope="col">From</th><th scope="col">To</th><th scope="col">Length</th><th scope="col"
              >Rise</th
            >{#if t.by === 'string'}<th scope="col">Sag, no props</th><th scope="col"
                >Props, head above ground</th
              >{/if}</tr
          ></thead
        >
        <tbody>
          {#each t.pieces as p (p.from)}
            <tr>
              <td class="font-bold">{p.from}</td><td class="font-bold">{p.to}</td>
              <td><Fraction mm={p.length} {units} long /></td>
              <td><Fraction mm={p.rise} {units} /></td>
              {#if t.by === 'string'}
                <td
                  >{#if p.sag < units.smallestMark / 2}less than a mark{:else}<Fraction
                      mm={p.sag}
                      {units}
                    />{/if}</td
                >
                <td
                  >{#each p.props as k, i (i)}{i ? '; ' : ''}<strong
                      ><Fraction mm={k.height} {units} /></strong
                    >
                    at <Fraction mm={k.at} {units} long />{:else}none{/each}</td
                >
              {/if}
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
  {/if}
  <PostTable {session} {view} caption="Every top" head={[heads[t.by]!, 'Top above ground', 'Reference mark']}>
    {#snippet row(p)}
      {@const i = session.run.posts.indexOf(p)}
      <td class="text-[1.1rem] font-semibold">
        {#if (t.by === 'string' || t.by === 'sight') && tied.has(p.label)}
          set first
        {:else if Math.abs(value(i)) < units.smallestMark / 2}
          {t.by === 'sight' ? 'on the line' : t.by === 'drops' ? 'at the string' : 'at it'}
        {:else if t.by === 'drops'}
          <Fraction mm={value(i)} {units} />
        {:else if t.by === 'sight'}
          {value(i) < 0 ? 'drop it' : 'lift it'} <Fraction mm={Math.abs(value(i))} {units} />
        {:else}
          {value(i) < 0 ? 'down' : 'up'} <Fraction mm={Math.abs(value(i))} {units} />
        {/if}
      </td>
      <td
        ><Figure why={ofPost(session.run, p, 'top')} of="{p.label} top above ground"
          ><Fraction mm={p.reveal} {units} /></Figure
        ></td
      >
      <td><Fraction mm={p.mark} {units} /></td>
    {/snippet}
  </PostTable>
{/if}
