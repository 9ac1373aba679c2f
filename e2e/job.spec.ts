import { elevation, expect, load, nudge, open, part, runLoad, saved, stage, test, view, withoutCore } from './mallow'

// The run worked by hand outside this project: 131 ft 6 in, 18 posts, and 12
// x 42 in holes that take 80 bags of 60 lb.
test('a new job to its totals by keyboard alone', async ({ page, mallow }) => {
  await page.goto(mallow.url)
  await expect(page.getByRole('heading', { name: 'Jobs' })).toBeVisible()
  const focus = async (what: string) => {
    for (let i = 0; i < 60; i++) {
      const name = await page.evaluate(() => {
        const e = document.activeElement as HTMLElement | null
        if (e === document.body || e?.role === 'tabpanel') return ''
        return e?.getAttribute('aria-label') ?? (e as HTMLInputElement)?.labels?.[0]?.textContent ?? e?.textContent ?? ''
      })
      if (name.includes(what)) return
      await page.keyboard.press('Tab')
    }
    throw new Error(`the keyboard never reaches ${what}`)
  }
  await focus('New job')
  await page.keyboard.press('Enter')
  await page.getByRole('dialog', { name: 'New job' }).waitFor()
  await focus('End post to end post')
  await page.keyboard.type(`131' 6"`)
  await focus('Frost depth')
  await page.keyboard.type('36')
  await focus('Name of the job')
  await page.keyboard.type('By hand')
  await page.keyboard.press('Enter')
  await expect(load(page, 'posts')).toContainText('18')
  await focus('Post spacing')
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowRight')
  await expect(page.getByRole('tab', { name: 'Dig' })).toHaveAttribute('aria-selected', 'true')
  await focus('Hole card')
  await page.keyboard.press('ArrowDown')
  await focus('Below the frost by')
  await page.keyboard.type('0')
  await page.keyboard.press('Enter')
  await expect(load(page, 'bags')).toContainText('84 bags')
  await expect(page.getByTestId('load')).toContainText('1.39 yd³')
  await expect(page.getByTestId('load')).toContainText('18 × 12″ wide, 42″ deep')
  await saved(page)
})

test('the gate is dragged, undone, redone, and a reload keeps it', async ({ page, mallow }) => {
  await open(page, mallow)
  const gate = page.getByRole('slider', { name: /Orchard gate/ })
  await expect(gate).toHaveAttribute('aria-valuetext', `49' 0"`)
  const box = (await gate.boundingBox())!
  const [x, y] = [box.x + box.width / 2, box.y + 20]
  await page.mouse.move(x, y)
  await page.mouse.down()
  await page.mouse.move(x + 120, y, { steps: 12 })
  // Live: the fence follows before the gate is let go.
  await expect(page.getByLabel('Middle at')).not.toHaveValue(`49' 0"`)
  await page.mouse.up()
  await saved(page)
  const moved = (await gate.getAttribute('aria-valuetext'))!
  expect(moved).toMatch(/^6[567]' \d+"$/) // 120 pixels are some 17 feet; dragging stays on whole inches
  await page.getByRole('tab', { name: 'Set out' }).click()
  await expect(page.getByRole('row', { name: /(hinge|latch) 6\d′/ })).not.toHaveCount(0)

  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(gate).toHaveAttribute('aria-valuetext', `49' 0"`)
  await page.keyboard.press('Control+Shift+z')
  await expect(gate).toHaveAttribute('aria-valuetext', moved)
  await page.reload()
  await expect(gate).toHaveAttribute('aria-valuetext', moved)

  // By keyboard it goes one mark at a time, and a row of nudges is one step.
  await gate.focus()
  await nudge(gate, 'ArrowRight', 2)
  await expect(gate).toHaveAttribute('aria-valuetext', moved.replace('"', ' 1/8"'))
  await expect(page.getByRole('button', { name: 'Redo' })).toBeDisabled()
  await saved(page)
  await page.waitForTimeout(700) // the nudges settle half a second after the last
  await saved(page)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(gate).toHaveAttribute('aria-valuetext', moved)
  await page.getByRole('button', { name: 'History' }).click()
  await expect(page.getByRole('dialog')).toContainText(`Orchard gate to ${moved}`)
  await page.getByRole('button', { name: 'Go back to revision 1' }).click()
  await expect(gate).toHaveAttribute('aria-valuetext', `49' 0"`)
})

test('a gate is dragged by touch', async ({ browser, mallow }) => {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true })
  await withoutCore(context)
  const page = await context.newPage()
  await open(page, mallow)
  const gate = page.getByRole('slider', { name: /Orchard gate/ })
  const box = (await gate.boundingBox())!
  expect(Math.min(box.width, box.height)).toBeGreaterThanOrEqual(44)
  const cdp = await context.newCDPSession(page)
  const [x, y] = [box.x + box.width / 2, box.y + 20]
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', dx: number) =>
    cdp.send('Input.dispatchTouchEvent', { type, touchPoints: type === 'touchEnd' ? [] : [{ x: x + dx, y }] })
  await touch('touchStart', 0)
  for (let dx = 5; dx <= 60; dx += 5) await touch('touchMove', dx)
  await touch('touchEnd', 60)
  await expect(gate).toHaveAttribute('aria-valuetext', /^7\d' /)
  await saved(page)
  await context.close()
})

