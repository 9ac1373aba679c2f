// Writes docs/screenshots from the demo data: one picture of each main view.
import { spawn } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import { chromium } from '@playwright/test'

const path = (p) => fileURLToPath(new URL(p, import.meta.url))
const server = spawn(path('../bin/mallow'), ['demo', '--listen', '127.0.0.1:0'], { stdio: ['ignore', 'pipe', 'inherit'] })
const url = await new Promise((resolve) => {
  let said = ''
  server.stdout.on('data', (text) => {
    said += text
    const found = /http:\/\/\S+\//.exec(said)
    if (found) resolve(found[0])
  })
})
const browser = await chromium.launch({
  executablePath: process.env.MALLOW_CHROMIUM ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync'],
})

async function shot(name, { width = 1280, height = 800, dark = false } = {}, steps = async () => {}) {
  const page = await browser.newPage({ viewport: { width, height }, colorScheme: dark ? 'dark' : 'light', reducedMotion: 'reduce' })
  await page.goto(url)
  await page.getByRole('heading', { name: 'Jobs' }).waitFor()
  await page.getByRole('link', { name: /^Pipit/ }).waitFor()
  await steps(page)
  await page.waitForTimeout(500)
  await page.screenshot({ path: path(`../docs/screenshots/${name}.png`) })
  await page.close()
}

const open = async (page, stage, job = /^Tansy Bank Orchard \d/, run = '') => {
  await page.getByRole('link', { name: job }).click()
  await page.getByRole('application').first().waitFor()
  if (run) await page.getByRole('navigation', { name: 'Runs' }).getByRole('button', { name: run }).click()
  await page.getByRole('tab', { name: new RegExp(`^${stage}`) }).click()
}
const pick = async (page, n) => {
  for (let i = 1; i < n; i++) await page.getByRole('button', { name: 'Next post' }).click()
}
const part = (page, name) => page.getByRole('tab', { name: new RegExp(`^${name}`) }).click()
/** Scrolls the bench so that something stands at its top. */
const top = (page, locator) => locator.first().evaluate((e) => e.scrollIntoView({ block: 'start' }))

await shot('jobs')
await shot('walk', {}, async (page) => {
  await open(page, 'Walk', /^Pipit/, 'Play side')
  await top(page, page.getByText('Runs, in the order they are walked'))
})
await shot('ground', {}, async (page) => {
  await open(page, 'Walk', undefined, 'Round the trees')
  await part(page, 'Ground')
  await top(page, page.getByRole('heading', { name: 'Level, round the trees' }))
})
await shot('before-you-dig', {}, async (page) => {
  await open(page, 'Walk')
  await part(page, 'Before you dig')
})
await shot('string', {}, async (page) => {
  await open(page, 'String', /^Pipit/)
  await page.getByRole('button', { name: 'Larger' }).click()
  await top(page, page.getByRole('heading', { name: 'Strings of Street side' }))
})
await shot('space', {}, (page) => open(page, 'Post spacing', undefined, 'Round the trees'))
await shot('print', {}, async (page) => {
  await open(page, 'Post spacing', undefined, 'Round the trees')
  await page.getByRole('button', { name: 'Print and files' }).click()
  await page.getByRole('button', { name: /^Crew/ }).click()
  await page.getByRole('img', { name: 'Page 1 of Crew' }).waitFor()
  await page.waitForTimeout(800)
})
await shot('grade', {}, (page) => open(page, 'Slope'))
await shot('findings', {}, async (page) => {
  await open(page, 'Slope')
  await page.locator('[data-flag="corridor"]').click()
  await page.locator('[data-finding="corridor"] [data-ways] button').first().waitFor()
})
await shot('hang', {}, async (page) => {
  await open(page, 'Gates')
  await part(page, 'Hang it')
})
await shot('dig', {}, async (page) => {
  await open(page, 'Dig', undefined, 'Round the trees')
  await pick(page, 3)
  await top(page, page.getByTestId('hole-card'))
})
await shot('build', {}, async (page) => {
  await open(page, 'Build', /^Pipit/)
  await page.locator('[data-picture="bay"]').waitFor()
})
await shot('cuts', {}, async (page) => {
  await open(page, 'Build', /^Pipit/)
  await part(page, 'Cut list')
  await top(page, page.locator('[data-cut]'))
})
await shot('board', {}, async (page) => {
  // A third job, whose crew would be in two places.
  const doc = {
    mallow: 2,
    name: 'Reed Close',
    units: { system: 'imperial', smallestMark: 1.5875 },
    site: { before: { services: true } },
    days: { start: '2027-05-03' },
    lines: [{ id: 'L1', runs: [{ id: 'R1', name: 'Front', length: 24384 }] }],
  }
  await page.request.post(new URL('/api/jobs', page.url()).href, { data: { doc } })
  await page.goto(new URL('/board', page.url()).href)
  await page.locator('[data-end="Reed Close"]').waitFor()
})
await shot('pour', {}, async (page) => {
  await open(page, 'Pour')
  await page.getByTestId('loads').waitFor()
})
await shot('days', {}, async (page) => {
  await open(page, 'Days')
  await page.getByTestId('days-list').waitFor()
})
await shot('phone-dark', { width: 390, height: 844, dark: true }, async (page) => {
  await open(page, 'Log')
  await page.getByTestId('log').waitFor()
  for (let i = 0; i < 4; i++)
    await page.getByRole('group', { name: 'What is done' }).getByRole('button', { name: 'Dug' }).click()
})
// These come last, for they change what is shown.
await shot('swing', {}, async (page) => {
  await open(page, 'Gates', undefined, 'Round the trees')
  await page.getByRole('radio', { name: 'One leaf' }).click()
  await page.locator('[data-flag="leaf-strikes"]').waitFor()
  await part(page, 'Swing')
})
await shot('new-job', {}, async (page) => {
  await page.getByRole('button', { name: 'New job' }).click()
  await page.getByRole('radio', { name: 'Chain link' }).first().click()
  await page.getByLabel('Height above ground').fill('4')
  await page.getByLabel('End post to end post').fill('120')
  await page.getByRole('radio', { name: 'Walk gate' }).click()
  await page.getByLabel('Frost depth').fill('36')
  await page.getByLabel('Name of the job').fill('Back field')
})

await browser.close()
server.kill('SIGTERM')
