// The log at the hole's edge: a phone, gloves on. Taps are counted.
import { readFileSync } from 'node:fs'
import type { Locator, Page } from '@playwright/test'
import { expect, open, part, saved, test, type Mallow } from './mallow'

const phone = { width: 390, height: 844 }

/** A job of thirty posts, without anything written down; its address. */
async function thirty(page: Page, mallow: Mallow): Promise<string> {
  const made = await page.request.post(`${mallow.url}api/jobs`, {
    data: {
      doc: {
        mallow: 2,
        name: 'Thirty posts',
        units: { system: 'imperial', smallestMark: 1.5875 },
        site: {
          frostDepth: 609.6,
          before: { services: true, private: true, boundary: true, permit: 'granted' },
        },
        lines: [{ id: 'L1', runs: [{ id: 'R1', name: 'Long side', length: 29 * 2438.4 }] }],
      },
    },
  })
  expect(made.status()).toBe(201)
  return `${mallow.url}jobs/${((await made.json()) as { id: string }).id}/runs/R1/log/post`
}

test('thirty posts are logged on a phone, a tap each; two surprises, one struck out, nobody else moved', async ({
  page,
  mallow,
}) => {
  await page.setViewportSize(phone)
  await page.goto(await thirty(page, mallow))
  let taps = 0
  const tap = async (on: Locator) => {
    await on.click()
    taps++
  }
  const button = (name: string) => page.getByRole('button', { name, exact: true })
  const post = page.getByTestId('log-post')
  const keys = async (all: string) => {
    for (const k of all)
      await tap(
        page
          .getByTestId('keypad')
          .getByRole('button', { name: k === "'" ? 'Feet' : k === '"' ? 'Inches' : k, exact: true }),
      )
  }
  await expect(post).toHaveText('P1')
  for (let n = 1; n <= 30; n++) {
    await expect(post).toHaveText(`P${n}`)
    if (n === 5) {
      await tap(button('Something differs'))
      await tap(button('Rock'))
      await keys('14"')
      await tap(button('Write it down'))
      await expect(page.getByTestId('log-deviations')).toContainText('Rock stopped P5 at 14″')
    }
    if (n === 12) {
      await tap(button('Something differs'))
      await tap(button('From the last post'))
      await keys(`7'9"`)
      await tap(button('Write it down'))
      await expect(page.getByTestId('log-deviations')).toContainText(
        'P12 stands 3″ short of its mark',
      )
    }
    await tap(page.getByRole('group', { name: 'What is done' }).getByRole('button', { name: 'Dug' }))
  }
  await saved(page)
  await expect(page.getByTestId('log-counts')).toHaveText('30 staked, 30 dug, 0 set, 0 poured, 0 built of 30')
  // One tap for each post, six or seven more for a surprise: ten seconds a post are never taken.
  expect(taps).toBe(30 + 6 + 7)

  // What is wrong is struck out where it stands.
  await page
    .getByRole('group', { name: 'Draw over posts to mark many at once' })
    .getByRole('button', { name: /^P5:/ })
    .click()
  await page.getByRole('button', { name: /^Rock at P5 was wrong/ }).click()
  await expect(page.getByTestId('log-deviations')).toHaveCount(0)
  await saved(page)

  // The record of the day goes out, and prints.
  await page.getByRole('tab', { name: 'Record' }).click()
  const record = page.getByTestId('record')
  await expect(record.locator('[data-day]')).toContainText('Dug: Long side P1 P2 P3')
  const [pdf] = await Promise.all([
    page.waitForEvent('download'),
    record.getByRole('link', { name: 'Records, PDF' }).click(),
  ])
  expect(
    readFileSync((await pdf.path())!)
      .subarray(0, 5)
      .toString(),
  ).toBe('%PDF-')
  const [csv] = await Promise.all([
    page.waitForEvent('download'),
    record.getByRole('link', { name: 'Record, CSV' }).click(),
  ])
  expect(
    readFileSync((await csv.path())!, 'utf8')
      .trim()
      .split('\n'),
  ).toHaveLength(31)
})

