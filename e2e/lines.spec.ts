import { readFileSync, writeFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { elevation, expect, load, open, part, saved, siteMap, stage, test, type, view, emptyJob, withoutCore } from './mallow'

async function choose(page: Page, label: string, option: string | RegExp) {
  await page.locator('[data-select-trigger]').filter({ visible: true }).and(page.getByLabel(label)).first().click()
  await page.getByRole('option', { name: option }).click()
}
const runBar = (page: Page, name: string) =>
  page.getByRole('navigation', { name: 'Runs' }).getByRole('button', { name, exact: true })

/** A page of string drops: each a station and a drop, entered without leaving the keys. */
async function drops(page: Page, rows: [string, string][]) {
  await part(page, 'Ground')
  await page.getByRole('button', { name: 'String drops', exact: true }).last().click()
  const at = page.getByLabel('Distance of the next row')
  const drop = page.getByLabel('Drop of the next row')
  for (const [i, [where, down]] of rows.entries()) {
    await type(at, where)
    await expect(drop).toBeFocused()
    await page.keyboard.type(down)
    await page.keyboard.press('Enter')
    await expect(page.getByLabel(`Drop of row ${i + 1}`)).toBeVisible()
  }
}

// A yard of 12 by 9 m: with diagonals of 15 m its corners are square (3-4-5),
// and the fourth corner follows from the line closing.
test('a closed yard: two diagonals, string drops, a slip, and the strings sheet', { tag: '@refused' }, async ({ page, mallow }) => {
  await emptyJob(page, mallow.url, 'Square yard', 'metric')
  await page.getByRole('button', { name: 'Later', exact: true }).click()
  const length = page.getByLabel('Run length')
  await type(length, '12m')
  for (const [i, metres] of ['9m', '12m', '9m'].entries()) {
    await page.getByRole('button', { name: 'Run after it' }).click()
    await expect(page.getByLabel('Run', { exact: true })).toHaveValue(`Run ${i + 2}`)
    await type(length, metres)
  }
  await page.getByRole('radio', { name: /^Closed/ }).click()
  for (const run of ['Run 2', 'Run 3']) {
    await runBar(page, run).click()
    await choose(page, 'Measured by', 'a measured diagonal')
    for (const leg of ['Leg back', 'Leg forth']) await type(page.getByLabel(leg), '')
    await type(page.getByLabel('Diagonal', { exact: true }), '15m')
    await expect(page.getByText('turns 90° left')).toBeVisible()
  }
  await expect(page.getByTestId('closing')).toContainText("closes to the tape's mark")
  await runBar(page, 'Run 4').click()
  await expect(page.getByText('found from closing')).toBeVisible()
  await expect(siteMap(page)).toHaveAttribute('data-map', 'R4')
  // Every corner post is dug once: 4 x 5 bays and 4 x 6 bays of at most 2.4 m share their ends.
  await expect(load(page, 'posts')).toContainText('18')
  await expect(page.getByTestId('load')).toContainText('4 corner posts are counted once')

  // A diagonal that cannot be is refused with what could.
  await runBar(page, 'Run 2').click()
  await type(page.getByLabel('Diagonal', { exact: true }), '22m')
  await expect(page.getByText(/It must be 3\.000 m to 21\.000 m/).first()).toBeVisible()
  await page.getByRole('button', { name: 'Back to what was saved' }).click()

  await runBar(page, 'Run 1').click()
  await drops(page, [
    ['0', '50'],
    ['3m', '55'],
    ['6m', '330'],
    ['9m', '70'],
    ['12m', '80'],
  ])
  const slip = page.locator('[data-finding="slip"]')
  await expect(slip).toContainText('is 330 mm, between 55 mm and 70 mm')
  await expect(page.locator('[data-slip="2"]')).toBeVisible()
  await type(page.getByLabel('Drop of row 3'), '63')
  await expect(slip).toBeHidden()
  await expect(page.getByRole('slider', { name: 'Ground height at 6.000 m' })).toHaveAttribute('aria-valuetext', '-63 mm')
  await saved(page)

  await stage(page, 'String')
  await expect(page.getByTestId('diagonal')).toContainText(/\d+\.\d{3}/)
  await page.getByRole('link', { name: 'Strings sheet' }).click()
  await expect(page.getByRole('heading', { name: '1 page' })).toBeVisible()
  const sheet = page.getByRole('img', { name: 'Page 1', exact: true })
  await expect(sheet).toBeVisible()
  // The page is of this run's strings, on this job's paper.
  const drawn = (await (await page.request.get(new URL((await sheet.getAttribute('src'))!, page.url()).href)).text()).replace(/<[^>]+>/g, ' ').replace(/\s+/g, ' ')
  for (const words of ['Square yard', 'NOT CLEARED TO DIG', 'Check corners by tape', 'diagonal 15.000 m']) expect(drawn).toContain(words)
  const pdf = await page.pdf({ format: 'A4' })
  expect(pdf.subarray(0, 5).toString()).toBe('%PDF-')
  await page.emulateMedia({ media: 'print' })
  await expect(page.getByRole('button', { name: 'Print' })).toBeHidden()
  await page.emulateMedia({ media: null })
  await page.getByRole('link', { name: 'Back to the job' }).click()
  await expect(page.getByTestId('diagonal')).toBeVisible()
})

test('a misclosure is spread, before and after side by side', async ({ page, mallow }) => {
  await open(page, mallow, 'Pipit Yard')
  await stage(page, 'Walk')
  const closing = page.getByTestId('closing')
  await expect(closing).toContainText('misses by 16 mm, 1 in 4,946')
  await expect(closing.getByRole('row', { name: /Street side/ })).toContainText('22.680 m')
  await page.getByRole('button', { name: 'Spread it by the compass rule' }).click()
  await expect(closing.getByRole('checkbox')).toBeChecked()
  await expect(closing.getByRole('row', { name: /Street side/ })).toContainText('22.683 m')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(closing.getByRole('checkbox')).not.toBeChecked()
})

test('runs are split, joined, reversed and moved, and the load stays', { tag: '@refused' }, async ({ page, mallow }) => {
  await open(page, mallow)
  await stage(page, 'Walk')
  await expect(load(page, 'posts')).toContainText('40')
  const bags = (await load(page, 'bags').textContent())!
  const first = page.getByRole('navigation', { name: 'Runs' }).getByRole('button').first()
  await page.getByRole('button', { name: 'Later in the line' }).click()
  await expect(first).toHaveText('Round the trees')
  await expect(page.locator('[data-gate="G1"]')).toBeVisible() // the gate came along
  await expect(load(page, 'posts')).toContainText('40')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(first).toHaveText('Lane')
  // At a gate post: nothing is added by the split.
  await type(page.getByLabel('Split it at'), `46' 10 1/4"`)
  await expect(runBar(page, 'Lane, part 2')).toBeVisible()
  await expect(load(page, 'posts')).toContainText('40')
  expect(await load(page, 'bags').textContent()).toContain(bags.slice(0, 8))
  await page.getByRole('button', { name: 'Join with the next' }).click()
  await expect(runBar(page, 'Lane, part 2')).toBeHidden()
  await expect(load(page, 'posts')).toContainText('40')
  await page.getByRole('button', { name: 'Reverse direction' }).click()
  await expect(first).toHaveText('Compost bays')
  await expect(load(page, 'posts')).toContainText('40')
  await saved(page)
  // A split in the middle of a gate is refused in words.
  await runBar(page, 'Lane').click()
  await type(page.getByLabel('Split it at'), `82' 6"`)
  await expect(page.getByRole('alert')).toContainText('is in the opening of Orchard gate')
  await page.getByRole('button', { name: 'Line', exact: true }).click()
  await expect(page.getByRole('group', { name: 'Lines' }).getByRole('button')).toHaveCount(2)
  await page.getByRole('button', { name: 'Remove this line' }).click()
  await expect(page.getByRole('group', { name: 'Lines' })).toBeHidden()
})

test('on the site map a run is picked, a corner dragged and nudged', async ({ page, mallow }) => {
  await open(page, mallow)
  await stage(page, 'Walk')
  const map = siteMap(page)
  await map.focus()
  await page.keyboard.press('ArrowRight')
  await expect(map).toHaveAttribute('data-map', 'R2')
  await expect(elevation(page)).toHaveAttribute('data-posts', '11')
  const corner = page.locator('[data-corner="R3"]')
  const length = page.getByLabel('Run length')
  await expect(length).toHaveValue(`96' 0"`)
  const box = (await corner.boundingBox())!
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2]
  await page.mouse.move(x, y)
  await page.mouse.down()
  await page.mouse.move(x + 14, y - 20, { steps: 6 })
  await page.mouse.up()
  await expect(length).not.toHaveValue(`96' 0"`)
  await saved(page)
  const dragged = (await length.inputValue())!
  expect(Number.parseInt(dragged)).toBeGreaterThan(100)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(length).toHaveValue(`96' 0"`)
  await corner.focus()
  await page.keyboard.press('ArrowUp')
  await page.keyboard.press('ArrowUp')
  await expect(length).toHaveValue(/^96' 0 1\/(8|16)"$/) // an eighth up is a little less along the run
  await saved(page)
  // Wheel and keys zoom; 0 shows all again.
  const before = await page.locator('[data-corner="R1"] rect').getAttribute('x')
  await map.hover()
  await page.mouse.wheel(0, -400)
  await expect(page.locator('[data-corner="R1"] rect')).not.toHaveAttribute('x', before!)
  await map.focus()
  await page.keyboard.press('0')
  await expect(page.locator('[data-corner="R1"] rect')).toHaveAttribute('x', before!)
})

test('the map is pinched and its corner dragged by touch', async ({ browser, mallow }) => {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true })
  await withoutCore(context)
  const page = await context.newPage()
  await open(page, mallow)
  await page.getByRole('button', { name: 'From above' }).click()
  const handle = page.locator('[data-corner="R1"]')
  const box = (await siteMap(page).boundingBox())!
  const cdp = await context.newCDPSession(page)
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2]
  const was = Number(await handle.locator('rect').getAttribute('x'))
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', apart: number) =>
    cdp.send('Input.dispatchTouchEvent', {
      type,
      touchPoints: type === 'touchEnd' ? [] : [{ x: x - apart, y, id: 1 }, { x: x + apart, y, id: 2 }],
    })
  await touch('touchStart', 20)
  for (let a = 24; a <= 60; a += 4) await touch('touchMove', a)
  await touch('touchEnd', 0)
  expect(Number(await handle.locator('rect').getAttribute('x'))).toBeLessThan(was - 20)
  await page.getByRole('button', { name: 'From the side' }).click()
  await expect(elevation(page)).toBeVisible()
  await context.close()
})

