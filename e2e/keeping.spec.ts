import { expect, open, saved, stage, test, elevation, withoutCore } from './mallow'

test('a backup is made, put back, and that is undone the same way', async ({ page, mallow }) => {
  await page.goto(mallow.url)
  await page.getByRole('link', { name: 'Backups and history' }).click()
  await expect(page.getByRole('heading', { name: 'Backups and history' })).toBeVisible()
  await expect(page.getByText('2 jobs with 2 revisions')).toBeVisible()
  await page.getByRole('button', { name: 'Back up now' }).click()
  await expect(page.getByText('Backed up, and the copy was verified.')).toBeVisible()
  await page.getByRole('link', { name: 'All jobs', exact: true }).click()
  await page.getByRole('button', { name: 'Delete Pipit Yard' }).click()
  await expect(page.getByRole('link', { name: /^Pipit Yard/ })).toBeHidden()
  await page.getByText('Deleted (1)').click()
  await expect(page.getByText(/kept until .* at least/)).toBeVisible()
  await page.getByRole('link', { name: 'Backups and history' }).click()
  await page.getByRole('button', { name: /^Restore the backup of/ }).click()
  await expect(page.getByText('All jobs become what they were')).toBeVisible()
  await page.getByRole('button', { name: 'Restore all jobs' }).click()
  await expect(page.getByText('The backup was put back.')).toBeVisible()
  await expect(page.getByText('what was there before a backup was put back')).toBeVisible()
  // The newest backup holds what was there: one of the two in the bin.
  await page.getByRole('button', { name: /^Restore the backup of/ }).first().click()
  await page.getByRole('button', { name: 'Restore all jobs' }).click()
  // Once that is there too, it is done; that the first was put back is still said until then.
  await expect(page.getByText('what was there before a backup was put back')).toHaveCount(2)
  await expect(page.getByText('made by hand')).toBeVisible()
  await page.getByRole('link', { name: 'All jobs', exact: true }).click()
  await expect(page.getByText('Deleted (1)')).toBeVisible()
})

test('the tidying says what goes, and is switched off', async ({ page, mallow }) => {
  await page.goto(`${mallow.url}keeping`)
  await expect(page.getByText('Nothing is old enough to go.')).toBeVisible()
  await page.getByRole('checkbox', { name: 'Thin old history' }).uncheck()
  await expect(page.getByText('Nothing goes.')).toBeVisible()
  await page.reload()
  await expect(page.getByRole('checkbox', { name: 'Thin old history' })).not.toBeChecked()
  const file = page.waitForEvent('download')
  await page.getByRole('link', { name: 'All jobs (ZIP)' }).click()
  expect((await file).suggestedFilename()).toBe('mallow-jobs.zip')
})

test('many jobs come in pages and are found by name', async ({ page, mallow }) => {
  await page.goto(mallow.url)
  await expect(page.getByRole('searchbox')).toBeVisible()
  for (let i = 0; i < 58; i++) {
    const answer = await page.request.post(`${mallow.url}api/jobs`, { data: { name: `Plot ${i}`, system: 'metric' } })
    expect(answer.status()).toBe(201)
  }
  // The list hears of them without being read again by hand.
  await expect(page.getByText('60 jobs', { exact: true })).toBeVisible()
  await expect(page.getByRole('link', { name: /^Plot/ })).toHaveCount(50)
  await page.getByRole('button', { name: 'Show 10 more of 60' }).click()
  await expect(page.getByRole('link', { name: /^Plot/ })).toHaveCount(58)
  await page.getByRole('searchbox').fill('plot 5')
  await expect(page.getByText('13 jobs', { exact: true })).toBeVisible()
  await page.getByRole('searchbox').fill('TANSY')
  await expect(page.getByRole('link', { name: /^Tansy Bank Orchard/ })).toBeVisible()
  await page.getByRole('searchbox').fill('heron')
  await expect(page.getByText('No job’s name holds that.')).toBeVisible()
  await page.getByRole('button', { name: 'Show all' }).click()
  await expect(page.getByText('60 jobs', { exact: true })).toBeVisible()
})