test('a post that landed off its mark: only its bays change, and each way is what the plan is then', async ({
  page,
  mallow,
}) => {
  await page.setViewportSize(phone)
  await page.goto(await thirty(page, mallow))
  const sweep = page.getByRole('group', { name: 'Draw over posts to mark many at once' })
  // A finger drawn over ten posts marks ten.
  const from = (await sweep.getByRole('button', { name: /^P1:/ }).boundingBox())!
  const to = (await sweep.getByRole('button', { name: /^P10:/ }).boundingBox())!
  await page.mouse.move(from.x + 20, from.y + 20)
  await page.mouse.down()
  await page.mouse.move(to.x + 20, to.y + 20, { steps: 8 })
  await page.mouse.up()
  await expect(page.getByText('10 posts picked')).toBeVisible()
  await page.getByRole('group', { name: 'What is done' }).getByRole('button', { name: 'Dug' }).click()
  await expect(page.getByTestId('log-counts')).toContainText('10 dug')
  await expect(page.getByTestId('log-post')).toHaveText('P11')
  // It is taken back as one.
  await page.getByRole('button', { name: /^Take back P1 – P10/ }).click()
  await expect(page.getByTestId('log-counts')).toContainText('0 dug')

  const gap = () => page.getByText('From P11').locator('xpath=following-sibling::dd')
  await sweep.getByRole('button', { name: /^P11:/ }).click()
  await page.getByRole('button', { name: 'Something differs' }).click()
  await page.getByRole('button', { name: 'From the last post', exact: true }).click()
  await page.getByTestId('keypad').getByRole('textbox').fill(`7' 6"`)
  await expect(page.getByTestId('keypad')).toContainText('7′ 6″')
  await page.getByRole('button', { name: 'Write it down' }).click()
  const said = page.getByTestId('log-deviations')
  await expect(said).toContainText('P11 stands 6″ short of its mark')
  // Each way out is what the plan is then: dug again on its mark, the rest stands as before.
  const ways = page.getByTestId('ways').locator('[data-way]')
  await expect(ways.first()).toBeVisible()
  await page.getByRole('button', { name: 'Next post' }).click()
  await expect(gap()).toHaveText('8′ 6″')
  await page.getByRole('button', { name: 'Next post' }).click()
  await expect(page.getByText('From P12').locator('xpath=following-sibling::dd')).toHaveText('8′ 0″')
  await page.getByRole('button', { name: 'Previous post' }).click()
  await page.getByRole('button', { name: 'Previous post' }).click()
  await page.locator('[data-testid="ways"] [data-way="dig-again"]').click()
  await saved(page)
  await page.getByRole('button', { name: 'Next post' }).click()
  await expect(gap()).toHaveText('8′ 0″')
})

test('a way that was worked out before a tap takes nothing of it away', async ({ page, mallow }) => {
  await page.setViewportSize(phone)
  await page.goto(await thirty(page, mallow))
  await page.getByRole('group', { name: 'Draw over posts' }).getByRole('button', { name: /^P11:/ }).click()
  await page.getByRole('button', { name: 'Something differs' }).click()
  await page.getByRole('button', { name: 'From the last post', exact: true }).click()
  await page.getByTestId('keypad').getByRole('textbox').fill(`7' 6"`)
  await page.getByRole('button', { name: 'Write it down' }).click()
  const way = page.locator('[data-testid="ways"] [data-way="dig-again"]')
  await expect(way).toBeVisible()
  await saved(page)
  // The ways of the job with one more fact in it do not come for a while.
  let release = () => undefined as void
  const held = new Promise<void>((go) => (release = go))
  await page.route('**/api/amend', async (route) => {
    await held
    await route.continue()
  })
  const dot = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=='
  await page
    .getByLabel('Photograph', { exact: true })
    .setInputFiles({ name: 'dot.png', mimeType: 'image/png', buffer: Buffer.from(dot, 'base64') })
  await expect(page.getByRole('img', { name: 'Photograph at P11' })).toBeVisible()
  await way.click()
  release()
  await expect(way).toHaveCount(0)
  await saved(page)
  const id = /jobs\/([a-z0-9]+)/.exec(page.url())![1]!
  const { doc } = (await (await page.request.get(`${mallow.url}api/jobs/${id}`)).json()) as {
    doc: { observed: { id: string; what: string; photo?: string }[] }
  }
  const ids = doc.observed.map((f) => f.id)
  expect(new Set(ids).size).toBe(ids.length)
  expect(doc.observed.filter((f) => f.photo)).toHaveLength(1)
  expect(doc.observed.map((f) => f.what)).toEqual(['landed', 'note', 'struck out'])

  // The photograph is deleted for good, and the note stays.
  await page.getByRole('img', { name: 'Photograph at P11' }).click()
  await page.getByRole('button', { name: 'Delete', exact: true }).click()
  await expect(page.getByRole('dialog')).toContainText('Deleted for good')
  await page.getByRole('button', { name: 'Delete for good' }).click()
  await expect(page.getByText('The photograph was deleted.')).toBeVisible()
  const photos = await page.request.get(`${mallow.url}api/jobs/${id}/photos`)
  expect(((await photos.json()) as { photos: unknown[] }).photos).toEqual([])
})