test('the whole line unrolls corner after corner, and a post in it can be picked', async ({ page, mallow }) => {
  await open(page, mallow)
  await view(page, 'Show all runs in line')
  await expect(elevation(page)).toHaveAttribute('data-posts', '40')
  await expect(elevation(page)).toContainText('80.02° left')
  await elevation(page).focus()
  for (let i = 0; i < 19; i++) await page.keyboard.press('ArrowRight')
  await expect(runBar(page, 'Round the trees')).toHaveAttribute('aria-pressed', 'true')
  await expect(page.getByTestId('post')).toHaveText('P2')
  await view(page, 'Show one run')
  await expect(elevation(page)).toHaveAttribute('data-posts', '11')
})

test('the level walks the line live, is found out of true, and is corrected', async ({ page, mallow }) => {
  await open(page, mallow)
  await stage(page, 'Walk')
  await part(page, 'Ground')
  await page.getByRole('button', { name: 'Walk the line with it' }).click()
  await expect(page.getByTestId('live-reading')).toContainText(/\d+ of \d+: .* (back|side|fore)/)
  const check = page.getByTestId('rod-check')
  await expect(page.getByRole('button', { name: 'Walk the line with it' })).toBeVisible({ timeout: 20_000 })
  await expect(check).toContainText(/Closes\s*\S+″? (high|low)/)
  const walk = page.locator('[data-finding="level-closing"]').filter({ hasText: 'Laser walk' })
  await expect(walk).toContainText('is allowed. Test the level on two pegs')
  await page.getByRole('button', { name: 'Two-peg test' }).click()
  await page.getByRole('button', { name: 'Read them with the simulated level' }).click()
  await expect(page.getByTestId('peg-result')).toContainText(/climbs 0\.1[4-9]\d mm in each (meter|metre)/)
  await page.getByRole('button', { name: 'Correct the open page by it' }).click()
  await expect(walk).not.toContainText('Test the level on two pegs')
  await saved(page)
  // One undo takes the correction back, the next the whole walk.
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(walk).toContainText('Test the level on two pegs')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(walk).toBeHidden()
})

