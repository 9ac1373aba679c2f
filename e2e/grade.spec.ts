import type { Page } from '@playwright/test'
import { elevation, expect, finding, open, part, saved, stage, test, type, emptyJob } from './mallow'

const runBar = (page: Page, name: string) =>
  page.getByRole('navigation', { name: 'Runs' }).getByRole('button', { name, exact: true })
const sums = (page: Page) => page.getByTestId('grade-sums')
const take = (page: Page, look: string) =>
  page.locator(`[data-look="${look}"]`).getByRole('button', { name: 'Use this' }).click()
const end = (page: Page, which: 'start' | 'end') => page.locator(`[data-string-end="${which}"]`)
/** Figures as words: 6' 3 7/16" in the tables. */
const cell = (page: Page, table: 'posts' | 'bays', row: string, head: string) =>
  page.locator(`[data-table="${table}"] tr`)
    .filter({ has: page.getByRole('button', { name: new RegExp(`^${row}( |$)`) }) })
    .locator(`td[data-column="${head}"]`)

/** A hillside: 80 ft that rise 5 ft, with a hump in the middle. */
async function hillside(page: Page, url: string) {
  await emptyJob(page, url, 'Hillside')
  await type(page.getByLabel('1. How long is the run?'), '80ft')
  await type(page.getByLabel('2. How does the ground go?'), '60')
  await type(page.getByLabel('3. How deep does the frost go?'), '36')
  await page.getByRole('button', { name: 'Go on' }).click()
  await stage(page, 'Slope')
}

test('the hillside in all four looks: compared, taken one after another, and undone', async ({ page, mallow }) => {
  await open(page, mallow)
  await stage(page, 'Slope')
  await expect(sums(page)).toContainText(/16\s+steps/)
  await part(page, 'Compare slopes')
  await expect(page.locator('[data-look]')).toHaveCount(8)
  // The planned one is among them and says so; a level fence here takes the most earth.
  await expect(page.locator('[data-look="stepped gradual"]')).toContainText('As planned now')
  const fill = async (look: string) =>
    parseFloat((await page.locator(`[data-look="${look}"] dd`).nth(1).innerText()).replace('none', '0'))
  expect(await fill('level')).toBeGreaterThan(await fill('stepped even'))
  expect(await fill('stepped even')).toBeGreaterThan(await fill('stepped least'))
  expect(await fill('rolling')).toBe(0)

  for (const [look, says] of [
    ['level', /0\s+grade posts, 0\s+steps; fill/],
    ['stepped round', /grade posts, \d+\s+steps; fill/],
    ['raked hug', / 0\s+steps; no soil to move/],
    ['rolling', /[1-9]\s+grade posts?, 0\s+steps; no soil to move/],
  ] as const) {
    await part(page, 'Compare slopes')
    await take(page, look)
    await expect(page.locator(`[data-look="${look}"]`)).toContainText('As planned now')
    await saved(page)
    await part(page, 'Slope type')
    await expect(sums(page)).toContainText(says)
  }
  // A rolling top: few strings, between few posts, and every other post on its line.
  await part(page, 'Set the tops')
  await page.getByRole('radio', { name: /^By eye/ }).click()
  await expect(page.getByTestId('top-steps')).toContainText('sight over the next set post')
  await expect(
    page
      .locator('table')
      .filter({ has: page.locator('caption', { hasText: /^Every top/ }) })
      .locator('tr')
      .filter({ has: page.getByRole('button', { name: /^P3( |$)/ }) })
      .locator('td')
      .nth(1),
  ).toContainText('on the line')
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await part(page, 'Slope type')
  await expect(sums(page)).toContainText(/ 0\s+steps; no soil to move/)
  await expect(page.getByRole('radio', { name: /^Racked/ })).toBeChecked()
})

