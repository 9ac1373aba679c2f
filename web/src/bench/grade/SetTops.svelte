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
  import * as msg from '../../gen/messages'

  let { session, view }: { session: Session; view: View } = $props()
  const units = $derived(session.units)
  const t = $derived(session.run.topLine)
  const schools = $derived(session.catalogue.choices['grade/by']!)
  const heads: Record<string, string> = {
    string: msg.set_tops_from_the_hung_string,
    laser: msg.set_tops_from_the_laser_mark_to,
    drops: msg.set_tops_down_from_the_level_string,
    sight: msg.set_tops_from_the_line_of_sight,
  }
  const value = (i: number) => {
    const p = t!.posts[i]!
    return { string: p.string, laser: p.laser, drops: p.drop, sight: p.sight }[t!.by]
  }
  const tied = $derived(new Set(t?.pieces.flatMap((p) => [p.from, p.to]) ?? []))
</script>

{#if !t}
  <p class="text-pencil">{msg.common_first_how_long_is_the}</p>
{:else}
  <div class="grid max-w-6xl gap-x-8 gap-y-4 lg:grid-cols-2">
    <Choice
      label={msg.set_tops_tops_are_set_by}
      value={t.by}
      options={schools}
      onpick={(v) =>
        session.commit(
          [{ path: session.at('/grade/by'), value: v }],
          schools.find((s) => s.value === v)!.name,
        )}
    />
    <section>
      <h2 class="font-bold">
        <Figure why={ofTops(session.run)} of={msg.set_tops_how_the_tops_are_set}
          >{msg.set_tops_on_site}</Figure
        >
      </h2>
      <ol class="mt-1 grid list-decimal gap-1.5 pl-6" data-testid="top-steps">
        {#each t.steps as s, i (i)}<li><Words says={s} {units} /></li>{/each}
      </ol>
    </section>
  </div>
  {#if t.by === 'string' || t.by === 'sight'}
    <div {@attach scrolls} class="relative mt-4 overflow-x-auto border border-line bg-sheet">
      <table class="sheet-table w-full">
        <caption class="px-2 pt-2 text-left font-bold"
          >{msg.set_tops_between_posts_that_are_set({
            v1: t.by === 'string' ? msg.set_tops_strings_to_pull : msg.set_tops_lines_of_sight,
          })}</caption
        >
        <thead
          ><tr
            ><th scope="col">{msg.common_from}</th><th scope="col">{msg.common_to}</th><th scope="col"
              >{msg.set_tops_length}</th
            ><th scope="col">{msg.common_rise}</th>{#if t.by === 'string'}<th scope="col"
                >{msg.set_tops_sag_no_props}</th
              ><th scope="col">{msg.set_tops_props_head_above_ground}</th>{/if}</tr
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
                  >{#if p.sag < units.smallestMark / 2}{msg.set_tops_less_than_a_mark}{:else}<Fraction
                      mm={p.sag}
                      {units}
                    />{/if}</td
                >
                <td
                  >{#each p.props as k, i (i)}{i ? '; ' : ''}<strong
                      ><Fraction mm={k.height} {units} /></strong
                    >
                    {msg.common_at_2}
                    <Fraction mm={k.at} {units} long />{:else}{msg.common_none}{/each}</td
                >
              {/if}
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
  {/if}
  <PostTable
    {session}
    {view}
    caption={msg.set_tops_every_top}
    head={[heads[t.by]!, msg.set_tops_top_above_ground, msg.set_tops_reference_mark]}
  >
    {#snippet row(p)}
      {@const i = session.run.posts.indexOf(p)}
      <td class="text-[1.1rem] font-semibold">
        {#if (t.by === 'string' || t.by === 'sight') && tied.has(p.label)}
          {msg.set_tops_set_first}
        {:else if Math.abs(value(i)) < units.smallestMark / 2}
          {t.by === 'sight'
            ? msg.set_tops_on_the_line
            : t.by === 'drops'
              ? msg.set_tops_at_the_string
              : msg.set_tops_at_it}
        {:else if t.by === 'drops'}
          <Fraction mm={value(i)} {units} />
        {:else if t.by === 'sight'}
          {value(i) < 0 ? msg.set_tops_drop_it : msg.set_tops_lift_it}
          <Fraction mm={Math.abs(value(i))} {units} />
        {:else}
          {value(i) < 0 ? 'down' : 'up'} <Fraction mm={Math.abs(value(i))} {units} />
        {/if}
      </td>
      <td
        ><Figure why={ofPost(session.run, p, 'top')} of={msg.set_tops_top_above_ground_2({ label: p.label })}
          ><Fraction mm={p.reveal} {units} /></Figure
        ></td
      >
      <td><Fraction mm={p.mark} {units} /></td>
    {/snippet}
  </PostTable>
{/if}