test('rod readings are entered row by row, with a turning point and a closing check', async ({ page, mallow }) => {
  await open(page, mallow)
  await stage(page, 'Walk')
  await runBar(page, 'Compost bays').click()
  await part(page, 'Ground')
  await page.getByRole('button', { name: 'Level survey', exact: true }).last().click()
  const reading = page.getByLabel('Reading', { exact: true })
  const at = page.getByLabel('At', { exact: true })
  await type(at, '0')
  await type(reading, '48in')
  await expect(page.getByLabel('back of row 1')).toHaveValue('48"')
  await type(at, '43ft')
  await type(reading, '40in')
  await expect(page.getByLabel('side of row 2')).toHaveValue('40"')
  await choose(page, 'It is the', /foresight/)
  await type(at, '86ft')
  await type(reading, '57in')
  await expect(page.getByLabel('fore of row 3')).toHaveValue('57"')
  await type(reading, '60in') // the level has moved on: back on the same point
  await expect(page.getByLabel('back of row 3')).toHaveValue(`5' 0"`)
  await choose(page, 'It is the', /foresight/)
  await type(at, '0')
  await type(reading, '51 1/8in')
  const check = page.getByTestId('rod-check')
  await expect(check).toContainText('Set-ups 2')
  await expect(check).toContainText(/Closes .* low/)
})

