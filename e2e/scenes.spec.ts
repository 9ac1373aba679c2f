import type { Locator, Page } from '@playwright/test'
import { elevation, expect, open, part, saved, siteMap, stage, test, full } from './mallow'

/** What lies on what in the drawings of a page, or past their frames: by the boxes that the browser set the words in. */
const crossing = (page: Page) =>
  page.evaluate(() => {
    type Quad = { x: number; y: number }[]
    const out: string[] = []
    let seen = 0
    // Letters are not as high as their line.
    const quad = (t: SVGTextElement): Quad => {
      const b = t.getBBox()
      const m = t.getScreenCTM()!
      const [x1, x2, y1, y2] = [b.x + 0.8, b.x + b.width - 0.8, b.y + b.height * 0.14, b.y + b.height * 0.86]
      return [
        [x1, y1],
        [x2, y1],
        [x2, y2],
        [x1, y2],
      ].map(([x, y]) => new DOMPoint(x, y).matrixTransform(m))
    }
    /** Two convex shapes that no line parts. */
    const cross = (a: Quad, b: Quad) => {
      for (const q of [a, b])
        for (let i = 0; i < 4; i++) {
          const [p, r] = [q[i]!, q[(i + 1) % 4]!]
          const [nx, ny] = [p.y - r.y, r.x - p.x]
          const on = (s: Quad) => s.map((c) => nx * c.x + ny * c.y)
          const [u, v] = [on(a), on(b)]
          if (Math.max(...u) <= Math.min(...v) || Math.max(...v) <= Math.min(...u)) return false
        }
      return true
    }
    for (const scene of document.querySelectorAll<SVGGElement>('.scene')) {
      const svg = scene.ownerSVGElement!
      const frame = svg.getBoundingClientRect()
      if (!frame.width || frame.width < 30) continue
      const words = [...scene.querySelectorAll('text')].map((t) => ({ quad: quad(t), said: t.textContent! }))
      seen += words.length
      words.forEach((w, i) => {
        for (const c of w.quad)
          if (c.x < frame.left - 1 || c.x > frame.right + 1 || c.y < frame.top - 1 || c.y > frame.bottom + 1) {
            out.push(`${w.said} leaves its frame`)
            break
          }
        for (const o of words.slice(0, i)) if (cross(w.quad, o.quad)) out.push(`${w.said} lies on ${o.said}`)
      })
    }
    return { out, seen }
  })

/** Waits until the drawings of a page are those of what is looked at. */
async function drawn(page: Page) {
  await saved(page)
  await expect(page.locator('[data-drawn="true"]').first()).toBeAttached()
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))))
  await expect(page.locator('[data-drawn="true"]').first()).toBeAttached()
}

/** Goes to every drawing that there is, of every run. */
async function everyDrawing(page: Page, look: (what: string) => Promise<void>) {
  const runs = page.getByRole('navigation', { name: 'Runs' }).getByRole('button')
  for (let n = 0; n < (await runs.count()); n++) {
    await runs.nth(n).click()
    for (const name of ['Walk', 'String', 'Post spacing', 'Slope', 'Dig', 'Pour']) {
      await stage(page, name)
      await look(`run ${n}, ${name}`)
    }
    await stage(page, 'Slope')
    await part(page, 'Story stick')
    await look(`run ${n}, story stick`)
    await stage(page, 'Dig')
    await part(page, 'Hole card')
    await look(`run ${n}, hole card`)
    await stage(page, 'Gates')
    if (await page.getByRole('tab', { name: /^Swing/ }).isVisible())
      for (const name of ['Opening', 'Swing', 'Posts', 'Hang it']) {
        await part(page, name)
        await look(`run ${n}, gate, ${name}`)
      }
  }
  await stage(page, 'Post spacing')
  await page.getByRole('button', { name: /^View/ }).click()
  const all = page.getByRole('button', { name: 'Show all runs in line' })
  const many = await all.isVisible()
  if (many) await all.click()
  await page.keyboard.press('Escape')
  if (many) await look('unrolled')
}

for (const width of full ? [390, 1280, 2560] : [390, 1280]) {
  for (const job of ['Tansy Bank Orchard', 'Pipit Yard']) {
    test(`no words lie on others in any drawing of ${job}, ${width} pixels wide`, async ({ page, mallow }) => {
      test.slow()
      await page.setViewportSize({ width, height: width === 390 ? 844 : 900 })
      await open(page, mallow, job)
      let seen = 0
      await everyDrawing(page, async (what) => {
        await drawn(page)
        const found = await crossing(page)
        expect(found.out, what).toEqual([])
        seen += found.seen
      })
      expect(seen).toBeGreaterThan(width === 390 ? 200 : 500)
    })
  }
}

// What a crew member sees is what is stored here: `npm run pictures` makes
// the pictures again, on purpose, when a drawing is meant to look otherwise.
test('every drawing looks as it did', async ({ page, mallow }) => {
  test.slow()
  await page.setViewportSize({ width: 1280, height: 1900 })
  const look = async (what: Locator, name: string) => {
    await drawn(page)
    await expect(what).toHaveScreenshot(`${name}.png`, { maxDiffPixelRatio: 0.02, animations: 'disabled' })
  }
  await open(page, mallow)
  for (const [name, picture] of [
    ['Post spacing', 'space'],
    ['Slope', 'grade'],
    ['Dig', 'dig'],
    ['String', 'string'],
  ] as const) {
    await stage(page, name)
    await look(elevation(page), picture)
  }
  await look(siteMap(page), 'map')
  await stage(page, 'Dig')
  await part(page, 'Hole card')
  const shown = (of: string) => page.locator(`[data-picture="${of}"]`).first()
  await look(shown('hole'), 'hole')
  await stage(page, 'Slope')
  await part(page, 'Story stick')
  await look(shown('stick'), 'stick')
  await part(page, 'Along the line')
  await look(shown('along'), 'along')
  await stage(page, 'Gates')
  await part(page, 'Opening')
  await look(shown('front'), 'opening')
  await part(page, 'Hang it')
  await look(shown('front'), 'hang')
  await part(page, 'Swing')
  await page.getByRole('slider', { name: /^The leaf on/ }).focus()
  await page.keyboard.press('End')
  await look(shown('above'), 'above')
  await look(shown('side'), 'side')
  await look(shown('swing'), 'swing')
})