test('another browser hears of a save at once', async ({ page, mallow, browser }) => {
  await open(page, mallow)
  const context = await browser.newContext()
  await withoutCore(context)
  const other = await context.newPage()
  await open(other, mallow)
  await page.getByLabel('Name of the job').fill('Renamed elsewhere')
  await page.getByLabel('Name of the job').press('Enter')
  await saved(page)
  await expect(other.getByLabel('Name of the job')).toHaveValue('Renamed elsewhere', { timeout: 5000 })
  await expect(other.getByText('Another window saved: Named Renamed elsewhere.')).toBeVisible()
  await context.close()
})

test('a full disk is said, the change is kept and saved once there is room', { tag: '@refused' }, async ({ page, mallow }) => {
  await open(page, mallow)
  let full = true
  await page.route('**/api/jobs/*', (route) =>
    full && route.request().method() === 'PATCH'
      ? route.fulfill({
          status: 507,
          contentType: 'application/problem+json',
          body: JSON.stringify({ status: 507, title: 'The disk is full', detail: 'Free some space.' }),
        })
      : route.continue(),
  )
  await page.getByLabel('Name of the job').fill('Kept through a full disk')
  await page.getByLabel('Name of the job').press('Enter')
  await expect(page.getByRole('alert')).toContainText('The disk is full. Free some space.')
  await expect(page.getByRole('alert')).toContainText('Your last change is kept in this browser')
  full = false
  await saved(page)
  await expect(page.getByRole('alert')).toBeHidden()
})

test('a job that cannot be planned opens to be read, taken out and gone back in', async ({ page, mallow }) => {
  await open(page, mallow)
  const id = /jobs\/(\w+)/.exec(page.url())![1]!
  await page.getByLabel('Name of the job').fill('Too long')
  await page.getByLabel('Name of the job').press('Enter')
  await saved(page)
  let over = true
  await page.route(`**/api/jobs/${id}`, async (route) => {
    const answer = await route.fetch()
    const state = await answer.json()
    await route.fulfill({ json: over ? { ...state, problem: 'given 6,000,000 posts in the job; allowed: at most 10,000' } : state })
  })
  await page.reload()
  await expect(page.getByRole('heading', { name: 'Too long cannot be planned' })).toBeVisible()
  await expect(page.getByText('6,000,000 posts')).toBeVisible()
  const file = page.waitForEvent('download')
  await page.getByRole('link', { name: 'The job document (JSON)' }).click()
  expect((await file).suggestedFilename()).toContain('Too long')
  over = false
  await page.getByRole('button', { name: 'Go back to revision 1' }).click()
  await expect(elevation(page)).toBeVisible()
  await expect(page.getByLabel('Name of the job')).toHaveValue('Tansy Bank Orchard')
})

test('a revision is pinned in the history', async ({ page, mallow }) => {
  await open(page, mallow)
  await stage(page, 'Walk')
  await page.getByRole('button', { name: 'History' }).click()
  const pin = page.getByRole('button', { name: 'Keep revision 1 however old it gets' })
  await expect(pin).toHaveAttribute('aria-pressed', 'false')
  await pin.click()
  await expect(pin).toHaveAttribute('aria-pressed', 'true')
  await page.getByRole('button', { name: 'Close', exact: true }).click()
  await page.getByRole('button', { name: 'History' }).click()
  await expect(pin).toHaveAttribute('aria-pressed', 'true')
})

test('a job whose names are emoji prints', async ({ page, mallow }) => {
  await open(page, mallow)
  await page.getByLabel('Name of the job').fill('🦊👨‍👩‍👧 yard')
  await page.getByLabel('Name of the job').press('Enter')
  await saved(page)
  await page.getByRole('button', { name: 'Print and files' }).click()
  const file = page.waitForEvent('download')
  await page.getByRole('button', { name: /^PDF, \d+ pages?/ }).click()
  expect((await file).suggestedFilename()).toContain('.pdf')
})