const gpx = (n: number) =>
  `<?xml version="1.0"?><gpx version="1.1"><trk><trkseg>${Array.from({ length: n }, (_, i) => {
    const a = (2 * Math.PI * i) / n
    return `<trkpt lat="${(50 + 0.0009 * Math.sin(a)).toFixed(8)}" lon="${(8 + 0.0014 * Math.cos(a)).toFixed(8)}"><ele>${(200 + 2 * Math.sin(2 * a)).toFixed(2)}</ele></trkpt>`
  }).join('\n')}</trkseg></trk></gpx>`

test('a file is looked at before it is taken in, and good rows are kept', async ({ page, mallow }, info) => {
  await open(page, mallow, 'Pipit Yard')
  await stage(page, 'Walk')
  await part(page, 'Files')
  const file = info.outputPath('points.csv')
  writeFileSync(file, 'x,y,height,point\n0,0,10,corner\n12.5,0.2,10.2,ground\n30,0,10.6,corner\n30,abc,3,ground\n30,21,9.7,corner\n')
  await page.getByLabel('Choose a file with points').setInputFiles(file)
  const look = page.getByTestId('import-look')
  await expect(look).toContainText('4 points can be used, 1 cannot')
  await expect(look).toContainText('open line of 2 runs')
  await expect(look.getByRole('row', { name: /^5/ })).toContainText('"abc" is not a number')
  await expect(load(page, 'posts')).toContainText('48') // nothing has changed
  await page.getByRole('button', { name: 'Import the good rows' }).click()
  await expect(load(page, 'posts')).not.toContainText('48')
  await expect(page.getByLabel('Choose a file with points')).toBeAttached()
  await saved(page)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(load(page, 'posts')).toContainText('48')
  const track = info.outputPath('track.gpx')
  writeFileSync(track, gpx(2000))
  await page.getByLabel('Choose a file with points').setInputFiles(track)
  await expect(look).toContainText('2000 points can be used')
  await expect(look).toContainText('Elevations in metres at every point')
  await page.getByLabel('Off a straight run by').fill('2m')
  await page.getByLabel('Off a straight run by').press('Enter')
  await expect(look).toContainText(/line of (1\d|[89]) runs/)
  await page.getByRole('button', { name: 'Leave it' }).click()
  await expect(look).toBeHidden()
})

