<script lang="ts">
  // What was understood of a file, and what it would make.
  import type { ImportPreview, Units } from '../../gen/api'
  import Fraction from '../../parts/Fraction.svelte'
  import * as msg from '../../gen/messages'

  let { preview, units, name }: { preview: ImportPreview; units: Units; name: string } = $props()
  const W = 420
  const H = 200
  /** The line from above, or the profile from the side, fitted to the picture. */
  const drawn = $derived.by(() => {
    const plan = preview.shape === 'plan'
    const spots = plan
      ? preview.places.map((p) => [p.x, p.y] as const)
      : preview.ground.map((g) => [g.at, g.height] as const)
    if (spots.length < 2) return ''
    const [xs, ys] = [spots.map((p) => p[0]), spots.map((p) => p[1])]
    const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]
    let sx = (W - 30) / Math.max(x1 - x0, 1)
    let sy = (H - 30) / Math.max(y1 - y0, 1)
    if (plan) sx = sy = Math.min(sx, sy)
    else sy = Math.min(sy, sx * 8)
    const [mx, my] = [(x0 + x1) / 2, (y0 + y1) / 2]
    return (
      'M' +
      spots
        .map((p) => `${(W / 2 + (p[0] - mx) * sx).toFixed(1)} ${(H / 2 - (p[1] - my) * sy).toFixed(1)}`)
        .join('L')
    )
  })
  const total = $derived((preview.lengths ?? []).reduce((a, b) => a + b, 0))
</script>

<div class="mt-3 border border-line bg-sheet p-3" data-testid="import-look">
  <h3 class="font-bold">{msg.import_look_what_was_understood({ name })}</h3>
  <div class="mt-1 grid gap-4 md:grid-cols-[minmax(0,1fr)_minmax(0,18rem)]">
    <div>
      <ul class="list-disc pl-5">
        {#each [...preview.understood, ...(preview.notes ?? [])] as u (u)}<li>{u}</li>{/each}
      </ul>
      <p class="mt-2 text-[1.08rem]">
        <strong>{preview.count}</strong>
        {msg.import_look_points_can_be_used}{#if preview.badCount}, <strong class="text-stop"
            >{preview.badCount}</strong
          >
          {msg.import_look_cannot}{/if}.
        {#if preview.lengths?.length}
          {msg.import_look_they_make_a_line_of({
            v1: preview.closed ? msg.import_look_closed : msg.common_open_2,
          })}
          <strong>{preview.lengths.length} {preview.lengths.length === 1 ? 'run' : 'runs'}</strong>,
          <strong><Fraction mm={total} {units} long /></strong>
          {msg.import_look_long_with_ground_points({ kept: preview.kept })}
        {:else if preview.ground.length}
          {msg.import_look_they_are_the_ground_of} <strong>{preview.kept}</strong> {msg.import_look_stations}
        {/if}
      </p>
      {#if preview.lengths && preview.lengths.length <= 12}
        <p class="text-pencil">
          {#each preview.lengths as l, i (i)}{i ? ' · ' : ''}<Fraction mm={l} {units} long />{/each}
        </p>
      {/if}
      {#if preview.problem}<p class="mt-2 border-l-4 border-l-stop bg-stop-wash px-3 py-1.5" role="alert">
          {preview.problem}
        </p>{/if}
    </div>
    {#if drawn}
      <svg
        viewBox="0 0 {W} {H}"
        class="block w-full border border-rule"
        role="img"
        aria-label={preview.shape === 'plan'
          ? msg.import_look_the_line_from_above
          : msg.import_look_the_ground_from_the_side}
      >
        <path d={drawn} fill="none" class="stroke-(--mallow)" stroke-width="3" />
      </svg>
    {/if}
  </div>
  {#if preview.badCount}
    <details class="mt-2" open={preview.badCount < 8}>
      <summary class="min-h-9 cursor-pointer font-semibold"
        >{msg.import_look_rows_that_cannot_be_used}</summary
      >
      <div class="max-h-56 overflow-auto">
        <table class="sheet-table w-full">
          <thead
            ><tr
              ><th scope="col">{msg.common_line}</th><th scope="col">{msg.import_look_why}</th><th scope="col"
                >{msg.import_look_row}</th
              ></tr
            ></thead
          >
          <tbody>
            {#each preview.bad as b, i (i)}
              <tr
                ><td class="font-semibold">{b.row}</td><td>{b.why}</td><td class="text-pencil">{b.text}</td
                ></tr
              >
            {/each}
          </tbody>
        </table>
        {#if preview.badCount > preview.bad.length}<p class="p-2 text-pencil">
            {msg.import_look_and_more({ count: preview.badCount - preview.bad.length })}
          </p>{/if}
      </div>
    </details>
  {/if}
</div>
