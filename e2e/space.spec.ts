import type { Page } from '@playwright/test'
import { elevation, expect, finding, load, open, part, saved, siteMap, stage, test, type, emptyJob } from './mallow'

async function choose(page: Page, label: string, option: string | RegExp) {
  await page.locator('[data-select-trigger]').filter({ visible: true }).and(page.getByLabel(label)).first().click()
  await page.getByRole('option', { name: option, exact: true }).click()
}
const runBar = (page: Page, name: string) =>
  page.getByRole('navigation', { name: 'Runs' }).getByRole('button', { name, exact: true })
const handle = (page: Page, post: string) => page.getByRole('slider', { name: new RegExp(`^${post}(,| )`) })
const count = async (page: Page, what: string) => parseInt((await load(page, what).innerText()).match(/\d+/)![0])

/** A level run of the usual fence, 60 ft long. */
async function sixtyFeet(page: Page, url: string) {
  await emptyJob(page, url, 'Sixty feet')
  await type(page.getByLabel('1. How long is the run?'), '60ft')
  await type(page.getByLabel('2. How does the ground go?'), '0')
  await type(page.getByLabel('3. How deep does the frost go?'), '36')
  await page.getByRole('button', { name: 'Go on' }).click()
  await expect(load(page, 'posts')).toContainText('9')
}

test('a water pipe across and old footings along: the clash, a way out, the load, and undo', async ({ page, mallow }) => {
  await sixtyFeet(page, mallow.url)
  await stage(page, 'Walk')
  await part(page, 'Obstructions')
  // The pipe lies under P4, at 22 ft 6 in: the post makes way by itself.
  await page.getByRole('button', { name: 'Add obstruction' }).click()
  await type(page.getByLabel('Middle at').first(), '22-6')
  await saved(page)
  await stage(page, 'Post spacing')
  await expect(finding(page, 'shifted')).toContainText('P4')
  await expect(finding(page, 'shifted')).toContainText('misses the drinking water line')
  await expect(elevation(page)).toHaveAttribute('data-posts', '9')
  await expect(finding(page, 'blocked')).toBeHidden()

  // Ten feet of old footings is more than any bay spans.
  await stage(page, 'Walk')
  await page.getByRole('button', { name: 'Add obstruction' }).click()
  await page.getByLabel('What').last().click() // the first is the pipe
  await page.getByRole('option', { name: 'Old footing' }).click()
  const footing = page.getByRole('group', { name: /^Old footing/ })
  await type(footing.getByLabel('Middle at'), '40ft')
  await type(footing.getByLabel('Wide'), '10ft')
  await saved(page)
  await stage(page, 'Post spacing')
  const clash = finding(page, 'blocked')
  await expect(clash).toContainText('old footing')
  await expect(clash).toContainText('the longest bay is 8′ 0″')
  await expect(clash).toContainText('planned as if nothing were in the way there')
  const bags = await count(page, 'bags')
  const posts = await count(page, 'posts')

  // Each way out says what it costs before it is taken.
  const way = clash.getByRole('button', { name: /Dig out the old footing/ })
  await expect(way).toContainText(/\+\d+ bags/)
  const more = parseInt((await way.innerText()).match(/\+(\d+) bag/)![1]!)
  await expect(load(page, 'bags')).not.toContainText('+') // what came before has settled
  await way.click()
  await expect(clash).toBeHidden()
  await expect(load(page, 'bags')).toContainText(`${bags + more} bags`)
  await expect(load(page, 'bags')).toContainText(`+${more}`)
  await saved(page)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(clash).toBeVisible()
  await expect(load(page, 'bags')).toContainText(`${bags} bags`)

  // The other way out: a longer bay over all of it.
  await clash.getByRole('button', { name: /Let a bay be as long as/ }).click()
  await expect(clash).toBeHidden()
  expect(await count(page, 'posts')).toBeLessThanOrEqual(posts)
  await expect(siteMap(page)).toBeVisible()
})

