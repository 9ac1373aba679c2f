// What is typed into an empty job, as somebody would who never saw it.
import type { Page } from '@playwright/test'
import { expect, load, part, saved, stage, test, type, emptyJob } from './mallow'

async function empty(page: Page, url: string, metric = false) {
  await emptyJob(page, url, 'Empty', metric ? 'metric' : 'imperial')
}

test('a bare 120 is 120 feet of fence, shown as it is typed', async ({ page, mallow }) => {
  await empty(page, mallow.url)
  const length = page.getByLabel('1. How long is the run?')
  await length.fill('120')
  await expect(page.getByText(/read as\s+120′/)).toBeAttached()
  await expect(page.getByRole('button', { name: 'or 120 in' })).toBeVisible()
  await length.press('Enter')
  await expect(load(page, 'posts')).toContainText('16')
  await type(page.getByLabel('2. How does the ground go?'), '0')
  await type(page.getByLabel('3. How deep does the frost go?'), '36') // inches: no frost goes 36 ft
  await page.getByRole('button', { name: 'Go on' }).click()
  await saved(page)
  // A flat run opens with nothing to warn of.
  await expect(page.locator('[data-finding]')).toHaveCount(0)
})

test('a bare 11.35 in a metric job is 11.35 m', async ({ page, mallow }) => {
  await empty(page, mallow.url, true)
  await page.getByLabel('1. How long is the run?').fill('11,35')
  await expect(page.getByText(/read as\s+11\.350 m/)).toBeAttached()
  await page.getByLabel('1. How long is the run?').press('Enter')
  await expect(load(page, 'posts')).toContainText('6') // 5 bays of 2.27 m, at most 2.4 m
})

test('a length that is corrected takes the far end along; a gate too wide offers a longer run', { tag: '@refused' }, async ({ page, mallow }) => {
  await empty(page, mallow.url)
  await type(page.getByLabel('1. How long is the run?'), '20')
  await type(page.getByLabel('2. How does the ground go?'), '2ft')
  await type(page.getByLabel('3. How deep does the frost go?'), '0')
  await page.getByRole('button', { name: 'Go on' }).click()
  await stage(page, 'Gates')
  await page.getByRole('button', { name: 'Add gate' }).click()
  await page.getByLabel('Add gate', { exact: true }).getByRole('button').first().click()
  await saved(page)
  // Wider than the run: what is wrong, and the run made long enough.
  await type(page.getByRole('textbox', { name: 'Between posts' }), '22ft')
  await expect(page.getByRole('alert')).toContainText(/It must be/)
  await page.getByRole('button', { name: /^Make the run/ }).click()
  await saved(page)
  await expect(page.getByRole('textbox', { name: 'Between posts' })).toHaveValue(`22' 0"`)
  // A correction: the height at the far end stays at the far end.
  await stage(page, 'Walk')
  await type(page.getByLabel('Run length'), '30')
  await saved(page)
  await part(page, 'Ground')
  await expect(page.getByLabel('Height of ground point 2')).toHaveValue(/^(2' 0"|24")$/)
  await expect(page.getByLabel('Distance of ground point 2')).toHaveValue(`30' 0"`)
})
