import { readFileSync } from 'node:fs'
import ICAL from 'ical.js'
import { emptyJob, expect, open, part, saved, stage, test, type } from './mallow'

test('a hot afternoon breaks one load in two, and says what helps', async ({ page, mallow }) => {
  await open(page, mallow)
  await stage(page, 'Pour')
  const loads = page.getByTestId('loads').getByRole('listitem')
  await expect(loads).toHaveCount(2)
  await expect(loads.first()).toContainText('07:30')
  // From a plant close by, a fourth hand sets them all from one load in the cool.
  await type(page.getByLabel('Hands'), '4')
  await type(page.getByLabel("Truck's way"), '5')
  await expect(loads).toHaveCount(1)
  // After lunch it stiffens sooner: one load is not enough any more.
  await page.getByLabel('Ready at').fill('13:00')
  await expect(loads).toHaveCount(2)
  const split = page.locator('[data-finding="pour-split"]')
  await expect(split).toContainText('One load would stiffen')
  await split.getByRole('button').first().click()
  await expect(loads).toHaveCount(1)
  await saved(page)
})

test('a frost night moves the gate by days, and covering helps', async ({ page, mallow }) => {
  await open(page, mallow)
  await stage(page, 'Pour')
  const gates = page.locator('[data-wait="gates"]')
  await expect(gates).toContainText('May 7')
  await part(page, 'Weather')
  const days = page.getByTestId('weather-days').getByRole('listitem')
  for (const day of [1, 2, 3, 4]) {
    await type(days.nth(day).getByLabel(/^Noon/), '41')
    await type(days.nth(day).getByLabel(/^Night/), '25')
  }
  await part(page, 'The day')
  const frost = page.locator('[data-finding="pour-frost-after"]')
  await expect(frost).toContainText('It freezes on')
  await expect(gates).not.toContainText('May 7')
  await expect(gates).toContainText(/May (9|1\d)|not known/)
  await frost.getByRole('button').first().click()
  await expect(frost).toHaveCount(0)
  await saved(page)
})

// The file that cannot be read is refused by the server, or by the core in the browser.
test(
  'the weather office and a file of hours are read; what cannot be is said',
  { tag: '@refused' },
  async ({ page, mallow }) => {
    await open(page, mallow)
    await stage(page, 'Pour')
    await part(page, 'Weather')
    await page.getByRole('button', { name: 'Ask the weather office' }).click()
    await expect(page.getByText(/Simulated weather office: \d+ hours/)).toBeVisible()
    const file = page.locator('input[type="file"]')
    await file.setInputFiles({
      name: 'nonsense.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from('a,b\n1,2\n'),
    })
    await expect(page.getByRole('alert')).toContainText('a column of times')
    await file.setInputFiles({
      name: 'hours.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from('time,temp,clouds\n2027-05-03 07:00,12,1\n2027-05-03 08:00,13,2\n'),
    })
    await expect(page.getByText('hours.csv: 2 hours')).toBeVisible()
    await page.getByRole('button', { name: 'Forget these hours' }).click()
    await expect(page.getByTestId('weather-hours')).toHaveCount(0)
    await saved(page)
  },
)

test('a day of weather is typed in, and counts once it is whole; an office needs a place', async ({
  page,
  mallow,
}) => {
  await emptyJob(page, mallow.url, 'Typed')
  await type(page.getByLabel('How long is the run?'), '80')
  await stage(page, 'Pour')
  await page.getByLabel('Day of the pour').fill('2027-06-07')
  await expect(page.locator('[data-ask="/weather"]')).toBeVisible()
  await part(page, 'Weather')
  await page.getByRole('button', { name: 'Ask the weather office' }).click()
  await expect(page.getByRole('alert')).toContainText('under Walk, Files')
  await page.getByRole('button', { name: 'Type in a day' }).click()
  const draft = page.getByTestId('weather-draft')
  await type(draft.getByLabel(/^Morning/), '50')
  await type(draft.getByLabel(/^Noon/), '70')
  await expect(page.getByTestId('weather-days')).toHaveCount(0)
  await type(draft.getByLabel(/^Night/), '45')
  await expect(page.getByTestId('weather-days').getByRole('listitem')).toHaveCount(1)
  await part(page, 'The day')
  await expect(page.locator('[data-ask="/weather"]')).toHaveCount(0)
  await saved(page)
})

test('the dig day is moved, the rest follows, the sheet and the calendar say so', async ({
  page,
  mallow,
}) => {
  await open(page, mallow, 'Pipit Yard')
  await stage(page, 'Days')
  const sum = page.getByTestId('days-sum')
  await expect(sum).toContainText('Apr 19')
  await expect(page.locator('[data-day="2027-04-12"]')).toContainText('Pour')
  await part(page, 'Tasks')
  const dig = page.locator('[data-task="dig"]')
  await dig.getByLabel('Begin on').fill('2027-04-14')
  // Holes cannot be dug after the pour: it has no place, and the way out is to pour later.
  await part(page, 'Day by day')
  const pour = page.locator('[data-finding="days-pour"]')
  await expect(pour).toContainText('2027-04-12')
  await pour.getByRole('button').click()
  await expect(page.locator('[data-day="2027-04-14"]')).toContainText('Dig')
  await expect(sum).not.toContainText('Apr 19')
  await saved(page)
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Calendar file' }).click(),
  ])
  const text = readFileSync(await file.path(), 'utf8')
  expect(file.suggestedFilename()).toContain('.ics')
  // Read back by another library: an event for each day, by the clock on site.
  const calendar = new ICAL.Component(ICAL.parse(text))
  const events = calendar.getAllSubcomponents('vevent').map((e) => new ICAL.Event(e))
  await expect(page.getByTestId('days-list').locator('> li')).toHaveCount(events.length)
  const dug = events.find((e) => e.summary.includes('Dig'))!
  expect(dug.startDate.toString()).toBe('2027-04-14T07:30:00')
  expect(new Set(events.map((e) => e.uid)).size).toBe(events.length)
  await part(page, 'Crew')
  await page.getByLabel('Day', { exact: true }).fill('2027-04-15')
  await page.getByRole('button', { name: 'Add a day off' }).click()
  await part(page, 'Day by day')
  await expect(page.locator('[data-day="2027-04-16"]')).toContainText('Set and brace posts')
  await expect(page.locator('[data-day="2027-04-15"]')).toHaveCount(0)
  await saved(page)
})

test('part of a run has its own height, on level ground too', async ({ page, mallow }) => {
  await open(page, mallow, 'Pipit Yard')
  await stage(page, 'Slope')
  await page.getByRole('button', { name: /Another slope or height from/ }).click()
  const first = page.locator('[data-part="0"]')
  await type(first.getByLabel('Height', { exact: true }), '900')
  await saved(page)
  await stage(page, 'Build')
  await part(page, 'Parts')
  await expect(page.locator('[data-part="board"]')).toContainText('900')
})