test('a photograph is made small, kept with its post and comes out again', async ({ page, mallow }) => {
  await page.setViewportSize(phone)
  await page.goto(await thirty(page, mallow))
  const big = await page.evaluate(async () => {
    const c = document.createElement('canvas')
    c.width = 4000
    c.height = 3000
    const g = c.getContext('2d')!
    for (let i = 0; i < 400; i++) {
      g.fillStyle = `hsl(${i * 37} 60% 50%)`
      g.fillRect((i * 997) % 4000, (i * 613) % 3000, 300, 200)
    }
    const blob = await new Promise<Blob>((done) => c.toBlob((b) => done(b!), 'image/jpeg', 0.9))
    return [...new Uint8Array(await blob.arrayBuffer())]
  })
  await page
    .getByLabel('Photograph', { exact: true })
    .setInputFiles({ name: 'hole.jpg', mimeType: 'image/jpeg', buffer: Buffer.from(big) })
  const shown = page.getByRole('img', { name: 'Photograph at P1' })
  await expect(shown).toBeVisible()
  await saved(page)
  expect(await shown.evaluate((i: HTMLImageElement) => [i.naturalWidth, i.naturalHeight])).toEqual([
    1600, 1200,
  ])
  // What is no photograph is said, and nothing is lost.
  await page
    .getByLabel('Photograph', { exact: true })
    .setInputFiles({ name: 'x.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('no photograph') })
  await expect(page.getByRole('alert')).toContainText('no photograph')
  await page.getByRole('tab', { name: 'Record' }).click()
  const [zip] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Photographs, ZIP' }).click(),
  ])
  expect(
    readFileSync((await zip.path())!)
      .subarray(0, 2)
      .toString(),
  ).toBe('PK')
})

test('devices send their readings, and the inspection names the worst', async ({ page, mallow }) => {
  await page.setViewportSize(phone)
  await page.goto(await thirty(page, mallow))
  for (const what of ['Off the string', 'Plumb along']) {
    await page.getByRole('button', { name: 'Something differs' }).click()
    await page.getByRole('button', { name: what, exact: true }).click()
    await page.getByRole('button', { name: /^Take a reading/ }).click()
    await expect(page.getByTestId('keypad').getByRole('textbox')).not.toHaveValue('')
    await page.getByRole('button', { name: 'Write it down' }).click()
    await expect(page.getByTestId('keypad')).toHaveCount(0)
  }
  // A tape that types: the field has the focus, and Enter writes.
  await page.getByRole('button', { name: 'Something differs' }).click()
  await page.getByRole('button', { name: 'Top mark', exact: true }).click()
  await expect(page.getByTestId('keypad').getByRole('textbox')).toBeFocused()
  await page.keyboard.type('3"')
  await page.keyboard.press('Enter')
  await expect(page.getByTestId('log-deviations')).toContainText('3″ too high')
  await saved(page)
  await page.getByRole('tab', { name: /^What to do/ }).click()
  await page.getByTestId('deciding').getByRole('button', { name: 'What to do' }).click()
  await expect(page.getByTestId('ways').locator('[data-way]').first()).toBeVisible()
  await page.getByRole('tab', { name: /^Inspect/ }).click()
  const inspect = page.getByTestId('inspect')
  await expect(inspect.locator('[data-worst="top"]')).toContainText('P1')
  await expect(inspect.getByRole('img', { name: 'Long side as it was measured' })).toBeVisible()
  const [dxf] = await Promise.all([
    page.waitForEvent('download'),
    inspect.getByRole('link', { name: 'As built, DXF' }).click(),
  ])
  expect(readFileSync((await dxf.path())!, 'utf8')).toContain('AS-BUILT')
})

test('a finished job teaches its rates, and they are taken only when asked for', async ({ page, mallow }) => {
  const facts = Array.from({ length: 11 }, (_, n) =>
    ['dug', 'poured'].map((what, k) => ({
      id: `f${2 * n + k}`,
      on: `post/R1.${n + 1}`,
      what,
      when: `2027-05-0${3 + k}T${String(7 + Math.floor(n / 2)).padStart(2, '0')}:${n % 2 ? '30' : '00'}:00Z`,
    })),
  ).flat()
  await page.request.post(`${mallow.url}api/jobs`, {
    data: {
      doc: {
        mallow: 2,
        name: 'Finished',
        units: { system: 'imperial', smallestMark: 1.5875 },
        site: { frostDepth: 600 },
        observed: facts,
        lines: [{ id: 'L1', runs: [{ id: 'R1', length: 24384 }] }],
      },
    },
  })
  await open(page, mallow)
  await page.getByRole('tab', { name: /^Log/ }).click()
  await part(page, 'Learned')
  const dig = page.locator('[data-learned="dig"]')
  await expect(dig).toContainText('10 posts')
  await dig.getByRole('button', { name: 'Take it for this job' }).click()
  await saved(page)
  await expect(page.getByTestId('learned')).toContainText('its own digging rates')
})
