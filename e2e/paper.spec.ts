// Every file that Mallow writes, opened with another program than the one that
// wrote it, and compared with the plan.
import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { parse as parseCSV } from 'csv-parse/sync'
import DxfParser from 'dxf-parser'
import jsQR from 'jsqr'
import { PNG } from 'pngjs'
import XLSX from 'xlsx'
import { expect, open, saved, stage, test } from './mallow'

const binary = fileURLToPath(new URL('../bin/mallow', import.meta.url))
const jobs = [
  { file: fileURLToPath(new URL('../demo/jobs/1-tansy-bank.json', import.meta.url)), paper: 'letter', box: [612, 792], per: 304.8, unit: 'ft', cleared: false },
  { file: fileURLToPath(new URL('../demo/jobs/2-pipit-yard.json', import.meta.url)), paper: 'a4', box: [595.28, 841.89], per: 1000, unit: 'm', cleared: true },
]
const run = (...args: string[]) => execFileSync(binary, args, { maxBuffer: 1 << 28, stdio: ['ignore', 'pipe', 'pipe'] })
const folder = () => mkdtempSync(join(tmpdir(), 'mallow-'))
/* eslint-disable-next-line @typescript-eslint/no-explicit-any */
const plan = (file: string): any => JSON.parse(run('plan', '--json', file).toString())

