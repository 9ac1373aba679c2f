<script lang="ts">
  // How a closed line closes, and the spreading of what it misses: before and
  // after side by side.
  import type { Session } from '../../lib/session.svelte'
  import { degrees } from '../../lib/turn'
  import Figure from '../../parts/Figure.svelte'
  import Fraction from '../../parts/Fraction.svelte'
  import * as msg from '../../gen/messages'

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
    <h2 class="font-bold">{msg.closing_closing}</h2>
    <p class="mt-1 text-[1.15rem]">
      <Figure why={{ line: session.line.id, of: 'closing' }} of={msg.closing_misclosure}>
        {#if closing.ratio === undefined || closing.miss < units.smallestMark / 2}{msg.closing_closes_to_the_tape_s}{:else}{msg.closing_misses_by}
          <strong><Fraction mm={closing.miss} {units} /></strong>{msg.closing_1_in}
          <strong>{Math.round(closing.ratio).toLocaleString('en')}</strong>{/if}
      </Figure>
    </p>
    <p class="text-pencil">
      {msg.closing_round}
      <Fraction
        mm={closing.perimeter}
        {units}
        long
      />{#if closing.angleSum !== undefined && Math.abs(closing.angleSum) > 0.005}{msg.closing_the_turns_miss_a_whole(
          { v1: degrees(Math.abs(closing.angleSum)) },
        )}{/if}
    </p>
    <label class="mt-2 flex min-h-11 items-center gap-2.5 font-medium">
      <input
        type="checkbox"
        class="size-5 accent-(--mallow)"
        checked={closing.spread}
        onchange={(e) =>
          session.commit(
            [{ path: session.lineAt('/balance'), value: e.currentTarget.checked }],
            e.currentTarget.checked ? msg.closing_misclosure_spread : msg.closing_misclosure_not_spread,
          )}
      />
      {msg.closing_spread_it_by_the_compass}
    </label>
    <div class="mt-1 overflow-x-auto">
      <table class="sheet-table w-full">
        <thead
          ><tr
            ><th scope="col">{msg.common_run}</th><th scope="col">{msg.closing_as_measured}</th><th
              scope="col">{closing.spread ? msg.closing_spread : msg.closing_if_spread}</th
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
        {msg.closing_heights_close} <strong><Fraction mm={Math.abs(loop.error)} {units} /></strong>
        {loop.error >= 0 ? 'high' : 'low'}; <Fraction mm={loop.allowance} {units} />
        {msg.closing_is_allowed_spread_with_the}
      </p>
    {/if}
  </div>
{:else if session.line.closed}
  <p class="border-l-4 border-l-warn bg-warn-wash px-3 py-2">
    {missing > 1 ? msg.closing_corners_are_still_to_be({ missing }) : msg.closing_the_line_closes_once_all}
  </p>
{/if}
