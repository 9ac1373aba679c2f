import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, load, Mallow, open, saved, stage, test, emptyJob } from './mallow'

// The browser logs the refusals and the lost server as errors; they are what
// these tests are about.
test.describe('more than one window', { tag: '@refused' }, () => {
  for (const way of ['Here', 'In the other window', 'Keep theirs, drop my change', 'Keep mine as a job of its own']) {
    test(`the same field twice is asked: ${way}`, async ({ page, context, mallow }) => {
      await open(page, mallow)
      const other = await context.newPage()
      await other.goto(page.url())
      const here = page.getByLabel('Most spacing, center to center')
      const there = other.getByLabel('Most spacing, center to center')
      await saved(other)
      // Both type before either has heard of the other.
      await here.fill('7ft')
      await there.fill('5ft')
      await there.press('Enter')
      await saved(other)
      await here.press('Enter')
      const dialog = page.getByRole('alertdialog')
      await expect(dialog).toContainText('Most spacing, center to center 5')
      // Both values are shown, and neither is chosen beforehand.
      await expect(dialog.getByRole('radio', { name: /^Here: 7' 0"/ })).not.toBeChecked()
      await expect(dialog.getByRole('radio', { name: /^In the other window: 5' 0"/ })).not.toBeChecked()
      await expect(dialog.getByRole('button', { name: /^Choose 1 more/ })).toBeDisabled()
      await expect(page.locator('[data-saving="saved"]')).toHaveCount(0)
      if (way === 'Here' || way === 'In the other window') {
        await dialog.getByRole('radio', { name: new RegExp(`^${way}`) }).check()
        await dialog.getByRole('button', { name: 'Save what is chosen' }).click()
      } else await dialog.getByRole('button', { name: way }).click()
      await expect(dialog).toBeHidden()
      await saved(page)
      if (way.startsWith('Keep mine')) await expect(page.getByLabel('Name of the job')).toHaveValue(/\(copy\)$/)
      await expect(here).toHaveValue(way === 'Here' || way.startsWith('Keep mine') ? `7' 0"` : `5' 0"`)
      // What the other window saved is still there, whichever way was taken.
      await other.reload()
      await other.getByRole('button', { name: 'History' }).click()
      await expect(other.getByRole('dialog')).toContainText(/center to center (5' 0"|60")/)
    })
  }

  test('changes that do not touch each other are merged, and nobody is asked', async ({ page, context, mallow }) => {
    await open(page, mallow)
    const other = await context.newPage()
    await other.goto(page.url())
    await saved(other)
    await page.getByLabel('Most spacing, center to center').fill('7ft')
    await stage(other, 'Slope')
    await other.getByLabel('Fence height').fill('5ft')
    await other.getByLabel('Fence height').press('Enter')
    await saved(other)
    await page.getByLabel('Most spacing, center to center').press('Enter')
    await saved(page)
    await expect(page.getByRole('alertdialog')).toBeHidden()
    await page.reload()
    await expect(page.getByLabel('Most spacing, center to center')).toHaveValue(`7' 0"`)
    await stage(page, 'Slope')
    await expect(page.getByLabel('Fence height')).toHaveValue(/^(5' 0"|60")$/)
  })

  test('an idle window that is looked at again learns of what was saved', async ({ page, context, mallow }) => {
    await open(page, mallow)
    const other = await context.newPage()
    await other.goto(page.url())
    await saved(other)
    await other.getByLabel('Most spacing, center to center').fill('6ft')
    await other.getByLabel('Most spacing, center to center').press('Enter')
    await saved(other)
    await page.bringToFront()
    await page.evaluate(() => window.dispatchEvent(new Event('focus')))
    await expect(page.getByLabel('Most spacing, center to center')).toHaveValue(`6' 0"`)
  })

  test('two windows on one job keep what is unsaved apart', async ({ page, context, mallow }) => {
    await open(page, mallow)
    const other = await context.newPage()
    await other.goto(page.url())
    await saved(other)
    // Neither can save, and the first not until the end: it would be asked which value holds.
    for (const p of [page, other])
      await p.route('**/api/jobs/*', (route) => (route.request().method() === 'PATCH' ? route.abort() : route.continue()))
    await page.getByLabel('Most spacing, center to center').fill('7ft')
    await page.getByLabel('Most spacing, center to center').press('Enter')
    await other.getByLabel('Most spacing, center to center').fill('6ft')
    await other.getByLabel('Most spacing, center to center').press('Enter')
    const slots = () => page.evaluate(() => Object.keys(localStorage).filter((k) => k.startsWith('mallow.unsaved.')).map((k) => localStorage.getItem(k)))
    await expect.poll(async () => (await slots()).length).toBe(2)
    const kept = (await slots()).map((s) => (JSON.parse(s!) as { what: string }).what).sort()
    expect(kept[0]).toMatch(/6' 0"|72"/)
    expect(kept[1]).toMatch(/7' 0"|84"/)
    // One goes; what it left is taken up by the next window on the job, once.
    await other.close()
    const next = await context.newPage()
    await next.goto(page.url())
    await saved(next)
    await expect(next.getByLabel('Most spacing, center to center')).toHaveValue(`6' 0"`)
  })
})

test('the server goes away and comes back; the change is kept and saved', { tag: '@refused' }, async ({ page }) => {
  const data = mkdtempSync(join(tmpdir(), 'mallow-e2e-'))
  let own = await Mallow.start(['serve', '--listen', '127.0.0.1:0', '--data', data])
  // A window without a core of its own, which can do nothing meanwhile.
  await page.addInitScript(() => Object.defineProperty(window, 'WebAssembly', { value: undefined }))
  try {
    await page.goto(own.url)
    await expect(page.getByText('No jobs yet')).toBeVisible()
    await emptyJob(page, own.url, 'Kept')
    const run = page.getByLabel('1. How long is the run?')
    await run.fill('40ft')
    await run.press('Enter')
    await expect(load(page, 'posts')).toContainText('6')
    await saved(page)
    await page.getByRole('button', { name: 'Later', exact: true }).click()
    await stage(page, 'Slope')
    // Parts of the page load when they are opened: this one has.
    await expect(page.getByRole('radio', { name: /Racked/ })).toBeVisible()
    await own.stop()
    await page.getByRole('radio', { name: /Racked/ }).click()
    await expect(page.getByRole('alert')).toContainText('Mallow is not answering')
    await expect(page.getByText('Drawn as it last fitted')).toBeVisible()
    own = await own.again()
    await saved(page)
    // The drawing catches up without a reload.
    await expect(page.getByText('Drawn as it last fitted')).toBeHidden()
    await expect(page.getByRole('alert')).toBeHidden()
    // A part that is opened for the first time meanwhile says why it does not
    // come, and comes by itself when somebody answers again.
    await own.stop()
    await stage(page, 'Dig')
    await expect(page.getByTestId('not-loaded')).toContainText('Dig cannot be opened just now')
    own = await own.again()
    await expect(page.getByTestId('not-loaded')).toBeHidden()
    await expect(page.getByRole('tab', { name: /All holes/ })).toBeVisible()
    await page.reload()
    await stage(page, 'Slope')
    await expect(page.getByRole('radio', { name: /Racked/ })).toBeChecked()
    // On the list too, a lost server is said and recovered from.
    await own.stop()
    await page.getByRole('link', { name: 'Mallow' }).click()
    await expect(page.getByRole('alert')).toContainText('Mallow is not answering')
    own = await own.again()
    await page.getByRole('button', { name: 'Try again' }).click()
    await expect(page.getByRole('link', { name: /^Kept/ })).toBeVisible()
  } finally {
    await own.stop()
    rmSync(data, { recursive: true, force: true })
  }
})

test('a job is deleted and put back', async ({ page, mallow }) => {
  await page.goto(mallow.url)
  await page.getByRole('button', { name: 'Delete Pipit Yard' }).click()
  await expect(page.getByRole('link', { name: /^Pipit Yard/ })).toBeHidden()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('link', { name: /^Pipit Yard/ })).toBeVisible()
})

test('a job document goes out to a file and comes in again', async ({ page, mallow }) => {
  await open(page, mallow, 'Pipit Yard')
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save the job document as a file' }).click(),
  ])
  await page.getByRole('link', { name: 'Mallow' }).click()
  await page.getByRole('button', { name: 'New job' }).click()
  await page.getByLabel('Open a job file').setInputFiles(await download.path())
  await expect(load(page, 'posts')).toContainText('48')
  await expect(page.getByLabel('Name of the job')).toHaveValue('Pipit Yard')
})

test('an address that leads nowhere has a way out', { tag: '@refused' }, async ({ page, mallow }) => {
  await page.goto(mallow.url + 'jobs/none')
  await expect(page.getByRole('heading', { name: 'No such job' })).toBeVisible()
  await page.getByRole('link', { name: 'All jobs' }).last().click()
  await expect(page.getByRole('heading', { name: 'Jobs' })).toBeVisible()
  await page.goto(mallow.url + 'nowhere')
  await expect(page.getByRole('heading', { name: 'There is nothing here' })).toBeVisible()
})
