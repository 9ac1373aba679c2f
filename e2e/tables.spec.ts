import { parse as parseCSV } from 'csv-parse/sync'
import { expect, open, part, stage, test } from './mallow'

// The rows on the screen are those of the files: the same posts in the same
// order, each length as the tape reads.
test('tables on the screen are those of the files', async ({ page, mallow }) => {
  await open(page, mallow)
  const job = new URL(page.url()).pathname.split('/')[2]!
  for (const [tab, name, table, lengths] of [
    ['Post spacing', 'Set out', 'setout', ['level', 'slope', 'from_far_end', 'bay', 'clear', 'hole_width', 'hole_depth']],
    ['Slope', 'Tops and bays', 'posts', ['stock', 'top_above_ground', 'face_before', 'in_ground', 'cut_off', 'mark_above_ground', 'overlap']],
    ['Slope', 'Tops and bays', 'bays', ['centres', 'between_faces', 'rail', 'gap_least', 'gap_most', 'fill']],
    ['Dig', 'All holes', 'holes', ['width', 'dig', 'concrete_bottom', 'foot', 'gravel']],
  ] as const) {
    await stage(page, tab)
    await part(page, name)
    const csv = await page.request.get(`${mallow.url}api/jobs/${job}/export?what=${table}&run=R1`)
    const filed = parseCSV(await csv.text(), { columns: true, bom: true }) as Record<string, string>[]
    const rows = page.locator(`[data-table="${table}"] tbody tr`)
    await expect(rows).toHaveCount(filed.length)
    const shown = await rows.evaluateAll((list) =>
      list.map((tr) => {
        const said: Record<string, string> = { first: tr.querySelector('button')!.textContent!.trim().split(' ')[0]! }
        for (const td of tr.querySelectorAll<HTMLElement>('td[data-column]')) {
          const copy = td.cloneNode(true) as HTMLElement
          for (const hidden of copy.querySelectorAll('[aria-hidden]')) hidden.remove()
          said[td.dataset['column']!] = copy.textContent!.replace(/,[^,]*: why\?/, '').replace(/\s+/g, ' ').trim()
        }
        return said
      }),
    )
    const inches = (said: string) => {
      const m = /^(−?)(?:(\d+)′)? ?(\d+)? ?(?:(\d+)\/(\d+))?″?$/.exec(said)
      expect(m, said).not.toBeNull()
      const [, sign, feet, whole, over, under] = m!
      return (sign ? -1 : 1) * (Number(feet ?? 0) * 12 + Number(whole ?? 0) + (under ? Number(over) / Number(under) : 0))
    }
    let compared = 0
    filed.forEach((want, i) => {
      expect(shown[i]!['first']).toBe(want['post'] ?? want['bay_name'])
      for (const name of lengths) {
        const exact = want[`${name}_ft`]!
        const said = shown[i]![name]
        // What says nothing in any row is left out on the screen.
        if (exact === '' || said === undefined) expect(said ?? '', `${table} ${name}`).toBe('')
        else {
          const off = inches(said) - Number(exact) * 12
          // Soil is said as it is dug: to the next half inch.
          const [least, most] = name === 'fill' ? [-1e-6, 0.5] : [-1 / 32 - 1e-6, 1 / 32 + 1e-6]
          expect(off >= least && off <= most, `${table}, row ${i + 1}, ${name}: ${said} for ${exact} ft`).toBe(true)
          compared++
        }
      }
    })
    expect(compared).toBeGreaterThan(filed.length * 3)
  }
})
