import { readFileSync } from 'node:fs'
import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { elevation, expect, open, part, siteMap, stage, test, type Mallow, view, emptyJob, full } from './mallow'

// What is refused while it is typed is refused in the page, and no request fails.
test.use({ core: true })

// Dark differs from light in its colours alone, so there only contrast is looked at.
async function sound(page: Page, what: string, dark: boolean) {
  // In the page itself: its other way opens a second page for each look, behind
  // which this one is hidden, and now and then does not come back.
  const axe = new AxeBuilder({ page }).setLegacyMode()
  const found = await (dark
    ? axe.withRules(['color-contrast'])
    : axe.withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'])
  ).analyze()
  const bad = found.violations.map((v) => `${v.id} (${v.impact}): ${v.nodes.map((n) => n.html).join('\n')}`)
  expect(bad, what).toEqual([])
}

const gateParts = ['Swing', 'Posts', 'Hang it', 'Drive and safety', 'Opening']
const digParts = ['Rules', 'Frost and soil', 'All holes', 'Wind', 'Compare sizes', 'Hole card']
const pourParts = ['How posts are set', 'All holes', 'Totals', 'Into the hole']

type Look = (what: string) => Promise<void>

/** What is looked at, in parts that run side by side. */
const tours: Record<string, (page: Page, mallow: Mallow, look: Look) => Promise<void>> = {
  'jobs and stages': async (page, mallow, look) => {
    await page.goto(mallow.url)
    await expect(page.getByRole('link', { name: /^Pipit/ })).toBeVisible()
    await look('jobs')
    await page.getByRole('button', { name: 'New job' }).click()
    await look('new job')
    await emptyJob(page, mallow.url, 'Empty')
    await expect(page.getByText('First, three things to measure')).toBeVisible()
    await look('empty job')
    await open(page, mallow)
    for (const name of ['Walk', 'String', 'Post spacing', 'Slope', 'Gates', 'Dig', 'Pour']) {
      await stage(page, name)
      await look(name)
    }
  },
  walk: async (page, mallow, look) => {
    await open(page, mallow)
    await stage(page, 'Walk')
    for (const name of ['Ground', 'Obstructions', 'Before you dig', 'Files']) {
      await part(page, name)
      await look(name)
    }
    await part(page, 'Ground')
    await page.getByRole('button', { name: /^Level, round the trees/ }).click()
    await look('a page of rod readings')
    await page.getByRole('button', { name: 'Two-peg test' }).click()
    await look('two-peg test')
    await page.keyboard.press('Escape')
    await view(page, 'Show all runs in line')
    await look('unrolled')
  },
  'space, the strings sheet and reasons': async (page, mallow, look) => {
    await open(page, mallow)
    await stage(page, 'Post spacing')
    await page.getByRole('button', { name: 'Round the trees' }).first().click()
    for (const name of ['Fixed posts', 'Layouts', 'Pieces', 'Set out']) {
      await part(page, name)
      await look(name)
    }
    await stage(page, 'String')
    await page.getByRole('link', { name: 'Strings sheet' }).click()
    await expect(page.getByRole('img', { name: 'Page 1', exact: true })).toBeVisible()
    await look('strings sheet')
    await page.getByRole('link', { name: 'Back to the job' }).click()
    await stage(page, 'Pour')
    await page
      .getByRole('button', { name: /P1 concrete: why/ })
      .first()
      .click()
    await expect(page.getByRole('dialog')).toBeVisible()
    await look('reasons')
    await page.keyboard.press('Escape')
    await page.getByRole('button', { name: 'History' }).click()
    await expect(page.getByRole('dialog')).toContainText('Demo job')
    await look('history')
  },
}

tours.grade = async (page, mallow, look) => {
  await open(page, mallow)
  await stage(page, 'Slope')
  for (const name of ['Slope type', 'Tops and bays', 'Compare slopes', 'Along the line', 'Story stick', 'Set the tops']) {
    await part(page, name)
    if (name === 'Compare slopes') await expect(page.locator('[data-look]').nth(7)).toBeVisible()
    await look(`grade, ${name}`)
  }
}

