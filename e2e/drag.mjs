// Measures what a hand feels: the demo's gate is dragged along the tape, as it
// is and with the processor slowed fourfold. Prints the time between frames,
// the time from a request for a plan until it is drawn, and how soon the list
// and a job stand on a cold page.
import { spawn } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import { chromium } from '@playwright/test'

const path = (p) => fileURLToPath(new URL(p, import.meta.url))
const server = spawn(path('../bin/mallow'), ['demo', '--listen', '127.0.0.1:0'], { stdio: ['ignore', 'pipe', 'ignore'] })
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

const at = (all, share) => [...all].sort((a, b) => a - b)[Math.min(all.length - 1, Math.floor(all.length * share))]
const ms = (v) => `${v.toFixed(1)} ms`

/** A page with nothing in its cache, its processor slowed. */
async function fresh(slowed) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, colorScheme: 'light' })
  const page = await context.newPage()
  const tools = await context.newCDPSession(page)
  await tools.send('Emulation.setCPUThrottlingRate', { rate: slowed })
  return { context, page }
}

async function cold(slowed) {
  const lists = []
  const jobs = []
  let address = ''
  for (let n = 0; n < 5; n++) {
    const { context, page } = await fresh(slowed)
    const began = performance.now()
    await page.goto(url, { waitUntil: 'commit' })
    await page.getByRole('link', { name: /^Pipit/ }).waitFor()
    lists.push(performance.now() - began)
    if (!address) {
      await page.getByRole('link', { name: /^Tansy Bank Orchard \d/ }).click()
      await page.getByRole('application').first().waitFor()
      address = page.url()
    }
    await context.close()
    const other = await fresh(slowed)
    const opened = performance.now()
    await other.page.goto(address, { waitUntil: 'commit' })
    await other.page.getByRole('application').first().waitFor()
    jobs.push(performance.now() - opened)
    await other.context.close()
  }
  console.log(`slowed ${slowed}: cold page, list shown ${ms(at(lists, 0.5))}, job opened ${ms(at(jobs, 0.5))} (median of 5)`)
  return address
}

/** Begins to note the time between frames. */
const watch = (page) =>
  page.evaluate(() => {
    window.frames_ = []
    let last = performance.now()
    const tick = (now) => {
      window.frames_.push(now - last)
      last = now
      window.ticking_ = requestAnimationFrame(tick)
    }
    window.ticking_ = requestAnimationFrame((now) => ((last = now), (window.ticking_ = requestAnimationFrame(tick))))
  })
/** The times that were noted; no more are. */
const times = (page) => page.evaluate(() => (cancelAnimationFrame(window.ticking_), window.frames_))

/** What can be dragged: the stage that it is dragged in, what is taken, and whether up and down. */
const hands = {
  gate: { stage: 'Post spacing', take: '[data-gate]', up: false },
  post: { stage: 'Post spacing', take: '[data-post="P4"]', up: false },
  'string end': { stage: 'Slope', take: '[data-string-end="end"]', up: true },
  'ground point': { stage: 'Walk', take: '[data-ground] >> nth=3', up: true },
  'map corner': { stage: 'Walk', take: '[data-corner="R2"]', up: false, middle: true },
}