test('a post is pulled, the rest re-space while it moves, and it is let go', async ({ page, mallow }) => {
  await sixtyFeet(page, mallow.url)
  await stage(page, 'Post spacing')
  const p4 = handle(page, 'P4')
  const at = () => p4.getAttribute('aria-valuenow').then(Number)
  const other = () => handle(page, 'P2').getAttribute('aria-valuenow').then(Number)
  const before = await other()
  expect(await at()).toBeCloseTo(22.5 * 304.8, 0)
  const box = (await p4.boundingBox())!
  await page.mouse.move(box.x + box.width / 2, box.y + 12)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width / 2 - 14, box.y + 12, { steps: 4 })
  // Still under the finger, the posts before it have closed up.
  await expect.poll(other).toBeLessThan(before - 20)
  await page.mouse.up()
  await saved(page)
  await expect(page.getByRole('slider', { name: 'P4, fixed, distance from start' })).toBeVisible()
  const pulled = await at()
  expect(pulled).toBeLessThan(22.4 * 304.8)
  expect(await other()).toBeCloseTo(pulled / 3, 0)

  // Pulled on to where its stretch takes a bay more, it is still the one picked.
  await p4.focus()
  await expect(page.getByTestId('post')).toHaveText('P4')

  // The bench does the same: where it really landed, by the tape.
  await page.getByRole('tab', { name: /^Fixed posts/ }).click()
  await type(page.getByLabel('Stands at'), '22-9')
  await page.getByRole('radio', { name: 'Actually set here' }).click()
  // A post that landed off its mark moves nobody else: the bays beside it differ.
  await expect.poll(other).toBeCloseTo(before, 0)
  await expect(finding(page, 'landed')).toContainText('3″')
  await page.getByRole('radio', { name: 'Space the rest again' }).click()
  await expect.poll(other).toBeCloseTo((22.75 * 304.8) / 3, 0)
  await page.getByRole('radio', { name: 'Only the bays beside' }).click()
  await expect.poll(other).toBeCloseTo(before, 0)
  // It stands: it is not pulled any more, but what was taped wrong is corrected.
  await expect(p4).toHaveCount(0)
  await type(page.getByLabel('Stands at'), '22-9 1/16')
  await expect(page.getByLabel('Stands at')).toHaveValue(`22' 9 1/16"`)
  await page.getByRole('button', { name: 'Release P4' }).click()
  await expect(page.getByText('None is fixed.')).toBeVisible()
  await expect.poll(other).toBeCloseTo(before, 0)
})