tours.gates = async (page, mallow, look) => {
  await open(page, mallow)
  await stage(page, 'Gates')
  await page.getByRole('button', { name: 'Add gate' }).click()
  await look('gates to put in')
  await page.keyboard.press('Escape')
  await page.getByRole('group', { name: 'Gates of the job' }).getByRole('button', { name: /^Cart gate/ }).click()
  await page.getByRole('radio', { name: 'One leaf' }).click()
  await expect(page.locator('[data-finding="leaf-strikes"]')).toBeVisible()
  for (const name of gateParts) {
    await part(page, name)
    if (name === 'Hang it') {
      await page.getByLabel('Drop at the tip').fill('1/2')
      await page.getByLabel('Drop at the tip').press('Enter')
      await expect(page.getByTestId('turns')).toBeVisible()
    }
    await look(`gates, ${name}`)
  }
}

tours.paper = async (page, mallow, look) => {
  await open(page, mallow)
  await page.getByRole('button', { name: 'Print and files' }).click()
  await expect(page.getByTestId('sheet-page')).toContainText('1 of')
  await look('print and files')
}

tours.keeping = async (page, mallow, look) => {
  await page.goto(`${mallow.url}keeping`)
  await page.getByRole('button', { name: 'Back up now' }).click()
  await expect(page.getByText('the copy was verified')).toBeVisible()
  await page.getByRole('button', { name: /^Restore the backup of/ }).click()
  await look('keeping')
}

tours.holes = async (page, mallow, look) => {
  await open(page, mallow)
  await stage(page, 'Dig')
  await page.getByLabel('Stopped at a depth of').fill('22')
  await page.getByLabel('Stopped at a depth of').press('Enter')
  await expect(page.getByTestId('ways-out').locator('li').first()).toBeVisible()
  await look('a stopped hole')
  for (const name of digParts) {
    await part(page, name)
    if (name === 'Frost and soil') await page.getByText('Estimate it from a winter').click()
    await look(`dig, ${name}`)
  }
  await stage(page, 'Pour')
  for (const name of pourParts) {
    await part(page, name)
    await look(`pour, ${name}`)
  }
}

for (const colorScheme of ['light', 'dark'] as const) {
  for (const [name, tour] of Object.entries(tours)) {
    test(`every view is accessible, ${colorScheme}: ${name}`, async ({ page, mallow }) => {
      test.setTimeout(300_000)
      await page.emulateMedia({ colorScheme, reducedMotion: 'reduce' })
      await tour(page, mallow, (what) => sound(page, what, colorScheme === 'dark'))
    })
  }
}

for (const width of full ? [360, 390, 768, 1280, 2560] : [360, 768, 1280]) {
  test(`nothing runs off the side at ${width}`, async ({ page, mallow }) => {
    await page.setViewportSize({ width, height: 844 })
    await open(page, mallow)
    for (const name of ['Walk', 'String', 'Post spacing', 'Slope', 'Gates', 'Dig', 'Pour']) {
      await stage(page, name)
      expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width)
      // On a large screen the bench scrolls, never the page: the drawing stays in sight.
      if (width >= 1024) expect(await page.evaluate(() => document.documentElement.scrollHeight)).toBeLessThanOrEqual(844)
      const drawing = (await elevation(page).boundingBox())!
      // From 1024 up the site map stands beside it.
      const map = width >= 1024 ? (await siteMap(page).boundingBox())!.width + 2 : 0
      const controls = (await page.getByRole('group', { name: 'View', exact: true }).boundingBox())!.width
      expect(drawing.width + controls + map).toBe(width)
      expect(drawing.height).toBeGreaterThanOrEqual(200)
    }
    // Nor does a part of a bench: what is wide scrolls by itself.
    const benches = {
      Slope: ['Slope type', 'Tops and bays', 'Compare slopes', 'Along the line', 'Story stick', 'Set the tops'],
      Gates: gateParts,
      Dig: digParts,
      Pour: pourParts,
    }
    for (const [bench, names] of Object.entries(benches)) {
      await stage(page, bench)
      for (const name of names) {
        await part(page, name)
        if (name === 'Compare slopes') await expect(page.locator('[data-look]').nth(7)).toBeVisible()
        const over = await page.evaluate(() =>
          [...document.querySelectorAll('[role=tabpanel]')].map((p) => p.scrollWidth - p.clientWidth),
        )
        expect(Math.max(...over), `${bench}, ${name}`).toBeLessThanOrEqual(0)
      }
    }
    await page.goto(`${mallow.url}keeping`)
    await page.getByRole('button', { name: 'Back up now' }).click()
    await expect(page.getByText('the copy was verified')).toBeVisible()
    expect(await page.evaluate(() => document.documentElement.scrollWidth), 'keeping').toBeLessThanOrEqual(width)
  })
}

