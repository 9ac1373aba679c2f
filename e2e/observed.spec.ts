// What was seen on site: written down at a post, struck out, and found again by
// the post's name however the others are spaced.
import { expect, open, part, saved, stage, test, type } from './mallow'

test('a post is staked, keeps what it is called, and is found again by its name', { tag: '@refused' }, async ({ page, mallow }) => {
  await open(page, mallow)
  await stage(page, 'Post spacing')
  const write = async (what: string, more: () => Promise<void> = async () => {}) => {
    await page.getByRole('button', { name: 'Write down' }).click()
    if (what !== 'Staked') {
      await page.getByLabel('What was seen or done').click()
      await page.getByRole('option', { name: what, exact: true }).click()
    }
    await more()
    await page.getByRole('button', { name: 'Write it down' }).click()
    await saved(page)
  }
  const seen = page.getByTestId('seen')
  for (let i = 0; i < 10; i++) await page.getByRole('button', { name: 'Next post' }).click()
  await expect(page.getByTestId('post')).toHaveText('P11')
  await write('Staked')
  await write('Depth dug', async () => {
    await type(page.getByLabel('How much'), '40')
  })
  await write('A note', async () => {
    await page.getByLabel('In words').fill('root to the left 🌳')
  })
  await page.getByRole('button', { name: 'Write down' }).click()
  await expect(seen).toContainText('40"')
  await expect(seen).toContainText('“root to the left 🌳”')
  // What was wrong is struck out; what was right stays.
  await page.getByRole('button', { name: /^Depth dug at P11 was wrong/ }).click()
  await expect(seen.locator('[data-fact]')).toHaveCount(2)
  await page.keyboard.press('Escape')
  await saved(page)
  const there = page.url()
  expect(there).toContain('post=R1.11')

  // Closer posts: the staked one is called as it was, and holds its place in the list of names.
  await part(page, 'Bays')
  await type(page.getByLabel('Most spacing, center to center'), '6ft')
  await saved(page)
  await expect(page.getByTestId('post')).toHaveText('P11')
  await page.getByRole('button', { name: 'Write down' }).click()
  await expect(seen.locator('[data-fact="staked"]')).toBeVisible()
  // A week later, by its address.
  await page.goto(mallow.url)
  await page.goto(there)
  await expect(page.getByTestId('post')).toHaveText('P11')
  await page.getByRole('button', { name: 'Write down' }).click()
  await expect(page.getByTestId('seen')).toContainText('root to the left')
  const doc = await page.evaluate(async () => {
    const id = location.pathname.split('/')[2]
    return (await (await fetch(`/api/jobs/${id}`)).json()) as {
      revision: number
      doc: { observed: { id: string; what: string; on: string; strikes?: string }[] }
    }
  })
  expect(doc.doc.observed.map((f) => f.what)).toEqual(['staked', 'depth', 'note', 'struck out'])
  expect(doc.doc.observed[3]!.strikes).toBe('f2')

  // What is written down stays: a document without it is refused.
  const status = await page.evaluate(async (doc) => {
    const id = location.pathname.split('/')[2]
    const r = await fetch(`/api/jobs/${id}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ base: doc.revision, doc: { ...doc.doc, observed: [] }, what: 'Forgets' }),
    })
    return { status: r.status, text: await r.text() }
  }, doc)
  expect(status.status).toBe(422)
  expect(status.text).toContain('strike it out')
})

test('a post is gone to by its name', async ({ page, mallow }) => {
  await open(page, mallow)
  await stage(page, 'Post spacing')
  const at = page.getByTestId('post')
  await at.click()
  await page.getByLabel('Go to post').fill('P12')
  await page.keyboard.press('Enter')
  await expect(at).toHaveText('P12')
  await at.click()
  await page.getByLabel('Go to post').fill('99')
  await page.keyboard.press('Enter')
  await expect(page.getByText('no post of that name here')).toBeVisible()
  await page.getByLabel('Go to post').fill('7')
  await page.keyboard.press('Enter')
  await expect(at).toHaveText('P7')
  await expect(page).toHaveURL(/R1\.7/)
})

test('customer, address, notes and tags are kept, and a run is numbered again', { tag: '@refused' }, async ({ page, mallow }) => {
  await open(page, mallow)
  await stage(page, 'Post spacing')
  await page.getByRole('button', { name: 'Write down' }).click()
  await page.getByRole('button', { name: 'Write it down' }).click()
  await saved(page)
  await stage(page, 'Walk')
  await part(page, 'Notes')
  for (const [label, text] of [
    ['Customer', 'Orchard on the bank'],
    ['Where the work is', 'End of the lane'],
    ['Notes on the job', 'Gate is left open for the hens.\nRing first.'],
    ['Notes on Lane', 'Wet at the low end 💧'],
    ['Tags, separated by commas', 'spring, orchard, spring'],
  ] as const) {
    await page.getByLabel(label).fill(text)
    await page.getByLabel(label).blur()
  }
  await saved(page)
  await page.reload()
  await expect(page.getByLabel('Notes on Lane')).toHaveValue('Wet at the low end 💧')
  await expect(page.getByLabel('Tags, separated by commas')).toHaveValue('spring, orchard')
  await page.getByRole('button', { name: 'Number the posts of Lane again' }).click()
  await saved(page)
  await page.getByLabel('Tags, separated by commas').fill(Array.from({ length: 50 }, (_, i) => `t${i}`).join(','))
  await page.getByLabel('Tags, separated by commas').blur()
  await expect(page.locator('#tags-wrong')).toContainText('a list of 0 to 40')
})