test('a ground point is dragged, nudged and typed, and the posts follow', async ({ page, mallow }) => {
  await open(page, mallow)
  await stage(page, 'Walk')
  const point = page.getByRole('slider', { name: `Ground height at 80' 0"` })
  await expect(point).toHaveAttribute('aria-valuetext', '34"')
  const box = (await point.boundingBox())!
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2 - 10, { steps: 5 })
  const followed = () => point.getAttribute('aria-valuenow').then(Number)
  await expect.poll(followed).toBeGreaterThan(34 * 25.4 + 20)
  const half = await followed()
  // It goes on after plans have come.
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2 - 20, { steps: 5 })
  await expect.poll(followed).toBeGreaterThan(half + 20)
  await page.mouse.up()
  await page.waitForTimeout(700) // the last of the drag is on its way
  await saved(page)
  const lifted = Number((await point.getAttribute('aria-valuenow'))!)
  expect(lifted).toBeGreaterThan(34 * 25.4 + 50)
  await point.focus()
  await page.keyboard.press('ArrowUp')
  await expect.poll(async () => Number(await point.getAttribute('aria-valuenow'))).toBeCloseTo(lifted + 25.4 / 16, 3)
  await page.waitForTimeout(700)
  await saved(page)
  await part(page, 'Ground')
  const typed = page.getByLabel('Height of ground point 7')
  await typed.fill('2-10')
  await typed.press('Enter')
  await expect(point).toHaveAttribute('aria-valuetext', '34"')
})

test('tape entry keeps what is typed, says how it reads it, and what it does not understand', { tag: '@refused' }, async ({ page, mallow }) => {
  await open(page, mallow)
  const most = page.getByLabel('Most spacing, center to center')
  await most.fill('8 foo')
  await expect(page.getByText('Did not understand “foo”: not a unit that Mallow knows')).toBeVisible()
  await expect(most).toHaveAttribute('aria-invalid', 'true')
  await most.press('Enter')
  await expect(most).toHaveValue('8 foo') // nothing typed is lost, and nothing was taken
  await expect(runLoad(page)).toContainText('19 posts')
  await most.fill('1.8m')
  await expect(page.getByText(/read as\s+5′/)).toBeAttached()
  await most.press('Enter')
  await expect(runLoad(page)).toContainText('24 posts')
  await expect(load(page, 'posts')).toContainText('+5') // the difference, for a moment
  // A bare number is what a spacing can be; the other reading is one tap away.
  await most.fill('6')
  await expect(page.getByRole('button', { name: 'or 6 in' })).toBeVisible()
  await expect(page.getByText(/read as\s+6′/)).toBeAttached()
  await most.press('Enter')
  await expect(most).toHaveValue(`6' 0"`)
  await most.press('ArrowUp')
  await expect(most).toHaveValue(`6' 0 1/16"`)
  await most.press('Escape')
  await expect(most).toHaveValue(`6' 0"`)
  // What cannot be used is said at the field, with what is allowed; what was saved stays.
  await most.fill('2 mm')
  await most.press('Enter')
  await expect(page.getByText(/It must be/).first()).toBeVisible()
  await page.getByRole('button', { name: 'Back to what was saved' }).click()
  await expect(most).toHaveValue(`6' 0"`)
})

