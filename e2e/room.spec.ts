import type { Page } from '@playwright/test'
import { elevation, expect, Mallow, open, part, saved, stage, test, withoutCore } from './mallow'

// A window as it is for who never changed it: no list is open.
test.beforeEach(async ({ page }) => {
  await page.addInitScript(() => {
    if (!sessionStorage.getItem('begun')) localStorage.removeItem('mallow.layout')
    sessionStorage.setItem('begun', 'yes')
  })
})

const stages = ['Walk', 'String', 'Post spacing', 'Slope', 'Gates', 'Dig', 'Pour', 'Build', 'Days', 'Log']
/** What of the work is in the window: the height of the bench, and where what is open begins. */
const seen = (page: Page) =>
  page.evaluate(() => {
    const bench = document.querySelector('[role=tabpanel]:not([hidden]) [data-bench]')!
    const box = bench.getBoundingClientRect()
    const part = bench.querySelector('[data-open-part]') ?? bench
    const first = [
      ...part.querySelectorAll('h2, h3, label, table, svg, p, input, [role=radio], button'),
    ].find((e) => {
      const r = e.getBoundingClientRect()
      return r.width > 0 && r.height > 0 && !e.closest('[role=tablist]')
    })
    const at = first?.getBoundingClientRect()
    return {
      height: Math.min(box.bottom, innerHeight) - box.top,
      top: at ? at.top - box.top : NaN, // A long list may go on; a drawing is whole.
      bottom: at
        ? innerHeight - (first!.tagName === 'TABLE' ? Math.min(at.bottom, at.top + 140) : at.bottom)
        : NaN,
      wide: Math.max(
        document.documentElement.scrollWidth - innerWidth,
        bench.scrollWidth - bench.clientWidth,
      ),
    }
  })

for (const [width, height] of [
  [1280, 800],
  [1024, 768],
] as const) {
  for (const job of ['Tansy Bank Orchard', 'Pipit Yard']) {
    test(`what is clicked is in the window: ${job}, ${width}x${height}`, async ({ page, mallow }) => {
      test.slow()
      await page.setViewportSize({ width, height })
      await open(page, mallow, job)
      let looked = 0
      const inSight = async (what: string) => {
        await expect(page.getByText(/^Opening /)).toHaveCount(0)
        // What is asked of the core stands there as soon as it is answered.
        await expect
          .poll(async () => (await seen(page)).top, { message: `${what}: begins in the bench` })
          .toBeLessThan(150)
        const s = await seen(page)
        expect(s.height, `${what}: height of the bench`).toBeGreaterThanOrEqual(420)
        expect(s.top, `${what}: begins under the top of the bench`).toBeGreaterThanOrEqual(0)
        expect(s.top, `${what}: begins in the bench`).toBeLessThan(150)
        expect(s.bottom, `${what}: its beginning is in the window`).toBeGreaterThan(0)
        expect(s.wide, `${what}: nothing runs off the side`).toBeLessThanOrEqual(0)
        looked++
      }
      for (const name of stages) {
        await stage(page, name)
        await inSight(name)
        const list = page.locator('[role=tabpanel]:not([hidden]) [role=tablist]')
        if (!(await list.count())) continue
        for (const tab of await list.getByRole('tab').all()) {
          // From wherever the part before was scrolled to.
          await page
            .locator('[role=tabpanel]:not([hidden]) [data-bench]')
            .evaluate((e) => e.scrollTo(0, e.scrollHeight))
          await tab.click()
          await inSight(`${name}, ${await tab.innerText()}`)
        }
      }
      expect(looked).toBeGreaterThan(25)
    })
  }
}

test('the drawing has three heights, by hand and by key, and keeps the last', async ({ page, mallow }) => {
  await open(page, mallow)
  const edge = page.getByRole('separator', { name: 'Height of the drawing' })
  const tall = async () => (await elevation(page).boundingBox())!.height
  const half = await tall()
  await edge.focus()
  await page.keyboard.press('ArrowUp')
  await expect(edge).toHaveAttribute('aria-valuetext', 'a strip')
  await expect.poll(tall).toBeLessThan(half - 60)
  const strip = await tall()
  await page.keyboard.press('End')
  await expect.poll(tall).toBeGreaterThan(half + 200)
  // Whoever asks for the work sees it.
  await stage(page, 'Slope')
  await expect.poll(tall).toBe(half)
  const box = (await edge.boundingBox())!
  await page.mouse.move(box.x + 300, box.y + 2)
  await page.mouse.down()
  await page.mouse.move(box.x + 300, box.y - 90, { steps: 4 })
  await page.mouse.up()
  await expect.poll(tall).toBe(strip)
  await page.reload()
  await expect.poll(tall).toBe(strip)
  await page.locator('body').press('.')
  await expect.poll(tall).toBe(half)
  // Letters are keys only where they are wanted.
  await page.locator('body').press('?')
  const keys = page.getByRole('dialog', { name: 'Help and keys' })
  await keys.getByRole('checkbox').uncheck()
  await page.keyboard.press('Escape')
  await page.locator('body').press(',')
  await page.locator('body').press('6')
  await expect(
    page.getByRole('tablist', { name: 'Stages of the work' }).getByRole('tab', { name: /^Slope/ }),
  ).toHaveAttribute('aria-selected', 'true')
  expect(await tall()).toBe(half)
})