test('a file that is nothing Mallow reads says so', { tag: '@refused' }, async ({ page, mallow }, info) => {
  await open(page, mallow)
  await stage(page, 'Walk')
  await part(page, 'Files')
  const file = info.outputPath('mood.csv')
  writeFileSync(file, 'mood,colour\nfine,green\n')
  await page.getByLabel('Choose a file with points').setInputFiles(file)
  await expect(page.getByRole('alert')).toContainText('Name them station and height')
  // Out again: the orchard lies somewhere on earth.
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'GPX track' }).click()])
  const text = readFileSync(await download.path(), 'utf8')
  expect(text).toContain('<gpx version="1.1" creator="Mallow"')
  expect(text.match(/<type>corner<\/type>/g)).toHaveLength(4)
})

test('what is in the way is drawn, judged by the hole, and marked by the office', { tag: '@refused' }, async ({ page, mallow }) => {
  await open(page, mallow)
  // P4 is held, so that it cannot make way.
  await stage(page, 'Post spacing')
  for (let i = 0; i < 3; i++) await page.getByRole('button', { name: 'Next post' }).click()
  await page.getByRole('button', { name: 'Keep here' }).click()
  await stage(page, 'Walk')
  await expect(page.getByTestId('not-cleared')).toBeVisible()
  await part(page, 'Obstructions')
  await page.getByRole('button', { name: 'Add obstruction' }).click()
  const pipe = page.getByRole('group', { name: /Service: pipe or cable at/ })
  await choose(page, 'Which', /^Gas/)
  await type(pipe.getByLabel('Middle at'), '21ft 8in')
  await type(pipe.getByLabel('Hand-dig each side'), '18')
  await expect(page.getByText('Dig P4 by hand')).toBeVisible() // its hole reaches from 22' 11" back
  await type(pipe.getByLabel('Middle at'), `23' 5"`)
  await expect(page.getByText('Holes of P4 run into it')).toBeVisible()
  await stage(page, 'Post spacing')
  await expect(page.getByTestId('not-cleared')).toHaveAttribute('title', /public services located/)
  await expect(page.locator('[data-finding="in-the-way"]')).toContainText('The hole of P4 runs into the gas, oil or steam line')
  await page.getByTestId('not-cleared').click()
  const day = page.getByLabel('Today', { exact: true })
  await day.fill('2026-11-27') // a Friday: three working days are over a weekend
  await page.getByRole('button', { name: 'Have the services marked' }).click()
  await expect(page.getByTestId('ticket')).toContainText('Dec 2, 2026')
  await page.getByRole('button', { name: 'Have they been?' }).click()
  await expect(page.getByRole('alert')).toContainText('must be down by 2026-12-02')
  await day.fill('2026-12-02')
  await page.getByRole('button', { name: 'Have they been?' }).click()
  await expect(page.getByText('cleared to dig', { exact: true })).toBeVisible()
  await expect(page.getByTestId('not-cleared')).toBeHidden()
  await part(page, 'Obstructions')
  await expect(page.getByRole('tab', { name: /^Obstructions/ })).toContainText(/Obstructions\s*([89]|10)/) // 7 before
  await expect(page.getByTestId('ticket')).toBeHidden()
})

