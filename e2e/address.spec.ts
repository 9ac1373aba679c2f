import { expect, finding, mallowPath, open, part, saved, stage, test } from './mallow'

// An address says where in the work somebody is: it is sent on, reloaded and
// gone back from.
test('reload, back and a copied address keep run, stage, part and post', async ({ page, context, mallow }) => {
  await open(page, mallow)
  await stage(page, 'Dig')
  await part(page, 'All holes')
  await page.getByRole('button', { name: 'Next post' }).click()
  await page.getByRole('button', { name: 'Next post' }).click()
  await expect(page).toHaveURL(/\/runs\/R1\/dig\/holes\?post=R1.3$/)
  const there = page.url()

  await page.reload()
  await expect(page.getByTestId('post')).toHaveText('P3')
  await expect(page.getByRole('tab', { name: 'All holes' })).toHaveAttribute('aria-selected', 'true')

  const other = await context.newPage()
  await other.goto(there)
  await expect(other.getByTestId('post')).toHaveText('P3')
  await expect(other.getByRole('tab', { name: /^Dig/ })).toHaveAttribute('aria-selected', 'true')

  await stage(page, 'Slope')
  await expect(page).toHaveURL(/\/grade\//)
  await page.goBack()
  await expect(page.getByRole('tab', { name: /^Dig/ })).toHaveAttribute('aria-selected', 'true')
  await expect(page.getByRole('tab', { name: 'All holes' })).toHaveAttribute('aria-selected', 'true')
  await page.goForward()
  await expect(page).toHaveURL(/\/grade\//)
})

test('an address of what is not there any more, and an old one, lead to the job', async ({ page, mallow }) => {
  await open(page, mallow)
  const job = mallowPath(page)
  await page.goto(`${job}/runs/R99/nowhere/nothing?post=P999`)
  await expect(page.getByTestId('post')).toHaveText('P1')
  await page.goto(`${mallow.url}#${new URL(job).pathname}`)
  await expect(page.getByLabel('Name of the job')).toHaveValue('Tansy Bank Orchard')
})

// Reasons are asked for when a figure is opened, and follow what is changed.
test('a figure’s reasons come when it is opened, and again when it changes', async ({ page, mallow }) => {
  await open(page, mallow)
  await stage(page, 'Dig')
  await part(page, 'All holes')
  await expect(page.getByText('governs')).toHaveCount(0)
  await page.getByRole('button', { name: /P1 hole depth: why/ }).first().click()
  const why = page.getByRole('dialog', { name: 'Why: P1 hole depth' })
  await expect(why).toContainText('governs')
  await why.getByLabel('Below the frost by').fill('9in')
  await why.getByLabel('Below the frost by').press('Enter')
  await expect(why).toContainText('+ 9″')
})

// Ways out come after the figures, and are those of the plan that is drawn.
test('ways out are worked out after the figures, and can be taken then', async ({ page, mallow }) => {
  await open(page, mallow)
  await stage(page, 'Slope')
  const corridor = finding(page, 'corridor')
  const ways = corridor.locator('[data-ways] button')
  await expect(ways.first()).toBeEnabled()
  const before = await ways.count()
  expect(before).toBeGreaterThan(1)
  await ways.first().click()
  await saved(page)
  await expect(corridor.filter({ hasText: '6 of 18 bays' })).toHaveCount(0)
})