test('the string is lifted by its end, live, held, and let go', async ({ page, mallow }) => {
  await open(page, mallow)
  await runBar(page, 'Round the trees').click()
  await stage(page, 'Slope')
  const before = await end(page, 'end').getAttribute('aria-valuenow')
  const box = (await end(page, 'end').boundingBox())!
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2 - 24, { steps: 6 })
  await expect(end(page, 'end')).toHaveAttribute('aria-label', /fixed/)
  await page.mouse.up()
  await saved(page)
  const lifted = Number(await end(page, 'end').getAttribute('aria-valuenow'))
  expect(lifted).toBeGreaterThan(Number(before) + 100)
  await expect(page.getByLabel('Gap kept at the last post')).not.toHaveValue('')
  // Higher than the corridor: said, with letting go as a way out.
  await expect(finding(page, 'corridor')).toContainText('fill')
  // By keys too, a mark at a time.
  await end(page, 'end').focus()
  await page.keyboard.press('ArrowDown')
  await expect(end(page, 'end')).toHaveAttribute('aria-valuenow', String(lifted - 1.5875))
  // Taken at once, the way out comes after the nudge, which has not settled yet.
  await finding(page, 'corridor').getByRole('button', { name: /^Release the string's ends/ }).click()
  await expect(end(page, 'end')).not.toHaveAttribute('aria-label', /fixed/)
  await expect(finding(page, 'corridor')).toBeHidden()
  await page.waitForTimeout(700) // longer than a nudge takes to settle
  await expect(end(page, 'end')).not.toHaveAttribute('aria-label', /fixed/)
  // Nor does a nudge come back after it is undone at once.
  await end(page, 'end').focus()
  await page.keyboard.press('PageUp')
  await expect(end(page, 'end')).toHaveAttribute('aria-label', /fixed/)
  await page.keyboard.press('Control+z')
  await expect(end(page, 'end')).not.toHaveAttribute('aria-label', /fixed/)
  await page.waitForTimeout(700)
  await expect(end(page, 'end')).not.toHaveAttribute('aria-label', /fixed/)
})

test('a hump: a way out is taken, the grade post is dragged, and the top is let go again', async ({
  page,
  mallow,
}) => {
  await hillside(page, mallow.url)
  await stage(page, 'Walk')
  await part(page, 'Ground')
  // A hump of 10 in between two posts.
  for (const [at, height] of [
    ['31ft', '23'],
    ['33ft', '36'],
    ['35ft', '26'],
  ]) {
    await type(page.getByLabel('Distance of a new ground point'), at!)
    const point = page.getByRole('slider', { name: `Ground height at ${parseInt(at!)}' 0"` })
    await expect(page.getByLabel('Height of the new ground point')).toBeFocused()
    await page.keyboard.type(height!)
    await page.keyboard.press('Enter')
    await expect(point).toHaveAttribute('aria-valuetext', `${height}"`)
    await saved(page)
  }
  await stage(page, 'Slope')
  await page.getByRole('radio', { name: /^Racked/ }).click()
  await saved(page)
  await expect(finding(page, 'corridor')).toContainText('cannot keep the gap')
  const ways = finding(page, 'corridor').locator('[data-ways] button')
  await expect.poll(() => ways.count()).toBeGreaterThan(1)
  const posts = Number(await elevation(page).getAttribute('data-posts'))
  await finding(page, 'corridor').getByRole('button', { name: /^A post at 33/ }).click()
  await saved(page)
  const grade = page.locator('[data-grade][data-held="F1"]')
  await expect(grade).toHaveAttribute('aria-valuetext', /^33' 0"/)
  // Dragged along and up: both are held.
  const box = (await grade.boundingBox())!
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width / 2 + 30, box.y + box.height / 2 - 30, { steps: 6 })
  await page.mouse.up()
  await saved(page)
  await expect(grade).not.toHaveAttribute('aria-valuetext', /^33' 0"/)
  await grade.focus()
  await page.keyboard.press('Delete')
  await expect(page.locator('[data-grade][data-held]')).toHaveCount(0)
  await expect(elevation(page)).toHaveAttribute('data-posts', String(posts))
})

test('part of a run has another look, from post to post', async ({ page, mallow }) => {
  await open(page, mallow)
  await stage(page, 'Slope')
  await page.getByRole('button', { name: /^Another slope or height from P1 to P4/ }).click()
  await saved(page)
  const row = page.locator('[data-part="0"]')
  await row.getByLabel('Slope type', { exact: true }).click()
  await page.getByRole('option', { name: 'Rolling' }).click()
  await saved(page)
  await part(page, 'Tops and bays')
  await expect(cell(page, 'bays', 'B2', 'lean')).toContainText('up')
  await expect(cell(page, 'bays', 'B9', 'lean')).toHaveText('')
  await part(page, 'Slope type')
  await page.getByRole('button', { name: 'Remove this part' }).click()
  await expect(page.locator('[data-part]')).toHaveCount(0)
})

test('the story stick is read, boards close the triangles, tops are cut first', async ({ page, mallow }) => {
  await open(page, mallow)
  await runBar(page, 'Round the trees').click()
  await stage(page, 'Slope')
  await part(page, 'Story stick')
  const stick = page.getByTestId('stick')
  // A 4 ft fence of three rails, marked 12 in below its top: worked by hand.
  for (const [mark, upper] of [
    ['Post cut, fence top', 'up 12″'],
    ['Top rail hole', 'up 7 3/4'],
    ['Middle rail hole', 'down 10 1/4'],
    ['Fence bottom', 'down 36″'],
  ])
    await expect(stick.getByRole('row', { name: new RegExp(`^${mark}`) })).toContainText(upper!)
  // A rail is moved by hand, and the stick follows; a rail over the fence is refused.
  await page.getByRole('button', { name: 'Place each by hand' }).click()
  await type(page.getByLabel('Top rail'), '45')
  await expect(stick.getByRole('row', { name: /^Top rail hole/ })).toContainText('up 10 3/4')
  await saved(page)
  await page.getByRole('button', { name: 'Spread them evenly' }).click()
  await expect(stick.getByRole('row', { name: /^Top rail hole/ })).toContainText('up 7 3/4')
  await runBar(page, 'Lane').click()
  await finding(page, 'corridor').getByRole('button', { name: /^Close it with boards cut/ }).click()
  await expect(finding(page, 'corridor')).toBeHidden()
  await part(page, 'Tops and bays')
  await expect(page.getByTestId('infills').locator('li').first()).toContainText('cut from')
  await page.getByRole('radio', { name: /^Cut first/ }).click()
  await saved(page)
  await expect(page.getByRole('columnheader', { name: 'Cut to' })).toBeVisible()
})

test('the line is seen from either end, near or far', async ({ page, mallow }) => {
  await open(page, mallow)
  await stage(page, 'Slope')
  await part(page, 'Along the line')
  const picture = page.getByTestId('along')
  const lowest = () => picture.locator('path').nth(1).getAttribute('d')
  const first = await lowest()
  await page.getByLabel('Look closer').fill('4')
  await expect.poll(lowest).not.toBe(first)
  const closer = await lowest()
  await page.getByRole('radio', { name: 'last post' }).click()
  await expect(picture.getByRole('img')).toHaveAttribute('aria-label', /from its last post/)
  await expect.poll(lowest).not.toBe(closer)
  expect(await lowest()).not.toContain('NaN')
})

test('one control goes from hugging the ground to shooting it straight', async ({ page, mallow }) => {
  await open(page, mallow)
  await stage(page, 'Slope')
  await page.getByRole('radio', { name: /^Racked/ }).click()
  await saved(page)
  const control = page.getByLabel('Follow the ground … straight line')
  await control.fill('0')
  await saved(page)
  await part(page, 'Tops and bays')
  const hugging = await cell(page, 'posts', 'P10', 'top_above_ground').innerText()
  await part(page, 'Slope type')
  await page.getByLabel('Follow the ground … straight line').fill('100')
  await saved(page)
  await part(page, 'Tops and bays')
  await expect(cell(page, 'posts', 'P10', 'top_above_ground')).not.toHaveText(hugging)
})

test('a look that the panels cannot have stays in sight, with the reason', async ({ page, mallow }) => {
  await open(page, mallow, 'Pipit Yard')
  await stage(page, 'Post spacing')
  await page.getByRole('combobox', { name: /^Fence type/ }).click()
  await page.getByRole('option', { name: /^Slotted concrete posts/ }).click()
  await saved(page)
  await stage(page, 'Slope')
  const raked = page.getByRole('radio', { name: /^Racked/ })
  await expect(raked).toBeDisabled()
  await expect(raked).toContainText('not here: these panels are rigid')
  await expect(page.getByRole('radio', { name: /^Stepped/ })).toBeEnabled()
})