test('a corner is squared, and the strings say what to hold', { tag: '@refused' }, async ({ page, mallow }) => {
  await open(page, mallow, 'Pipit Yard')
  await stage(page, 'String')
  await choose(page, 'Corner', 'Street side to Play side')
  await choose(page, 'Angle between the runs', 'square, 90°')
  await type(page.getByLabel('Leg on Street side'), '8m')
  await type(page.getByLabel('Leg on Play side'), '6m')
  await expect(page.getByTestId('diagonal')).toContainText('10.000 m')
  await expect(page.getByText('Largest 3-4-5 on these legs')).toContainText('8.000 m, 6.000 m, 10.000 m')
  await type(page.getByLabel('Diagonal as taped'), '10.02m')
  const check = page.getByTestId('square-check')
  await expect(check).toContainText('0.24° too open')
  await expect(check).toContainText('in, toward Street side')
  await type(page.getByLabel('Diagonal as taped'), '15m')
  await expect(page.getByText('It must be 2.000 m to 14.000 m').first()).toBeVisible()
  // The sag is drawn larger than it is, and its true figure said.
  await expect(elevation(page)).toContainText(/sags 1 mm, drawn × \d+/)
  const constant = page.getByTestId('constant')
  await expect(constant).toContainText('Hold 300 mm')
  await page.getByRole('radio', { name: /Just off/ }).click()
  await expect(constant).toContainText('Hold 6 mm')
  await type(page.getByLabel('Off the faces'), '25')
  await expect(constant).toContainText('Hold 25 mm')
  await type(page.getByLabel("Today's wind, km/h"), '64')
  await expect(page.locator('[data-finding="drift"]')).toContainText('out of line')
  await page.getByRole('button', { name: 'Set Street side by eye' }).click()
  await expect(constant).toContainText('No string. Set P1 and P15 first')
  await expect(page.getByRole('row', { name: /^P2/ })).toBeVisible()
  await expect(page.getByTestId('reminders')).toContainText('straightest face')
  await expect(elevation(page)).toContainText('line of sight')
  await expect(page.getByLabel('Props under it')).toBeHidden()
  await page.getByRole('radio', { name: /^Offset/ }).click()
  await type(page.getByLabel('Props under it'), '0')
  await expect(page.locator('[data-finding="sag"]')).toContainText('sags')
  await page.locator('[data-finding="sag"] [data-ways] button').click()
  await expect(page.locator('[data-finding="sag"]')).toBeHidden()
  await stage(page, 'Pour')
  await expect(page.getByTestId('reminders')).toContainText('to the right')
})

test('a run taped along the slope is reduced to level, and says by how much', async ({ page, mallow }) => {
  await open(page, mallow)
  await stage(page, 'Walk')
  await choose(page, 'Taped', 'along the slope')
  // The Lane's pieces by Pythagoras: 131' 6" along the ground are 1 1/8" less level.
  await expect(page.getByText(/Level, it is/)).toContainText(`131′ 4`)
  await expect(page.getByText(/Level, it is/)).toContainText('the slope takes')
  await saved(page)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByText(/Level, it is/)).toBeHidden()
})

test('a drop is dragged in the drawing, and the entry follows', async ({ page, mallow }) => {
  await open(page, mallow, 'Pipit Yard')
  await stage(page, 'Walk')
  await part(page, 'Ground')
  const drop = page.getByLabel('Drop of row 3')
  const was = Number.parseInt(await drop.inputValue())
  const point = page.getByRole('slider', { name: 'Ground height at 8.000 m' })
  await point.focus()
  await page.keyboard.press('ArrowUp') // the ground a mark higher is a drop a mark shorter
  await expect(drop).toHaveValue(`${was - 1} mm`)
  await page.waitForTimeout(700)
  await saved(page)
  const box = (await point.boundingBox())!
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2]
  await page.mouse.move(x, y)
  await page.mouse.down()
  await page.mouse.move(x, y + 12, { steps: 4 })
  await page.mouse.up()
  await expect.poll(async () => Number.parseInt(await drop.inputValue())).toBeGreaterThan(was + 20)
  await saved(page)
})