test('a figure opens its reasons, and a rule is changed from there', async ({ page, mallow }) => {
  await open(page, mallow)
  await stage(page, 'Dig')
  await page.getByRole('button', { name: /^48″.*P1 dig: why/ }).click()
  const why = page.getByRole('dialog', { name: 'Why: P1 dig' })
  await expect(why).toContainText('36″ frost + 6″ = 42″ governs over share of the post')
  await expect(why).toContainText('common practice')
  await expect(why).toContainText('local building office')
  const margin = why.getByLabel('Below the frost by')
  await margin.fill('12')
  await margin.press('Enter')
  await expect(why).toContainText('36″ frost + 12″ = 48″ governs')
  await expect(why).toContainText('changed; usually 6"')
  await expect(runLoad(page)).toContainText('121 bags')
  await page.keyboard.press('Escape')
  await expect(why).toBeHidden()
  await expect(page.getByRole('button', { name: /^54″.*P1 dig: why/ })).toBeFocused()
})

test('a finding offers its ways out, and one tap takes one', async ({ page, mallow }) => {
  await open(page, mallow)
  await stage(page, 'Slope')
  const finding = page.locator('[data-finding="corridor"]')
  await expect(finding).toContainText('6 of 18 bays cannot keep the gap')
  await finding.getByRole('button', { name: 'Rack it: no soil to move' }).click()
  await expect(finding).toBeHidden()
  await expect(page.getByRole('radio', { name: /Racked/ })).toBeChecked()
  await saved(page)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(finding).toBeVisible()
})

test('posts are walked by keyboard, and stage and zoom keep the place', async ({ page, mallow }) => {
  await open(page, mallow)
  const drawing = elevation(page)
  await drawing.focus()
  for (let i = 0; i < 6; i++) await page.keyboard.press('ArrowRight')
  await expect(page.getByTestId('post')).toHaveText('P7')
  await page.keyboard.press('+')
  await stage(page, 'Pour')
  await expect(page.getByTestId('post')).toHaveText('P7')
  await expect(page.getByRole('button', { name: 'Zoom out' })).toBeEnabled()
  await view(page, /^Vertical scale/)
  await page.getByRole('button', { name: /^View/ }).click()
  await expect(page.getByRole('button', { name: /^Vertical scale ×1 / })).toHaveAttribute('aria-pressed', 'true')
  await page.keyboard.press('Escape')
  await drawing.focus()
  await page.keyboard.press('End')
  await expect(page.getByTestId('post')).toHaveText('P19')
})

test('gates are added and taken out; a bad place is refused with a way back', { tag: '@refused' }, async ({ page, mallow }) => {
  await open(page, mallow)
  await page.getByRole('button', { name: 'Add a gate' }).click()
  await expect(page.getByRole('slider', { name: /Gate 2/ })).toBeVisible()
  await saved(page)
  const second = page.getByRole('group', { name: 'Gate 2' })
  await second.getByLabel('Middle at').fill('200ft')
  await second.getByLabel('Middle at').press('Enter')
  await expect(page.getByText(/so that both gate posts stand on the run/).first()).toBeVisible()
  await expect(page.getByText('Drawn as it last fitted')).toBeVisible()
  await page.getByRole('button', { name: 'Back to what was saved' }).click()
  await second.getByRole('button', { name: 'Remove Gate 2' }).click()
  await expect(page.getByRole('slider', { name: /Gate 2/ })).toBeHidden()
  await expect(runLoad(page)).toContainText('19 posts')
})