for (const j of jobs) {
  const p = plan(j.file)

  test(`PDF of ${p.name}: pages, boxes and words, by poppler`, () => {
    const dir = folder()
    run('export', j.file, '--to', join(dir, 'all.pdf'), '--paper', j.paper)
    const info = execFileSync('pdfinfo', [join(dir, 'all.pdf')]).toString()
    const count = Number(/Pages:\s+(\d+)/.exec(info)![1])
    const [, w, h] = /Page size:\s+([\d.]+) x ([\d.]+)/.exec(info)!
    expect(Number(w)).toBeCloseTo(j.box[0]!, 0)
    expect(Number(h)).toBeCloseTo(j.box[1]!, 0)
    const pages = execFileSync('pdftotext', ['-layout', join(dir, 'all.pdf'), '-'], { maxBuffer: 1 << 26 }).toString().split('\f').slice(0, -1)
    expect(pages.length).toBe(count)
    pages.forEach((words, i) => {
      expect(words).toContain(p.name)
      expect(words).toContain(`page ${i + 1} of ${count}`)
      expect(words.includes('NOT CLEARED TO DIG')).toBe(!j.cleared && !words.includes('Your fence'))
    })
    const all = pages.join('\n')
    const exact = run('export', j.file, '--to', '-', '--format', 'csv', '--table', 'setout', '--run', p.runs[0].id).toString()
    for (const row of parseCSV(exact, { columns: true }) as Record<string, string>[]) {
      expect(all).toContain(row['level_tape'])
      expect(all).toContain(row['post'])
    }
    for (const b of p.totals.bagKinds) expect(all).toContain(`${b.count} bags`)
    for (const word of ['Load and check-list', 'Strings', 'Stake-out', 'Story stick', 'Hole cards', 'Gate cards', 'Your fence']) expect(all).toContain(word)
    // Every font is in the file.
    const fonts = execFileSync('pdffonts', [join(dir, 'all.pdf')]).toString().trim().split('\n').slice(2)
    expect(fonts.length).toBeGreaterThan(0)
    for (const f of fonts) expect(f).toMatch(/Identity-H +yes/)
  })

  test(`spreadsheet of ${p.name}: numbers, units and totals, by another library`, () => {
    const dir = folder()
    run('export', j.file, '--to', join(dir, 't.xlsx'))
    const book = XLSX.read(readFileSync(join(dir, 't.xlsx')))
    expect(book.SheetNames).toEqual(['Set-out', 'Posts', 'Bays', 'Holes', 'Gates', 'Load', 'Cut list', 'Pour', 'Days'])
    const posts = XLSX.utils.sheet_to_json<Record<string, number | string>>(book.Sheets['Posts']!)
    /* eslint-disable-next-line @typescript-eslint/no-explicit-any */
    const planned = p.runs.flatMap((r: any) => r.posts)
    expect(posts.length).toBe(planned.length)
    planned.forEach((q: { id: string; label: string; station: number; reveal: number; foot: number }, i: number) => {
      expect(posts[i]!['Post']).toBe(q.label)
      for (const [head, mm] of [['Level from start', q.station], ['Top above ground', q.reveal], ['In ground', q.foot]] as const) {
        const cell = posts[i]![`${head}, ${j.unit}`]
        expect(typeof cell).toBe('number')
        expect(cell as number).toBeCloseTo(mm / j.per, 6)
      }
    })
    // Every number of the other sheets too, column by column.
    const cells = (name: string) => XLSX.utils.sheet_to_json<(number | string | null)[]>(book.Sheets[name]!, { header: 1, defval: null })
    const small = j.unit === 'ft' ? 0.028316846592 : 0.001
    const bulk = j.unit === 'ft' ? 0.764554857984 : 1
    const mass = j.unit === 'ft' ? 0.45359237 : 1
    /* eslint-disable @typescript-eslint/no-explicit-any */
    const want: Record<string, [string[], number[]][]> = {
      Bays: p.runs.flatMap((r: any) => r.bays.map((b: any) => [[j.unit === 'ft' ? 'Center to center' : 'Centre to centre', 'Between faces'], [b.centreToCentre / j.per, b.clear / j.per]])),
      Holes: p.runs.flatMap((r: any) =>
        r.posts
          .filter((q: any) => q.card >= 0 && !q.shared)
          .map((q: any) => {
            const c = r.cards[q.card]
            return [
              ['Width', 'Dig', 'Concrete bottom', 'Bottom of post', 'Dug', 'Gravel, volume', 'Stone, volume', 'Concrete', 'Soil to haul off, loose'],
              [...[q.holeWidth, q.holeDepth, q.bottom, q.foot].map((l) => l / j.per), ...[c.dug, c.gravel, c.stone, c.concrete, c.spoil].map((v) => v / small)],
            ]
          }),
      ),
      Gates: p.runs.flatMap((r: any) =>
        r.gates.flatMap((g: any) =>
          g.leaves.map((l: any) => [['Leaf, wide', 'Leaf, high', 'Leaf', 'Least gap while it swings'], [l.width / j.per, l.height / j.per, l.mass / mass, Math.min(...l.sides.map((s: any) => s.gap)) / j.per]]),
        ),
      ),
      // Every row of the bill, of each run and of the job: how much, exactly.
      Load: [...p.runs, ...(p.runs.length > 1 ? [p] : [])].flatMap((r: any) =>
        r.items.flatMap((i: any) => i.bought.map(() => [['How much, exact'], [i.unit === 'm3' ? i.exact / bulk : i.exact]])),
      ),
    }
    /* eslint-enable @typescript-eslint/no-explicit-any */
    const column = (name: string, head: string) => {
      const k = cells(name)[0]!.findIndex((h) => h === head || String(h).replace(/, [^,]+$/, '') === head)
      expect(k, `${name} has a column ${head}`).toBeGreaterThanOrEqual(0)
      return k
    }
    for (const [name, rows] of Object.entries(want)) {
      const known = name === 'Holes' ? cells(name).filter((r) => typeof r[column(name, 'Dug')] === 'number') : cells(name).slice(1)
      rows.forEach(([heads, values], i) =>
        values.forEach((v, k) => expect(known[i]![column(name, heads[k]!)], `${name}, row ${i + 1}, ${heads[k]}`).toBeCloseTo(v, 6)),
      )
    }
    // Each length stands beside its count, as a number and as it is said.
    const named = cells('Load').slice(1)
    expect(named.length).toBe(want['Load']!.length)
    for (const row of named) expect(row[column('Load', 'Piece')] === null).toBe(!row[column('Load', 'Piece, as the tape reads')])
    let posts_ = 0
    const whole = p.runs.length > 1 ? 'Whole job' : p.runs[0].name
    for (const row of named) if (row[0] === whole && row[column('Load', 'Kind of item')] === 'post') posts_ += row[column('Load', 'How much, exact')] as number
    expect(posts_).toBe(p.totals.posts)
  })

  test(`drawings of ${p.name}: layers, posts and sizes, by another reader`, async ({ page }) => {
    const dir = folder()
    run('export', j.file, '--to', join(dir, 'side.dxf'), '--to', join(dir, 'side.svg'))
    run('export', j.file, '--to', join(dir, 'map.dxf'), '--view', 'map')
    const side = new DxfParser().parseSync(readFileSync(join(dir, 'side.dxf'), 'utf8'))!
    for (const l of ['GROUND', 'POSTS', 'FENCE', 'GATES', 'FOOTINGS']) expect(Object.keys(side.tables.layer.layers)).toContain(l)
    const first = p.runs[0]
    /* eslint-disable-next-line @typescript-eslint/no-explicit-any */
    const solid = side.entities.filter((e: any) => e.type === 'POLYLINE' && e.layer === 'POSTS' && e.shape) as any[]
    expect(solid.length).toBe(first.posts.length)
    first.posts.forEach((q: { station: number; ground: number; top: number }, i: number) => {
      const xs = solid[i].vertices.map((v: { x: number }) => v.x)
      const ys = solid[i].vertices.map((v: { y: number }) => v.y)
      expect((Math.min(...xs) + Math.max(...xs)) / 2).toBeCloseTo(q.station / j.per, 4)
      expect(Math.min(...ys)).toBeCloseTo(q.ground / j.per, 4)
      expect(Math.max(...ys)).toBeCloseTo(q.top / j.per, 4)
    })
    const map = new DxfParser().parseSync(readFileSync(join(dir, 'map.dxf'), 'utf8'))!
    /* eslint-disable-next-line @typescript-eslint/no-explicit-any */
    expect(map.entities.filter((e: any) => e.type === 'TEXT' && e.layer === 'NAMES').length).toBe(p.runs.length)
    await page.setContent('<p></p>')
    const svg = await page.evaluate((text) => {
      const doc = new DOMParser().parseFromString(text, 'image/svg+xml')
      return { bad: doc.querySelector('parsererror')?.textContent ?? '', layers: [...doc.querySelectorAll('g')].map((g) => g.id), posts: doc.querySelectorAll('#POSTS path[fill]').length, words: doc.documentElement.textContent }
    }, readFileSync(join(dir, 'side.svg'), 'utf8'))
    expect(svg.bad).toBe('')
    expect(svg.posts).toBe(first.posts.length)
    expect(svg.words).toContain(first.posts[1].label)
  })
}

