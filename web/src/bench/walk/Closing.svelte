<script lang="ts">
  // How a closed line closes, and the spreading of what it misses: before and
  // after side by side.
  import type { Session } from '../../lib/session.svelte'
  import { degrees } from '../../lib/turn'
  import Figure from '../../parts/Figure.svelte'
  import Fraction from '../../parts/Fraction.svelte'

  let { session }: { session: Session } = $props()
  const units = $derived(session.units)
  const closing = $derived(session.line.closing)
  const loop = $derived(session.line.loop)
  const missing = $derived(
    session.line.corners.filter((c) => c.before && c.after && c.turn === undefined).length,
  )
  const name = (id: string) => session.plan.runs.find((r) => r.id === id)?.name || id
</script>

{#if closing}
  <div class="border border-line bg-sheet p-3" data-testid="closing">
    <h2 class="font-bold">Closing</h2>
    <p class="mt-1 text-[1.15rem]">
      <Figure why={{ line: session.line.id, of: 'closing' }} of="Misclosure">
        {#if closing.ratio === undefined || closing.miss < units.smallestMark / 2}closes to the tape's mark{:else}misses
          by <strong><Fraction mm={closing.miss} {units} /></strong>, 1 in
          <strong>{Math.round(closing.ratio).toLocaleString('en')}</strong>{/if}
      </Figure>
    </p>
    <p class="text-pencil">
      round <Fraction
        mm={closing.perimeter}
        {units}
        long
      />{#if closing.angleSum !== undefined && Math.abs(closing.angleSum) > 0.005}; the turns miss a whole one
        by {degrees(Math.abs(closing.angleSum))}{/if}
    </p>
    <label class="mt-2 flex min-h-11 items-center gap-2.5 font-medium">
      <input
        type="checkbox"
        class="size-5 accent-(--mallow)"
        checked={closing.spread}
        onchange={(e) =>
          session.commit(
            [{ path: session.lineAt('/balance'), value: e.currentTarget.checked }],
            e.currentTarget.checked ? 'Misclosure spread' : 'Misclosure not spread',
          )}
      />
      Spread it by the compass rule
    </label>
    <div class="mt-1 overflow-x-auto">
      <table class="sheet-table w-full">
        <thead
          ><tr
            ><th scope="col">Run</th><th scope="col">As measured</th><th scope="col"
              >{closing.spread ? 'Spread' : 'If spread'}</th
            ></tr
          ></thead
        >
        <tbody>
          {#each closing.legs as l (l.run)}
            <tr>
              <td class="font-semibold whitespace-normal">{name(l.run)}</td>
              <td
                ><Fraction mm={l.taped} {units} long /><span class="block text-[0.92rem] text-pencil"
                  >{degrees(l.bearing)}</span
                ></td
              >
              <td class={closing.spread ? 'font-semibold' : ''}
                ><Fraction mm={l.balanced} {units} long /><span class="block text-[0.92rem] text-pencil"
                  >{degrees(l.balancedBearing)}</span
                ></td
              >
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
    {#if loop}
      <p class="mt-2 border-t border-rule pt-2">
        Heights close <strong><Fraction mm={Math.abs(loop.error)} {units} /></strong>
        {loop.error >= 0 ? 'high' : 'low'}; <Fraction mm={loop.allowance} {units} /> is allowed. Spread with the
        distance.
      </p>
    {/if}
  </div>
{:else if session.line.closed}
  <p class="border-l-4 border-l-warn bg-warn-wash px-3 py-2">
    {missing > 1
      ? `${missing} corners are still to be measured. One of them can be left: closing finds it.`
      : 'The line closes once all its runs have lengths.'}
  </p>
{/if}