test('ten thousand ground points are paged, not poured out', async ({ page, mallow }, info) => {
  await open(page, mallow)
  await stage(page, 'Walk')
  await part(page, 'Files')
  const file = info.outputPath('ground.csv')
  const rows = Array.from({ length: 10_000 }, (_, i) => `${((131.4 * i) / 9999).toFixed(5)},${(3 * Math.sin(i / 900)).toFixed(4)}`)
  writeFileSync(file, 'station_ft,height_ft\n' + rows.join('\n'))
  await page.getByLabel('Choose a file with points').setInputFiles(file)
  await expect(page.getByTestId('import-look')).toContainText('ground of this run at 10000 stations')
  await page.getByRole('button', { name: 'Import' }).click()
  await saved(page)
  await expect(elevation(page)).toContainText('10000 ground points: zoom in to drag them')
  await part(page, 'Ground')
  await expect(page.getByText('1 to 60 of 10000')).toBeVisible()
  await page.getByRole('button', { name: 'Next', exact: true }).click()
  await expect(page.getByLabel('Distance of ground point 61')).toBeVisible()
  // One that is added brings its own page.
  await type(page.getByLabel('Distance of a new ground point'), `131' 5"`)
  await expect(page.getByLabel('Height of the new ground point')).toBeFocused()
  await page.keyboard.type('-12')
  await page.keyboard.press('Enter')
  await expect(page.getByText('9961 to 10001 of 10001')).toBeVisible()
  await expect(page.getByLabel('Height of ground point 10001')).toHaveValue('-12"')
})

test('a new job begins with a file', async ({ page, mallow }, info) => {
  await emptyJob(page, mallow.url, 'Surveyed', 'metric')
  await page.getByRole('button', { name: 'or read points or a track from a file' }).click()
  const track = info.outputPath('yard.geojson')
  const ring = [[8, 50, 100], [8.0005, 50, 100.4], [8.0005, 50.0003, 101], [8, 50.0003, 100.2], [8, 50, 100]]
  writeFileSync(track, JSON.stringify({ type: 'Polygon', coordinates: [ring] }))
  await page.getByLabel('Choose a file with points').setInputFiles(track)
  const look = page.getByTestId('import-look')
  await expect(look).toContainText('closed line of 4 runs')
  // 0.0005 degrees of longitude at 50 degrees north are 35.84 m (published radii: NIMA TR8350.2).
  await expect(look).toContainText('35.84')
  await page.getByRole('button', { name: 'Import' }).click()
  await expect(page.getByRole('navigation', { name: 'Runs' }).getByRole('button')).toHaveCount(4)
  await expect(elevation(page)).not.toHaveAttribute('data-posts', '0')
  await part(page, 'Line and corners')
  await expect(page.getByTestId('closing')).toContainText("closes to the tape's mark")
  await part(page, 'Files')
  await expect(page.getByLabel('Latitude, °')).toHaveValue('50')
  await expect(page.getByRole('link', { name: 'GeoJSON' })).toBeVisible()
})