test('findings have one place: counted at the stages, flagged at the drawing, one line until opened', async ({
  page,
  mallow,
}) => {
  await open(page, mallow)
  await stage(page, 'Slope')
  await expect(page.getByTestId('findings')).toBeHidden()
  await expect(
    page.getByRole('tablist', { name: 'Stages of the work' }).getByRole('tab', { name: /^Slope/ }),
  ).toContainText('2')
  const flag = page.locator('[data-flag="corridor"]')
  await expect(flag).toContainText('cannot keep the gap')
  await flag.click()
  const list = page.getByTestId('findings')
  const corridor = list.locator('[data-finding="corridor"]')
  await expect(corridor.locator('[data-ways] button').first()).toBeVisible() // the one that was clicked is open
  await corridor.getByRole('button', { expanded: true }).click()
  await expect(corridor.locator('[data-ways]')).toBeHidden()
  expect((await corridor.boundingBox())!.height).toBeLessThan(60) // one line
  await list.getByRole('button', { name: /^String: 7/ }).click()
  await expect(page.getByRole('tab', { name: /^String/ })).toHaveAttribute('aria-selected', 'true')
  await list.getByRole('button', { name: 'Close the findings' }).click()
  await expect(list).toBeHidden()
  // Not cleared to dig is a mark in the frame, at every stage, and leads to what is open.
  await page.getByTestId('not-cleared').click()
  await expect(page.getByRole('tab', { name: /^Before you dig/ })).toHaveAttribute('aria-selected', 'true')
})

test('the length of a run is six tabs away', async ({ page, mallow }) => {
  await open(page, mallow)
  await page.reload()
  await expect(elevation(page)).toBeVisible()
  const tab = async (name: string) => {
    await page.keyboard.press('Tab')
    await expect(page.getByRole('link', { name })).toBeFocused()
  }
  await tab('To the work')
  await tab('To the drawing')
  await tab("To the run's length")
  await page.keyboard.press('Enter')
  await expect(page.getByLabel('Run length')).toBeFocused()
})

test('gloves and sun: every target is 48 pixels or more', async ({ browser, mallow }) => {
  const context = await browser.newContext({
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
  })
  await withoutCore(context)
  const page = await context.newPage()
  await page.addInitScript(() => localStorage.setItem('mallow.layout', JSON.stringify({ site: true })))
  await open(page, mallow)
  for (const name of ['Post spacing', 'Dig', 'Pour']) {
    await stage(page, name)
    await expect(page.getByText(/^Opening /)).toHaveCount(0)
    const small = await page.evaluate(() =>
      [...document.querySelectorAll('.btn, [role=tab], .field, [role=radio]')]
        .map((e) => ({
          what: e.getAttribute('aria-label') ?? e.textContent?.trim().slice(0, 30),
          box: e.getBoundingClientRect(),
        }))
        .filter(({ box }) => box.width > 0 && box.height < 48)
        .map(({ what, box }) => `${what}: ${box.height}`),
    )
    expect(small, name).toEqual([])
  }
  await context.close()
})

test('on a phone the name, the picked post with its figures, and all stages are at hand', async ({
  browser,
  mallow,
}) => {
  const context = await browser.newContext({
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
  })
  await withoutCore(context)
  const page = await context.newPage()
  await open(page, mallow)
  await stage(page, 'Dig')
  const name = page.getByLabel('Name of the job')
  expect(
    await name.evaluate((e: HTMLInputElement) => e.scrollWidth <= e.clientWidth),
    'the name is cut off',
  ).toBe(true)
  const post = page.getByRole('region', { name: 'The picked post' })
  for (const figure of ['Hole width', 'Dig', 'Bottom of post']) {
    const box = (await post.getByText(figure, { exact: true }).boundingBox())!
    expect(box.y + box.height, figure).toBeLessThan(844)
    expect(box.x + 20, figure).toBeLessThan(390)
  }
  for (const s of stages) await stage(page, s) // each can be reached and is brought into sight
  const tab = (await page.getByRole('tab', { name: /^Pour/ }).boundingBox())!
  expect(tab.x + tab.width).toBeLessThanOrEqual(390)
  await page.setViewportSize({ width: 844, height: 390 })
  await expect(elevation(page)).toBeVisible()
  await saved(page)
  expect(await page.evaluate(() => document.documentElement.scrollWidth - innerWidth)).toBeLessThanOrEqual(0)
  await context.close()
})

