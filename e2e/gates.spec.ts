import type { Page } from '@playwright/test'
import { expect, finding, open, part, saved, stage, test, type } from './mallow'

const gate = (page: Page, name: string) =>
  page.getByRole('group', { name: 'Gates of the job' }).getByRole('button', { name: new RegExp(`^${name}`) }).click()
const swing = (page: Page) => page.getByTestId('swing')
const undo = (page: Page) => page.getByRole('button', { name: /^Undo/ }).click()
/** The plan of the job as it is saved. */
async function plan(page: Page) {
  const id = /\/jobs\/([^/?]+)/.exec(page.url())![1]!
  const state = await (await page.request.get(new URL(`/api/jobs/${id}`, page.url()).href)).json()
  return (await page.request.post(new URL('/api/plan', page.url()).href, {
    data: JSON.stringify(state.doc),
    headers: { 'content-type': 'application/json', origin: new URL(page.url()).origin },
  })).json()
}

test('a vehicle gate on a rising drive strikes; each way out clears it, and is undone', async ({ page, mallow }) => {
  await open(page, mallow)
  await stage(page, 'Gates')
  await gate(page, 'Cart gate')
  await expect(finding(page, 'leaf-strikes')).toBeHidden()
  await page.getByRole('radio', { name: 'One leaf' }).click()
  const struck = finding(page, 'leaf-strikes')
  await expect(struck).toContainText('strikes the ground')
  await saved(page)
  await part(page, 'Swing')
  await expect(swing(page)).toContainText('strikes the ground')
  await expect(page.getByRole('img', { name: /seen from the side/ })).toHaveAccessibleDescription(/strikes/)
  const ways = [/^Swing it out/, /^Two leaves/, /^A gap of/, /^Rising hinges/, /^Cut the ground/]
  for (const way of ways) {
    await struck.getByRole('button', { name: way }).click()
    await expect(struck, String(way)).toBeHidden()
    await expect(swing(page), String(way)).not.toContainText('strikes')
    await saved(page)
    if (way.source.startsWith('^Cut')) await expect(page.getByText(/The ground in its way is cut/)).toBeVisible()
    await undo(page)
    await expect(struck, String(way)).toBeVisible()
    await expect(swing(page)).toContainText('strikes the ground')
  }
  // Measured again, the drive rises less: nothing is in the way.
  const level = page.getByRole('group', { name: 'Height 1 inside' })
  await type(level.getByLabel('At P5'), '1in')
  await type(level.getByLabel('At P6'), '1in')
  await expect(struck).toBeHidden()
})

test('a leaf is dragged open and the gap followed, by mouse and by keys', async ({ page, mallow }) => {
  await open(page, mallow)
  await stage(page, 'Gates')
  await gate(page, 'Barrow gate')
  await part(page, 'Swing')
  const leaf = page.getByRole('slider', { name: /The leaf on P8/ })
  await leaf.focus()
  await page.keyboard.press('Home')
  await expect(leaf).toHaveAttribute('aria-valuenow', '0')
  await expect(page.getByRole('img', { name: /0° open, seen from the side/ })).toBeVisible()
  await page.keyboard.press('End')
  await expect(leaf).toHaveAttribute('aria-valuenow', '90')
  await leaf.scrollIntoViewIfNeeded()
  const grip = (await leaf.locator('circle').last().boundingBox())!
  const from = { x: grip.x + grip.width / 2, y: grip.y + grip.height / 2 }
  await page.mouse.move(from.x, from.y)
  await page.mouse.down()
  await page.mouse.move(from.x + 60, from.y + 20, { steps: 4 })
  await page.mouse.up()
  const now = Number(await leaf.getAttribute('aria-valuenow'))
  expect(now).toBeGreaterThan(30)
  expect(now).toBeLessThan(88)
  await expect(page.getByRole('img', { name: new RegExp(`${now}° open, seen from the side`) })).toBeVisible()
  // Swung both ways it goes out as far as in.
  await page.getByRole('radio', { name: 'both' }).click()
  await saved(page)
  await leaf.focus()
  await page.keyboard.press('Home')
  await expect(leaf).toHaveAttribute('aria-valuenow', '-90')
  await expect(leaf).toHaveAttribute('aria-valuetext', /90° out, least gap/)
})

test('a walk gate moved along a panel run re-spaces both sides, and stays exact', async ({ page, mallow }) => {
  await open(page, mallow)
  const before = (await plan(page)).runs[0]
  const handle = page.getByRole('slider', { name: 'Orchard gate, middle of the opening' })
  await handle.focus()
  for (let i = 0; i < 3; i++) await page.keyboard.press('Shift+ArrowRight')
  await expect(page.getByLabel('Middle at')).toHaveValue(`49' 3"`)
  // Keys settle a moment later, as one revision.
  await expect.poll(async () => (await plan(page)).runs[0].gates[0].at).toBeCloseTo(before.gates[0].at + 76.2, 3)
  const after = (await plan(page)).runs[0]
  const k = after.bays.findIndex((b: { gate?: string }) => b.gate)
  expect(after.bays[k].clear).toBeCloseTo(before.bays[k].clear, 6)
  const moved = (i: number) => after.posts[i].station - before.posts[i].station
  expect(moved(k)).toBeCloseTo(76.2, 3)
  expect(moved(k - 1), 'the post before the gate').toBeGreaterThan(1)
  expect(moved(k + 2), 'the post after it').toBeGreaterThan(1)
  expect(moved(0)).toBe(0)
  expect(moved(after.posts.length - 1)).toBe(0)
  await page.getByRole('button', { name: 'Size and hang it' }).click()
  await expect(page.getByTestId('distances')).toContainText('Between posts 48″')
})