test('positions: GPX waypoints and GeoJSON agree, post by post', async ({ page }) => {
  const j = jobs[0]!
  const p = plan(j.file)
  const dir = folder()
  run('export', j.file, '--to', join(dir, 'posts.gpx'), '--points', 'posts', '--to', join(dir, 'line.geojson'))
  const geo = JSON.parse(readFileSync(join(dir, 'line.geojson'), 'utf8')) as { features: { geometry: { type: string; coordinates: number[] } }[] }
  const points = geo.features.filter((f) => f.geometry.type === 'Point').map((f) => f.geometry.coordinates)
  await page.setContent('<p></p>')
  const ways = await page.evaluate((text) => {
    const doc = new DOMParser().parseFromString(text, 'application/xml')
    return [...doc.querySelectorAll('wpt')].map((w) => [Number(w.getAttribute('lon')), Number(w.getAttribute('lat'))])
  }, readFileSync(join(dir, 'posts.gpx'), 'utf8'))
  expect(ways.length).toBe(p.totals.posts)
  expect(ways.length).toBe(points.length)
  ways.forEach((w, i) => {
    expect(w[0]).toBeCloseTo(points[i]![0]!, 9)
    expect(w[1]).toBeCloseTo(points[i]![1]!, 9)
  })
})

test('a document goes out and comes in as it was; a walked line becomes a job', () => {
  const dir = folder()
  for (const j of jobs) {
    run('export', j.file, '--to', join(dir, 'out.json'))
    expect(readFileSync(join(dir, 'out.json'), 'utf8')).toBe(readFileSync(j.file, 'utf8'))
    run('import', join(dir, 'out.json'), '--to', join(dir, 'again.json'))
    expect(readFileSync(join(dir, 'again.json'), 'utf8')).toBe(readFileSync(j.file, 'utf8'))
  }
  run('export', jobs[0]!.file, '--to', join(dir, 'walked.gpx'))
  run('import', join(dir, 'walked.gpx'), '--to', join(dir, 'new.json'))
  const [was, is] = [plan(jobs[0]!.file), plan(join(dir, 'new.json'))]
  expect(is.runs.length).toBe(was.runs.length)
  is.runs.forEach((r: { length: number }, i: number) => expect(r.length).toBeCloseTo(was.runs[i].length, 0))
  expect(() => run('export', jobs[0]!.file, '--to', join(dir, 'x.doc'))).toThrow(/is no format/)
})