async function drag(slowed, address, mode, what = '', hand = 'gate') {
  const { stage, take, up, middle } = hands[hand]
  const { context, page } = await fresh(slowed)
  if (mode === 'server') await context.route('**/*.wasm', (route) => route.abort())
  await page.addInitScript(() => {
    window.drawn_ = []
    window.planned_ = []
    new PerformanceObserver((list) => {
      for (const e of list.getEntries()) if (e.name === 'plan drawn') window.drawn_.push(e.duration)
        else if (e.name === 'plan') window.planned_.push(e.duration)
    }).observe({ type: 'measure' })
  })
  await page.goto(address)
  await page.getByRole('tab', { name: new RegExp(`^${stage}`) }).click()
  const gate = page.locator(take).first()
  await gate.waitFor()
  if (mode === 'core') await page.waitForSelector('[data-core="ready"]', { state: 'attached' })
  await page.waitForTimeout(1500)
  const box = await gate.boundingBox()
  const [x, y] = [box.x + box.width / 2, box.y + (up || middle ? box.height / 2 : 20)]
  await page.mouse.move(x, y)
  await page.mouse.down()
  await page.evaluate(() => (window.drawn_.length = window.planned_.length = 0))
  await watch(page)
  const until = performance.now() + 6000
  for (let n = 0; performance.now() < until; n++) {
    const by = Math.sin(n / 25)
    await page.mouse.move(x + (up ? 0 : (middle ? 30 : 110) * by), y + (up ? 30 * by : 0))
    await page.waitForTimeout(12)
  }
  const frames = await times(page)
  const { drawn, planned } = await page.evaluate(() => ({ drawn: window.drawn_, planned: window.planned_ }))
  await page.mouse.up()
  console.log(
    `${what}slowed ${slowed}, planned by the ${mode}: ${hand} dragged, frame p50 ${ms(at(frames, 0.5))} p95 ${ms(at(frames, 0.95))} of ${frames.length}; asked to planned p50 ${ms(at(planned, 0.5))}, to drawn p50 ${ms(at(drawn, 0.5))} p95 ${ms(at(drawn, 0.95))} of ${drawn.length}`,
  )
  await context.close()
}

/** A job of one straight run over rolling ground, with a gate in it. */
async function long(posts) {
  const bay = 2438.4
  const ground = []
  for (let i = 0; i < posts; i += 10) ground.push({ at: i * bay, height: 900 * Math.sin(i / 40) })
  const doc = {
    mallow: 2,
    name: `${posts} posts`,
    units: { system: 'imperial', smallestMark: 1.5875 },
    lines: [{ id: 'L1', runs: [{ id: 'R1', name: 'Long', length: (posts - 1) * bay, ground, gates: [{ id: 'G1', name: 'Long gate', at: 20 * bay, opening: 1200 }] }] }],
  }
  const made = await fetch(`${url}api/jobs`, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify({ doc }) })
  if (!made.ok) throw new Error(await made.text())
  return `${url}jobs/${(await made.json()).id}`
}

/** Opens a long run, scrolls along it and zooms in and out. */
async function roam(address, posts) {
  const { context, page } = await fresh(1)
  const opened = performance.now()
  await page.goto(address, { waitUntil: 'commit' })
  await page.locator('.scene path').first().waitFor({ state: 'attached' })
  const open = performance.now() - opened
  await page.waitForSelector('[data-core="ready"]', { state: 'attached' })
  await page.waitForTimeout(3000)
  const box = await page.getByRole('application').first().boundingBox()
  await page.mouse.move(box.x + box.width / 2, box.y + 60)
  const watched = async (what, wheel) => {
    await watch(page)
    const until = performance.now() + 5000
    for (let n = 0; performance.now() < until; n++) {
      await wheel(n)
      await page.waitForTimeout(8)
    }
    const frames = await times(page)
    console.log(`${posts} posts, ${what}: frame p50 ${ms(at(frames, 0.5))} p95 ${ms(at(frames, 0.95))} of ${frames.length}, ${(1000 / (frames.reduce((a, b) => a + b, 0) / frames.length)).toFixed(0)} frames a second`)
  }
  console.log(`${posts} posts: drawn after ${ms(open)}`)
  await page.keyboard.down('Control')
  await watched('zooming in', () => page.mouse.wheel(0, -12))
  await page.keyboard.up('Control')
  await watched('scrolling', (n) => page.mouse.wheel(n % 200 < 100 ? 40 : -40, 0))
  await page.keyboard.down('Control')
  await watched('zooming out', () => page.mouse.wheel(0, 12))
  await page.keyboard.up('Control')
  await context.close()
}

try {
  if (!process.argv.includes('--short')) {
    const demo = await cold(1)
    for (const hand of ['post', 'string end', 'ground point', 'map corner']) await drag(1, demo, 'core', '', hand)
    await drag(1, await long(300), 'core', '300 posts, ')
    await drag(4, await long(300), 'core', '300 posts, ')
    await roam(await long(10_000), 10_000)
  }
  for (const slowed of [1, 4]) {
    const address = await cold(slowed)
    for (const mode of ['server', 'core']) await drag(slowed, address, mode)
  }
} finally {
  await browser.close()
  server.kill()
}