test('a corner keeps its turn whichever way it is said to be measured', async ({ page, mallow }) => {
  await open(page, mallow)
  await stage(page, 'Walk')
  await runBar(page, 'Round the trees').click()
  const turn = page.getByText('turns 80.02° left')
  await expect(turn).toBeVisible()
  for (const [way, field, value] of [
    ['angle between the runs', 'Degrees between the runs', /^99\.98/],
    ['turn off the straight-on line', 'Corner angle, ° (90 is square)', /^80\.01/],
    ['an offset', 'Along the old line', /^\d+' \d/],
    ['a measured diagonal', 'Leg back', /^65' 0"/],
  ] as const) {
    await choose(page, 'Measured by', way)
    await expect(page.getByLabel(field)).toHaveValue(value)
    await expect(turn).toBeVisible()
    await expect(load(page, 'posts')).toContainText('40')
  }
  // The other hand: the whole line folds over, and the map says so.
  await page.getByRole('radio', { name: 'Right' }).first().click()
  await expect(page.getByText('turns 80.02° right')).toBeVisible()
  await choose(page, 'Measured by', 'not measured')
  await expect(page.getByText('not known yet: drawn straight on')).toBeVisible()
  await expect(siteMap(page).getByText('99.98°')).toBeHidden()
})

test('a page of rises and falls starts at a point and goes from each to the next', async ({ page, mallow }) => {
  await open(page, mallow)
  await stage(page, 'Walk')
  await page.getByRole('button', { name: 'Line', exact: true }).click()
  // The server adds it: until then the fields are those of the run before.
  await expect(page.getByLabel('Run', { exact: true })).toHaveValue('Run 4')
  await type(page.getByLabel('Run length'), '40ft')
  await saved(page)
  await part(page, 'Ground')
  await page.getByRole('button', { name: 'Rise and fall', exact: true }).last().click()
  await expect(page.getByText('starts here')).toBeVisible()
  for (const [at, rise] of [['10ft', '6'], ['20ft', '-2'], ['40ft', '12']] as const) {
    await type(page.getByLabel('Distance of the next row'), at)
    await expect(page.getByLabel('Rise of the next row')).toBeFocused()
    await page.keyboard.type(rise)
    await page.keyboard.press('Enter')
  }
  await expect(page.getByLabel('Rise of row 4')).toHaveValue('12"')
  // 6 up, 2 down, 12 up: the far end stands 16 in over the start, and is drawn so.
  await expect(page.getByText('16″').first()).toBeVisible()
  // A station out of order goes where it belongs.
  await type(page.getByLabel('Distance of the next row'), '30ft')
  await expect(page.getByLabel('Rise of the next row')).toBeFocused()
  await page.keyboard.type('3')
  await page.keyboard.press('Enter')
  await expect(page.getByLabel('Distance of row 4')).toHaveValue(`30' 0"`)
  await page.getByRole('button', { name: 'Remove page' }).click()
  await expect(page.getByRole('heading', { name: 'Ground heights' })).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('button', { name: /^Rise and fall, Run 4/ })).toBeVisible()
})

test('an old post that stays is built onto, and one that goes is in the way', async ({ page, mallow }) => {
  await open(page, mallow, 'Pipit Yard')
  await stage(page, 'Walk')
  await part(page, 'Obstructions')
  await page.getByRole('button', { name: 'Add obstruction' }).click()
  await choose(page, 'What', 'Existing post')
  const old = page.getByRole('group', { name: /Existing post at/ })
  const second = page.getByRole('row', { name: /^P2/ })
  const marks = async () => {
    await stage(page, 'Post spacing')
    await page.getByRole('tab', { name: 'Set out' }).click()
  }
  await type(old.getByLabel('Middle at'), '1.75m') // P2 belongs at 1.8 m
  await type(old.getByLabel('Wide'), '100')
  // It goes: its footing is in the way, and P2 makes way for it.
  await marks()
  await expect(second).not.toContainText('1.750')
  await expect(second).not.toContainText('1.800')
  // It stays: it is P2.
  await stage(page, 'Walk')
  await old.getByRole('radio', { name: 'Stays' }).click()
  await marks()
  await expect(second).toContainText('1.750')
  await page.getByRole('button', { name: 'Next post' }).click()
  await expect(page.getByText('Old post stays', { exact: true })).toBeVisible()
  await expect(page.getByText('1 old post is built onto')).toBeAttached() // the load stands behind the findings
  await stage(page, 'Walk')
  await choose(page, 'What', 'Rock')
  await marks()
  await expect(second).not.toContainText('1.750')
  await stage(page, 'Walk')
  await page.getByRole('button', { name: /^Remove Rock/ }).click()
  await expect(page.getByText('Nothing noted yet.')).toBeVisible()
  await saved(page)
})