test('any one measure sizes a gate; hardware moves what follows', async ({ page, mallow }) => {
  await open(page, mallow)
  await stage(page, 'Gates')
  const sizes = page.getByTestId('distances')
  await type(page.getByLabel('Leaf width', { exact: true }), `3' 10"`)
  // 46 + 3 1/4 + 1 1/4 in, and one 3 1/2 in post more, and another.
  await expect(sizes).toContainText('50 1/2')
  await expect(sizes).toContainText('54″')
  await expect(sizes).toContainText('57 1/2')
  await page.getByRole('combobox', { name: /^Hardware/ }).click()
  await page.getByRole('option', { name: 'Butts or spring hinges' }).click()
  await expect(sizes).toContainText('47 1/4') // 46 + 1/2 + 3/4
  await type(page.getByRole('textbox', { name: 'Clear opening' }), `4'`)
  await expect(page.getByLabel('Leaf width', { exact: true })).not.toHaveValue(`46"`)
  await expect(page.getByRole('textbox', { name: 'Between posts' })).toHaveValue(/49/)
  await sizes.getByRole('button', { name: /Clear opening: why/ }).click()
  await expect(page.getByRole('dialog')).toContainText('less what the open leaf takes')
  await page.keyboard.press('Escape')
  await type(page.getByRole('textbox', { name: 'Between posts' }), `5'`)
  await expect(page.getByRole('textbox', { name: 'Between posts' })).toHaveValue(`5' 0"`)
})

test('a bad size is refused with what is allowed', { tag: '@refused' }, async ({ page, mallow }) => {
  await open(page, mallow)
  await stage(page, 'Gates')
  await type(page.getByLabel('Leaf width', { exact: true }), '2in')
  await expect(page.getByText(/It must be/).first()).toBeVisible()
  await page.getByRole('button', { name: 'Back to what was saved' }).click()
  await expect(page.getByRole('textbox', { name: 'Between posts' })).toHaveValue('48"')
})

test('it is hung from the screen: marks, steps, and a drop taken out', async ({ page, mallow }) => {
  await open(page, mallow)
  await stage(page, 'Gates')
  await part(page, 'Hang it')
  const marks = page.getByTestId('hang-marks')
  await expect(marks.getByRole('row', { name: /Bottom hinge, pin up/ })).toContainText('12″')
  await expect(marks.getByRole('row', { name: /Top hinge, pin down/ })).toContainText('4″ up')
  await expect(marks.getByRole('row', { name: /Latch/ })).toContainText('40″')
  await expect(page.getByText(/Block the leaf up/)).toBeVisible()
  await type(page.getByLabel('Drop at the tip'), '1/2')
  // 1/2 × 58 1/8 over 43 1/2 in, at 11 threads to the inch.
  await expect(page.getByTestId('turns')).toContainText('7.25 turns')
  await type(page.getByLabel('Drop at the tip'), '2')
  await expect(page.getByTestId('turns')).toContainText('plumb the post')
  await expect(finding(page, 'tip-drop')).toBeVisible()
  await type(page.getByLabel('Drop at the tip'), '')
  await expect(finding(page, 'tip-drop')).toBeHidden()
})

test('a gate in a pool barrier is asked what codes ask', async ({ page, mallow }) => {
  await open(page, mallow)
  await stage(page, 'Gates')
  await part(page, 'Drive and safety')
  await page.getByRole('checkbox', { name: /barrier round a pool/ }).check()
  await finding(page, 'pool-swing').getByRole('button', { name: 'Swing it out' }).click()
  await expect(finding(page, 'pool-swing')).toBeHidden()
  await finding(page, 'pool-latch').getByRole('button', { name: /Latch at/ }).click()
  await expect(finding(page, 'pool-latch')).toBeHidden()
  await expect(finding(page, 'pool-gap')).toBeVisible()
  await type(page.getByLabel('Line to curb or road'), `2'`)
  await expect(finding(page, 'gate-into-road')).toContainText('past the curb')
})

test('gates are put in where the run offers them, and a short panel makes up the rest', async ({ page, mallow }) => {
  await open(page, mallow)
  await stage(page, 'Gates')
  await page.getByRole('button', { name: 'Add gate' }).click()
  await expect(page.getByRole('button', { name: /across the whole run/ })).toBeDisabled()
  await page.getByRole('button', { name: /^Gate at the run's end/ }).click()
  await expect(page.getByRole('button', { name: /^Gate 2/ })).toHaveAttribute('aria-pressed', 'true')
  await saved(page)
  const run = (await plan(page)).runs[0]
  expect(run.gates[1].second).toBe(run.posts[run.posts.length - 1].label)
  await page.getByRole('radio', { name: 'Sliding' }).click()
  await expect(finding(page, 'run-back')).toContainText('runs back')
  await finding(page, 'run-back').getByRole('button', { name: /past the other post/ }).click()
  await expect(finding(page, 'run-back')).toBeHidden()
  await saved(page)
  await undo(page)
  await expect(finding(page, 'run-back')).toBeVisible()
})

test('post lengths say how deep they stand, and set it', async ({ page, mallow }) => {
  await open(page, mallow)
  await stage(page, 'Gates')
  await part(page, 'Posts')
  const post = page.getByRole('region', { name: 'P7, hinge post' })
  await expect(post).toContainText('taken')
  await expect(page.getByRole('region', { name: 'P8, latch post' })).toBeVisible()
  await post.getByRole('button', { name: /Set gate posts of 14' 0" as deep/ }).click()
  await expect(post.locator('tr', { hasText: '14′ 0″' })).toContainText('taken')
  await saved(page)
  await undo(page)
  await expect(post.locator('tr', { hasText: '12′ 0″' })).toContainText('taken')
})