test('a table is sorted, searched and copied, and a row picks its post', async ({
  page,
  mallow,
  context,
}) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write'])
  await open(page, mallow)
  await stage(page, 'Dig')
  await page.getByRole('tab', { name: /^All holes/ }).click()
  const table = page.locator('[data-table="holes"]')
  const first = table.locator('tbody tr').first()
  await expect(first).toContainText('P1')
  await table.getByRole('button', { name: /^Dig/ }).click()
  await table.getByRole('button', { name: /^Dig/ }).click()
  await expect(first).toContainText('P7') // the gate's posts are deepest
  await first
    .locator('td')
    .nth(2)
    .click({ position: { x: 2, y: 4 } })
  await expect(page.getByTestId('post')).toHaveText('P7')
  await page.getByRole('searchbox', { name: /^Find/ }).fill('P12')
  await expect(table.locator('tbody tr')).toHaveCount(1)
  await page.getByRole('button', { name: 'As on the line' }).click()
  await page.getByRole('button', { name: 'Copy', exact: true }).click()
  await expect(page.getByRole('button', { name: '19 rows copied' })).toBeVisible()
  const text = await page.evaluate(() => navigator.clipboard.readText())
  expect(text.split('\n')).toHaveLength(21)
  expect(text.split('\n')[1]).toMatch(/^P1\t/)
})

test('an empty list offers a job to try and a new one; six answers make the whole plan', async ({ page }) => {
  const own = await Mallow.start([
    'serve',
    '--listen',
    '127.0.0.1:0',
    '--data',
    test.info().outputPath('own'),
  ])
  try {
    await page.goto(own.url)
    await page.getByRole('button', { name: 'Try Pipit Yard' }).click()
    await expect(elevation(page)).not.toHaveAttribute('data-posts', '0')
    await page.goto(own.url)
    let clicks = 0
    const click = async (role: 'button' | 'radio', name: string | RegExp) => {
      await page.getByRole(role, { name }).first().click()
      clicks++
    }
    let keys = 0
    const type = async (label: string, text: string) => {
      await page.getByLabel(label, { exact: true }).click()
      clicks++
      await page.keyboard.type(text)
      keys += text.length
    }
    await click('button', 'New job')
    await click('radio', 'Chain link')
    await type('Height above ground', '4')
    await type('End post to end post', '120')
    await click('radio', 'Walk gate')
    await click('radio', 'It falls')
    await type('Lower at the far end by', '18')
    await type('Frost depth', '36')
    await click('button', 'Plan it')
    await expect(elevation(page)).not.toHaveAttribute('data-posts', '0')
    await expect(page.locator('[data-load="bags"]')).toContainText('bags')
    await expect(page.locator('[data-class="leaf"]').first()).toBeAttached()
    expect(page.url()).toContain('/jobs/')
    expect(await page.evaluate(() => document.title)).toContain('Chain link, 120\' 0"')
    console.log(`a new job: ${clicks} clicks, ${keys} keystrokes`)
    expect(keys).toBeLessThan(40)
  } finally {
    await own.stop()
  }
})

test('a label that is a term says what it means, and the job is spelled in its units', async ({
  page,
  mallow,
}) => {
  await open(page, mallow)
  await stage(page, 'Post spacing')
  const term = page.locator('.label.term', { hasText: 'Layout method' })
  await term.click()
  const tip = page.getByRole('note')
  await expect(tip).toHaveText(/^How posts are spaced: equal bays/)
  const [box, at] = [(await tip.boundingBox())!, (await term.boundingBox())!]
  expect(box.x >= 0 && box.x + box.width <= page.viewportSize()!.width).toBe(true)
  expect(Math.min(Math.abs(box.y + box.height - at.y), Math.abs(at.y + at.height - box.y))).toBeLessThan(8)
  await page.keyboard.press('Escape')
  await expect(tip).toBeHidden()
  await expect(term).toHaveAttribute('title', /^How posts are spaced/)
  // A word that a term shares with another thing is none.
  await stage(page, 'Dig')
  await part(page, 'Rules')
  await expect(page.locator('.label.term', { hasText: /^Hole, times the post/ })).toBeVisible()
  await expect(page.locator('.label.term', { hasText: /^Hole off its post/ })).toHaveCount(0)
  await stage(page, 'Post spacing')
  await expect(page.getByLabel('Most spacing, center to center')).toBeVisible()
  await open(page, mallow, 'Pipit Yard')
  await stage(page, 'String')
  await expect(page.getByTestId('constant')).toContainText('to its centre')
})
