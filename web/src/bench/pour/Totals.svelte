<script lang="ts">
  // The bill of every run, and of the whole job: exact sums, rounded up once.
  import type { Buy, Item } from '../../gen/api'
  import { groups, whyOf, type Group } from '../../lib/bill'
  import { ofTotals } from '../../lib/figure'
  import type { Session } from '../../lib/session.svelte'
  import Figure from '../../parts/Figure.svelte'
  import Words from '../../parts/Words.svelte'
  import { scrolls } from '../../lib/scrolls'
  import * as msg from '../../gen/messages'

  let { session }: { session: Session } = $props()
  const units = $derived(session.units)
  const bill = $derived(session.bill)
  const many = $derived(bill.runs.length > 1)
  const columns = $derived([
    ...(many ? [{ id: 'job', name: msg.common_whole_job, items: bill.items }] : []),
    ...bill.runs.filter((r) => r.items.length).map((r) => ({ id: r.run, name: r.name, items: r.items })),
  ])
  /** What a run buys of an item in one way; nothing where it takes none. */
  const bought = (items: Item[], of: Item, by: Buy) =>
    items.find((i) => i.id === of.id)?.bought.find((b) => b.by === by.by)
  /** How many pieces a group comes to, where it is all pieces of one kind. */
  function sum(items: Item[], group: Group) {
    const kind = group.lines[0]!.item.kind
    if (group.lines.length < 2 || group.lines.some((l) => l.item.unit !== 'pieces' || l.item.kind !== kind))
      return ''
    return items.filter((i) => i.kind === kind).reduce((n, i) => n + i.exact, 0)
  }
  const saved = $derived.by(() => {
    const bags = (items: Item[]) =>
      items
        .filter((i) => i.kind === 'concrete')
        .flatMap((i) => i.bought.filter((b) => b.by === 'bags'))
        .reduce((n, b) => n + b.count, 0)
    return many ? bill.runs.reduce((n, r) => n + bags(r.items), 0) - bags(bill.items) : 0
  })
</script>

<div {@attach scrolls} class="relative overflow-x-auto border border-line bg-sheet" data-testid="totals">
  <table class="sheet-table w-full">
    <caption class="px-2 pt-2 text-left font-bold"
      >{msg.totals_what_each_run_takes}{#if many}{msg.totals_and_the_whole_job}{/if}</caption
    >
    <thead>
      <tr>
        <th scope="col" colspan="2"></th>
        {#each columns as c (c.id)}<th scope="col" class={c.id === 'job' ? 'border-r-2! border-r-ink!' : ''}
            >{c.name}</th
          >{/each}
      </tr>
    </thead>
    {#each groups(bill.items) as group (group.name)}
      <tbody>
        <tr
          ><th scope="rowgroup" colspan="2" class="border-t-2! border-t-ink! text-left">{group.name}</th>
          {#each columns as c (c.id)}
            <td
              class="border-t-2! border-t-ink! text-[1.05rem] font-bold {c.id === 'job'
                ? 'border-r-2! border-r-ink!'
                : ''}">{sum(c.items, group)}</td
            >
          {/each}</tr
        >
        {#each group.lines as l (l.item.id + l.buy.by)}
          <tr>
            <td class={l.or ? 'pl-6! text-pencil' : ''}>{l.buy.what}</td>
            <td class="text-left! text-pencil"
              >{#if l.item.unit === 'pieces' && l.item.name.length}<Words
                  says={l.item.name}
                  {units}
                />{/if}</td
            >
            {#each columns as c (c.id)}
              {@const b = bought(c.items, l.item, l.buy)}
              <td
                class="{l.or ? 'text-pencil' : 'text-[1.05rem] font-semibold'} {c.id === 'job'
                  ? 'border-r-2! border-r-ink!'
                  : ''}"
              >
                {#if !b}—{:else if whyOf(l.item) && !l.or}<Figure
                    why={ofTotals(
                      c.id === 'job' ? undefined : session.plan.runs.find((r) => r.id === c.id),
                      whyOf(l.item)!,
                    )}
                    of="{l.buy.what}, {c.name}"><Words says={b.many} {units} /></Figure
                  >{:else}<Words says={b.many} {units} />{/if}
                {#if b?.of?.length && l.item.unit !== 'pieces'}<span
                    class="block max-w-44 text-[0.88rem] font-normal whitespace-normal text-pencil"
                    ><Words says={b.of} {units} /></span
                  >{/if}
              </td>
            {/each}
          </tr>
        {/each}
      </tbody>
    {/each}
  </table>
</div>
<p class="mt-2 max-w-prose text-pencil">
  {msg.totals_all_sums_are_of_exact({
    v1:
      saved > 0 ? msg.totals_which_saves({ saved, v2: saved === 1 ? msg.totals_bag : msg.totals_bags }) : '',
  })}
</p>