// The front end prints lengths itself while a drag is under way; it must print
// what the core prints.
test('the front end prints lengths as the core does', async () => {
  const vectors = JSON.parse(
    readFileSync(new URL('../web/src/gen/tape.vectors.json', import.meta.url), 'utf8'),
  ) as { system: 'imperial' | 'metric'; mark: number; length: number; short: string; tape: string }[]
  expect(vectors.length).toBeGreaterThan(100)
  const { short, tape } = await import('../web/src/lib/tape')
  for (const v of vectors) {
    const units = { system: v.system, smallestMark: v.mark }
    expect([short(v.length, units), tape(v.length, units)], JSON.stringify(v)).toEqual([v.short, v.tape])
  }
})

// The core edits documents too: both must do the same.
test('the front end edits documents as the core does', async () => {
  const list = JSON.parse(
    readFileSync(new URL('../core/document/testdata/edits.json', import.meta.url), 'utf8'),
  ) as { what: string; doc: never; edits: { path: string; value: unknown }[]; want?: unknown; refused?: string }[]
  expect(list.length).toBeGreaterThan(15)
  const { change } = await import('../web/src/lib/doc')
  for (const c of list) {
    if (c.refused) expect(() => change(c.doc, c.edits), c.what).toThrow(c.refused)
    else expect(change(c.doc, c.edits), c.what).toEqual(c.want)
  }
})

// What a window saves are the edits between two documents: made of the first
// they give the second, and they say no more than what differs.
test('the edits between two documents make one the other', async () => {
  type Doc = Parameters<(typeof import('../web/src/lib/doc'))['change']>[0]
  const { change, since } = await import('../web/src/lib/doc')
  const list = JSON.parse(
    readFileSync(new URL('../core/document/testdata/edits.json', import.meta.url), 'utf8'),
  ) as { what: string; doc: Doc; want?: Doc; refused?: string }[]
  for (const c of list.filter((c) => !c.refused)) {
    const kept = structuredClone(c.doc)
    expect(change(c.doc, since(c.doc, c.want!)), c.what).toEqual(c.want)
    expect(change(c.want!, since(c.want!, c.doc)), c.what).toEqual(kept)
    expect(c.doc, c.what).toEqual(kept)
    expect(since(c.doc, structuredClone(c.doc)), c.what).toEqual([])
  }
  const job = JSON.parse(
    readFileSync(new URL('../core/document/testdata/version1/01-tansy-bank.want', import.meta.url), 'utf8'),
  ) as Doc & { lines: { runs: { gates: { id: string; at: number }[]; name: string }[] }[] }
  const other = structuredClone(job)
  const run = other.lines[0]!.runs[0]!
  run.gates[0]!.at += 100
  run.name = 'Renamed'
  expect(since(job, other).map((e) => e.path.split('/').at(-1))).toEqual(expect.arrayContaining(['at', 'name']))
  expect(since(job, other)).toHaveLength(2)
  run.gates.unshift({ ...run.gates[0]!, id: 'G99' }) // before the others: the list is set as one
  expect(since(job, other).find((e) => e.path.endsWith('/gates'))?.value).toEqual(run.gates)
  expect(change(job, since(job, other))).toEqual(other)
})

test('the light or dark choice stays', async ({ page, mallow }) => {
  await page.goto(mallow.url)
  await page.getByRole('button', { name: 'Dark colors' }).click()
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark')
  await page.reload()
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark')
})
