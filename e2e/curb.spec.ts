import { emptyJob, elevation, expect, finding, part, saved, stage, test, type } from './mallow'

test('a mowing curb is added, counted, poured after the posts, and its forms are printed', async ({
  page,
  mallow,
}) => {
  await emptyJob(page, mallow.url, 'Curb')
  await type(page.getByLabel('How long is the run?'), '80')
  await stage(page, 'Pour')
  await part(page, 'Mowing curb')
  await page.getByRole('button', { name: 'Add a mowing curb' }).click()
  const sum = page.getByTestId('curb-sum')
  // 80 ft and half a foot past each end post.
  await expect(sum).toContainText(/81' 0" of curb/)
  await expect(page.getByText(/164' 0" of forms: 11 boards of 16' 0"/)).toBeVisible()
  await expect(page.getByRole('row', { name: /P2/ })).toContainText('8')
  // Less concrete in a narrower one; the fence is too near a high one, and one tap helps.
  await type(page.getByLabel('Width', { exact: true }), '6')
  await expect(finding(page, 'curb-beside')).toHaveCount(1)
  await type(page.getByLabel('Width', { exact: true }), '12')
  await expect(finding(page, 'curb-beside')).toHaveCount(0)
  await part(page, 'The day')
  await page.getByLabel('Day of the pour').fill('2027-06-07')
  await expect(page.getByTestId('loads').getByRole('listitem')).toHaveCount(2)
  await expect(page.getByTestId('pour-posts').locator('[data-post="Curb at B1"]')).toContainText(
    'Trowel, edge',
  )
  // The drawing: nothing is in when the first post is begun, all of it hours later.
  const open = elevation(page).locator('[data-class="fill"][data-material="open"]')
  const slider = page.getByLabel('Look at')
  await slider.focus()
  await slider.press('ArrowRight')
  await expect(page.getByTestId('set-hours')).toContainText(/of 11 posts in/)
  await expect(open.first()).toBeAttached()
  for (let i = 0; i < 8; i++) await slider.press('ArrowRight')
  await expect(page.getByTestId('set-hours')).toContainText('11 of 11 posts in')
  await expect(open).toHaveCount(0)
  await saved(page)
  await page.goto(page.url().replace(/runs.*$/, 'sheets?sheet=curb'))
  await expect(page.getByRole('heading', { name: '1 page' })).toBeVisible()
})

test('one crew is in two places on the board, and keeps clear by one tap', async ({ page, mallow }) => {
  const doc = {
    mallow: 2,
    name: 'Reed Close',
    units: { system: 'imperial', smallestMark: 1.5875 },
    site: { before: { services: true } },
    days: { start: '2027-05-03' },
    lines: [{ id: 'L1', runs: [{ id: 'R1', name: 'Front', length: 24384 }] }],
  }
  const made = await page.request.post(`${mallow.url}api/jobs`, { data: { doc } })
  expect(made.ok()).toBe(true)
  await page.goto(mallow.url)
  await page.getByRole('link', { name: 'Board' }).click()
  const row = page.locator('[data-end="Reed Close"]')
  await expect(row).toContainText('in two places')
  await expect(
    page
      .getByRole('row', { name: /Reed Close/ })
      .getByText('2×')
      .first(),
  ).toBeVisible()
  await row.getByRole('button', { name: /Keep clear/ }).click()
  await expect(page.getByRole('status')).toContainText('Reed Close keeps clear')
  await expect(row).not.toContainText('in two places')
  const calendar = await page.request.get(`${mallow.url}api/board.ics?crew=`)
  const text = await calendar.text()
  expect(text).toContain('SUMMARY:Reed Close')
  expect(text).toContain('SUMMARY:Pipit Yard')
  // Each day of the crew is of one job.
  const days = [...text.matchAll(/DTSTART:(\d{8})/g)].map((m) => m[1])
  expect(new Set(days).size).toBe(days.length)
  // In the job it says so, and can be undone.
  await page.getByRole('link', { name: 'Reed Close' }).first().click()
  await stage(page, 'Days')
  await part(page, 'Crew')
  await expect(page.getByText(/On another job: 2027-05-03/)).toBeVisible()
  await page.getByRole('button', { name: 'Free these days' }).click()
  await expect(page.getByText(/On another job/)).toHaveCount(0)
  await saved(page)
})