test('a held post on the pipe is a clash, and each way out clears it', { tag: '@refused' }, async ({ page, mallow }) => {
  await sixtyFeet(page, mallow.url)
  await stage(page, 'Walk')
  await part(page, 'Obstructions')
  await page.getByRole('button', { name: 'Add obstruction' }).click()
  await type(page.getByLabel('Middle at').first(), '30ft')
  await stage(page, 'Post spacing')
  await elevation(page).press('ArrowRight')
  await page.getByRole('button', { name: 'Keep here' }).click()
  await page.getByRole('tab', { name: /^Fixed posts/ }).click()
  // A place in which no post can be held is refused, and what was saved stays.
  await type(page.getByLabel('Stands at'), '61ft')
  await expect(page.getByText(/at most 60′? ?'? ?0/).first()).toBeVisible()
  await type(page.getByLabel('Stands at'), '30ft')
  const clash = finding(page, 'in-the-way')
  await expect(clash).toContainText('Cannot be built.')
  await clash.getByRole('button', { name: /^Fix P\d 24.* on/ }).click()
  await expect(clash).toBeHidden()
  await page.getByRole('button', { name: 'Undo' }).click()
  await clash.getByRole('button', { name: /^Release P\d/ }).click()
  await expect(clash).toBeHidden()
  await expect(page.getByText('None is fixed.')).toBeVisible()
})

test('a fence system, its pieces, and a system of one’s own', async ({ page, mallow }) => {
  await open(page, mallow)
  await stage(page, 'Post spacing')
  await choose(page, 'Fence type', 'Metal panels')
  await expect(page.getByText('Panels of bars in brackets between metal posts.')).toBeVisible()
  await expect(page.getByText(/^Not packed in rock or gravel:/)).toBeVisible()
  await expect(page.getByTestId('system')).toContainText('racks at most 18″ a bay')
  await expect(page.getByTestId('system')).toContainText('common practice')
  await expect(page.getByRole('radio', { name: /Panels between posts/ })).toBeChecked()
  await expect(page.getByLabel('Panel length')).toHaveValue(`6' 0"`)
  await expect(finding(page, 'cut-piece')).toBeVisible()
  await page.getByRole('tab', { name: /^Pieces/ }).click()
  await expect(page.getByRole('heading', { name: /whole panels, \d cut/ })).toBeVisible()
  // Every panel cut alike, as a way out that says what it costs.
  const even = finding(page, 'cut-piece').getByRole('button', { name: /All bays equal/ })
  await expect(even).toContainText(/\+\d+ cut pieces/)
  await even.click()
  await expect(finding(page, 'cut-piece')).toBeHidden()

  await page.getByRole('tab', { name: 'Bays' }).click()
  await type(page.getByLabel('Panel length'), '70')
  await page.getByRole('button', { name: "Keep this run's values as a fence type" }).click()
  await page.getByLabel('Name of your fence type').fill('Our low panels')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await saved(page)
  await runBar(page, 'Compost bays').click()
  await choose(page, 'Fence type', /Our low panels/)
  await expect(page.getByLabel('Panel length')).toHaveValue(`5' 10"`)
  await saved(page)
  // It is kept in the job.
  await page.reload()
  await stage(page, 'Post spacing')
  await runBar(page, 'Compost bays').click()
  await expect(page.locator('[data-select-trigger]').filter({ visible: true }).first()).toContainText('Our low panels (own)')
})

test('layouts stand side by side with what they take, and one is taken', async ({ page, mallow }) => {
  await open(page, mallow)
  await runBar(page, 'Compost bays').click()
  await stage(page, 'Post spacing')
  await page.getByRole('tab', { name: 'Layouts' }).click()
  const layouts = page.locator('[data-layout]')
  await expect(layouts.first()).toContainText('As planned now')
  expect(await layouts.count()).toBeGreaterThanOrEqual(2)
  const full = page.locator('[data-layout="full"]')
  await expect(full).toContainText('Full bays, one short')
  const posts = await count(page, 'posts')
  const says = await full.innerText()
  const change = parseInt(says.match(/([+−]\d+) post/)?.[1]?.replace('−', '-') ?? '0')
  await full.getByRole('button', { name: 'Use this' }).click()
  await saved(page)
  await expect(load(page, 'posts')).toContainText(String(posts + change))
  await expect(page.locator('[data-layout="now"]')).toContainText('As planned now')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(full).toBeVisible()
})

test('rails break on posts, staggered, and the marks run from one end', async ({ page, mallow }) => {
  await open(page, mallow, 'Pipit Yard')
  await stage(page, 'Post spacing')
  await page.getByRole('tab', { name: /^Pieces/ }).click()
  const ends = async (row: number) => {
    const texts = await page.locator(`[data-rail="${row}"] li`).allInnerTexts()
    return texts.map((t) => /–(P\d+)/.exec(t)![1]!).slice(0, -1)
  }
  const [low, high] = [await ends(1), await ends(2)]
  expect(low.length).toBeGreaterThan(3)
  // Only the two posts of the gate carry both.
  expect(low.filter((p) => high.includes(p)).length).toBeLessThanOrEqual(1)

  await open(page, mallow)
  await stage(page, 'Post spacing')
  await page.getByRole('tab', { name: 'Set out' }).click()
  await expect(page.getByTestId('sticks')).toContainText('7′ 0')
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'The marks as CSV' }).click(),
  ])
  expect(file.suggestedFilename()).toMatch(/^Tansy Bank Orchard - Lane - Set-out - r\d+\.csv$/)
  // 131 ft 6 in is more than one tape: a pin at the last post within 100 ft.
  await expect(page.getByText(/^Pin 1 at/)).toContainText('at P14')
  const row = page.getByRole('row', { name: /^P15/ })
  await expect(row).toContainText(`102′ 3`)
  await expect(row).toContainText(`pin 1 + 7' 3 11/16"`)
  await expect(row).toContainText(`29′ 2`) // from the far end
})

test('a post stops at the gate, and stays picked when it gets another number', async ({ page, mallow }) => {
  await open(page, mallow)
  await stage(page, 'Post spacing')
  const p6 = handle(page, 'P6')
  const most = Number(await p6.getAttribute('aria-valuemax'))
  const box = (await p6.boundingBox())!
  await page.mouse.move(box.x + box.width / 2, box.y + 10)
  await page.mouse.down()
  await page.mouse.move(box.x + 160, box.y + 10, { steps: 5 }) // into the gate, were it not for its post
  await page.mouse.up()
  await saved(page)
  // A bay more stands before it: P6 has become P7.
  const held = page.getByRole('slider', { name: 'P7, fixed, distance from start' })
  expect(Number(await held.getAttribute('aria-valuenow'))).toBeCloseTo(most, 3)
  await expect(page.getByTestId('post')).toHaveText('P7')
  // The keys went along with it.
  await expect(held).toBeFocused()
  await page.keyboard.press('ArrowLeft')
  await saved(page)
  await expect.poll(async () => Number(await held.getAttribute('aria-valuenow'))).toBeLessThan(most - 1)
  await page.keyboard.press('Delete')
  await expect(page.getByRole('slider', { name: /fixed, distance from start/ })).toBeHidden()
})