test('a print under way is stopped', async ({ page, mallow }) => {
  await open(page, mallow)
  await page.route('**/print?*', () => {}) // it never answers
  await page.getByRole('button', { name: 'Print and files' }).click()
  await page.getByRole('button', { name: /^PDF, \d+ page/ }).click()
  await expect(page.getByRole('progressbar')).toBeVisible()
  await page.getByRole('button', { name: 'Stop', exact: true }).click()
  await expect(page.getByRole('progressbar')).toBeHidden()
  await expect(page.getByRole('button', { name: /^PDF, \d+ page/ })).toBeEnabled()
})

test('sheets are printed from the screen: preview, pages, PDF, files', async ({ page, mallow }) => {
  await open(page, mallow)
  await stage(page, 'Dig')
  await page.getByRole('textbox', { name: 'Name of the job' }).fill('Bänkę 果樹園')
  await page.getByRole('textbox', { name: 'Name of the job' }).press('Enter')
  await saved(page)
  await page.getByRole('button', { name: 'Print and files' }).click()
  const panel = page.getByRole('dialog', { name: 'Print and files' })
  await expect(panel.getByRole('radio', { name: 'Hole cards' })).toHaveAttribute('aria-checked', 'true')
  await expect(panel.getByTestId('sheet-page')).toContainText('1 of')
  const preview = panel.getByRole('img', { name: 'Page 1 of Hole cards' })
  await expect.poll(() => preview.evaluate((i: HTMLImageElement) => i.naturalWidth)).toBeGreaterThan(100)
  await panel.getByRole('radio', { name: 'Stake-out' }).click()
  await panel.getByRole('radio', { name: 'all runs' }).click()
  await panel.getByRole('button', { name: 'Next page' }).click()
  await expect(panel.getByTestId('sheet-page')).toContainText('2 of')
  // Each set is one click: the crew's fits on eight sheets.
  const [pdf] = await Promise.all([page.waitForEvent('download'), panel.getByRole('button', { name: 'Print the crew’s sheets' }).click()])
  expect(pdf.suggestedFilename()).toMatch(/^Bänkę 果樹園 - crew - r\d+\.pdf$/)
  const info = execFileSync('pdfinfo', [await pdf.path()]).toString()
  expect(Number(/Pages:\s+(\d+)/.exec(info)![1])).toBeLessThanOrEqual(10)
  for (const set of ['yard', 'customer']) {
    const [one] = await Promise.all([page.waitForEvent('download'), panel.getByRole('button', { name: `Print the ${set}’s sheets` }).click()])
    expect(one.suggestedFilename()).toContain(` - ${set} - `)
  }
  expect(info).toContain('Bänkę 果樹園')
  const [xlsx] = await Promise.all([page.waitForEvent('download'), panel.getByRole('link', { name: /XLSX/ }).click()])
  expect(XLSX.read(readFileSync(await xlsx.path())).SheetNames).toContain('Posts')
  const [pages] = await Promise.all([page.waitForEvent('popup'), panel.getByRole('link', { name: 'As pages on screen' }).click()])
  await expect(pages.getByRole('img', { name: 'Page 1', exact: true })).toBeVisible()
  const printed = await pages.pdf({ format: 'Letter' })
  expect(printed.length).toBeGreaterThan(10_000)
  await pages.close()
})

test('what the customer is told is entered beside the sheet, and stands on it', { tag: '@refused' }, async ({ page, mallow }) => {
  await open(page, mallow)
  await page.getByRole('button', { name: 'Print and files' }).click()
  const panel = page.getByRole('dialog', { name: 'Print and files' })
  await panel.getByRole('button', { name: /^Customer/ }).click()
  await panel.getByLabel('Customer', { exact: true }).fill('The committee')
  await panel.getByLabel('Color or finish, Lane').fill('cedar, oiled')
  await panel.getByLabel('Work begins').fill('2027-04-16')
  await panel.getByLabel('Taking down the old fence and hauling it off').selectOption('Included')
  await panel.getByLabel('The permit and its fee').selectOption('Not included')
  await panel.getByLabel('Also included').fill('A bench by the gate')
  await panel.getByLabel('Also included').blur()
  // A last day before the first is refused where it was typed; nothing else is lost.
  await panel.getByLabel('Done by').fill('2027-04-06')
  await expect(panel.getByText(/2027-04-16 or a later day/)).toBeVisible()
  await panel.getByLabel('Done by').fill('2027-04-20')
  await saved(page)
  const sheet = panel.getByRole('img', { name: 'Page 1 of Customer' })
  const words = async () => (await page.request.get(new URL((await sheet.getAttribute('src'))!, page.url()).href)).text()
  await expect.poll(words).toContain('20 April 2027')
  const said = await words()
  for (const want of ['For The committee', 'cedar, oiled', 'Taking down the old fence', 'The permit and its fee', 'A bench by the gate', '16 April 2027']) expect(said).toContain(want)
})

test('the code on a sheet opens its place: by QR, by typing it, by a mistyped one', { tag: '@refused' }, async ({ page, mallow }) => {
  await open(page, mallow)
  const job = /jobs\/([^/]+)/.exec(page.url())![1]!
  const origin = new URL(page.url()).origin
  const svg = await (await page.request.get(`${origin}/api/jobs/${job}/page.svg?sheet=stakeout&run=R2&paper=letter&page=1`)).text()
  const code = /[A-Z2-7]{4}-S2/.exec(svg)![0]
  // The printed page, photographed and read.
  const blank = await page.context().newPage()
  await blank.setContent(`<body style="margin:0">${svg.replace('width="215.90mm" height="279.40mm"', 'width="1700"')}</body>`)
  await blank.setViewportSize({ width: 1700, height: 420 })
  const shot = PNG.sync.read(await blank.screenshot())
  const read = jsQR(new Uint8ClampedArray(shot.data), shot.width, shot.height)
  expect(read?.data).toBe(`${origin}/jobs/${job}/runs/R2/space`)
  await blank.close()
  await page.goto(read!.data)
  await expect(page.getByRole('tab', { name: /Space|Post spacing/ })).toHaveAttribute('aria-selected', 'true')
  await page.goto(origin)
  await page.getByRole('searchbox').fill(code.toLowerCase())
  await page.getByRole('link', { name: `Open ${code} in` }).click()
  await expect(page).toHaveURL(/runs\/R2\/space/)
  await page.goto(`${origin}/s/${code}`)
  await expect(page).toHaveURL(/runs\/R2\/space/)
  await page.goto(`${origin}/s/ZZZZ-S2`)
  await expect(page.getByRole('alert')).toContainText('No job here has sheets with that code')
})
