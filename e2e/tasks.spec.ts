// Twelve jobs, each done as somebody would who never saw Mallow: from nothing,
// or from the list, to the figure that the crew needs. Clicks and keystrokes are
// counted and printed.
import { execFileSync } from 'node:child_process'
import type { Locator, Page } from '@playwright/test'
import { elevation, expect, finding, load, open, part, runLoad, saved, stage, test } from './mallow'

/** A hand on the screen, which counts what it does. */
class Hand {
  clicks = 0
  keys = 0
  constructor(readonly page: Page) {}
  async click(on: Locator) {
    await on.click()
    this.clicks++
  }
  button(name: string | RegExp, within: Page | Locator = this.page) {
    return this.click(within.getByRole('button', { name }).first())
  }
  radio(name: string | RegExp, within: Page | Locator = this.page) {
    return this.click(within.getByRole('radio', { name }).first())
  }
  async stage(name: string) {
    await stage(this.page, name)
    this.clicks++
  }
  async part(name: string) {
    await part(this.page, name)
    this.clicks++
  }
  async type(field: Locator, text: string) {
    // A new thing has the focus already.
    if (!(await field.evaluate((f) => f === document.activeElement))) await this.click(field)
    await field.fill(text)
    await field.press('Enter')
    this.keys += text.length + 1
  }
  label(name: string | RegExp) {
    return this.page.getByLabel(name, { exact: true })
  }
  /** Chooses from a list that opens. */
  async choose(label: string | RegExp, option: string | RegExp) {
    await this.click(this.page.getByRole('combobox', { name: label }).first())
    await this.click(this.page.getByRole('option', { name: option }).first())
  }
  /** What a customer says on the phone. */
  async begin(url: string, fence: RegExp, answers: { high?: string; long?: string; gate?: string; falls?: string }) {
    await this.page.goto(url)
    await this.button('New job')
    await this.radio(fence)
    const entry = async (label: string, text: string) => {
      // The field has the focus already, follows the one that has it, or is clicked.
      const here = () => this.label(label).evaluate((field) => field === document.activeElement)
      if (!(await here()) && (await this.page.locator('input:focus').count())) {
        await this.page.keyboard.press('Tab')
        if (await here()) this.keys++
      }
      if (!(await here())) await this.click(this.label(label))
      await this.page.keyboard.type(text)
      this.keys += text.length
    }
    if (answers.high) await entry('Height above ground', answers.high)
    if (answers.long) await entry('End post to end post', answers.long)
    if (answers.gate) await this.radio(answers.gate)
    if (answers.falls) {
      await this.radio('It falls')
      await entry('Lower at the far end by', answers.falls)
    }
    await entry('Frost depth', '36')
    await this.button('Plan it')
    await expect(elevation(this.page)).not.toHaveAttribute('data-posts', '0')
  }
}

interface Task {
  name: string
  most: number // clicks
  does: (hand: Hand, url: string) => Promise<void>
}
const posts = (page: Page) => elevation(page).getAttribute('data-posts').then(Number)

const tasks: Task[] = [
  {
    name: 'split rail with two corners',
    most: 11,
    does: async (hand, url) => {
      await hand.begin(url, /^Split rail(?! on)/, { long: '100' })
      await hand.stage('Walk')
      for (const [i, long] of ['60', '80'].entries()) {
        await hand.button('Run after it')
        await expect(hand.page.getByLabel('Run', { exact: true })).toHaveValue(`Run ${i + 2}`)
        await hand.type(hand.page.getByLabel('Run length'), long)
        await hand.type(hand.page.getByLabel(/^Corner angle/), '90')
      }
      await saved(hand.page)
      await expect(runLoad(hand.page)).toContainText('posts')
      await expect(hand.page.getByTestId('load')).toContainText('2 corner')
    },
  },
  {
    name: 'slatted fence with one held bay',
    most: 9,
    does: async (hand, url) => {
      await hand.begin(url, /^Close boards or slats/, { long: '80' })
      await hand.stage('Post spacing')
      await hand.part('Fixed posts')
      await hand.button('Next post')
      await hand.button(/^Fix the bay after P2/)
      await hand.type(hand.page.getByLabel('Width, centers').first(), '42"')
      await saved(hand.page)
      await expect(elevation(hand.page)).toContainText('42')
    },
  },
  {
    name: 'vinyl dropping to a street',
    most: 5,
    does: async (hand, url) => {
      await hand.begin(url, /^Routed vinyl privacy/, { long: '90', falls: '48in' })
      await hand.stage('Slope')
      await expect(hand.page.getByRole('radio', { name: /^Racked/ })).toBeChecked() // 48 in over 90 ft is within its limit
    },
  },
  {
    name: 'chain link with a gate',
    most: 7,
    does: async (hand, url) => {
      await hand.begin(url, /^Chain link/, { high: '4', long: '120', gate: 'Walk gate' })
      await expect(hand.page.locator('[data-class="leaf"]').first()).toBeAttached()
    },
  },
  {
    name: 'drive gate',
    most: 6,
    does: async (hand, url) => {
      await hand.begin(url, /^Chain link/, { long: '120', gate: 'Drive gate' })
      await hand.stage('Gates')
      await expect(hand.page.getByLabel('Clear opening').first()).toBeVisible()
    },
  },
  {
    name: 'slotted concrete down a slope',
    most: 6,
    does: async (hand, url) => {
      await hand.begin(url, /^Slotted concrete posts/, { long: '100', falls: '5' })
      await hand.stage('Slope')
      await expect(hand.page.getByRole('radio', { name: /^Stepped/ })).toBeChecked()
    },
  },
  {
    name: 'a curb beside the posts',
    most: 8,
    does: async (hand, url) => {
      await hand.begin(url, /^Metal panels(?! at)/, { long: '60' })
      await hand.stage('Dig')
      await hand.part('Rules')
      await hand.type(hand.page.locator('[data-rule="hole/across"]').getByRole('textbox'), '4"')
      await saved(hand.page)
      await hand.part('Hole card')
      await expect(hand.page.getByTestId('hole-card')).toContainText(/4″ to the left/)
    },
  },
  {
    name: 'a patio screen',
    most: 6,
    does: async (hand, url) => {
      await hand.begin(url, /^Cedar screen/, { high: '6', long: '24' })
      expect(await posts(hand.page)).toBeGreaterThan(3)
    },
  },
  {
    name: 'panels with boards under them',
    most: 6,
    does: async (hand, url) => {
      await hand.begin(url, /^Slotted timber posts/, { long: '72' })
      await hand.stage('Pour')
      await hand.part('Totals')
      await expect(hand.page.getByTestId('totals')).toContainText('Gravel boards')
    },
  },
  {
    name: 'exact six-foot boards',
    most: 6,
    does: async (hand, url) => {
      await hand.begin(url, /^Horizontal boards/, { long: '60' })
      await hand.stage('Post spacing')
      await hand.type(hand.page.getByLabel(/^Board length/), '6')
      await saved(hand.page)
      await expect(elevation(hand.page)).toHaveAttribute('data-posts', '11')
    },
  },
  {
    name: 'a rock at one post',
    most: 5,
    does: async (hand, url) => {
      await open(hand.page, { url } as never)
      hand.clicks++
      await hand.stage('Dig')
      await hand.click(hand.page.getByTestId('post'))
      await hand.page.keyboard.type('5')
      await hand.page.keyboard.press('Enter')
      hand.keys += 2
      await hand.type(hand.page.getByLabel('Stopped at a depth of'), '22')
      await expect(finding(hand.page, 'stopped')).toContainText('P5 is stopped by rock at 22″')
      await hand.click(hand.page.getByTestId('ways-out').locator('li').filter({ hasText: 'Dig it 14″ wide' }).getByRole('button', { name: 'Use this' }))
      await expect(finding(hand.page, 'stopped')).toHaveCount(0)
      await saved(hand.page)
    },
  },
  {
    name: 'a printed set',
    most: 3,
    does: async (hand, url) => {
      await open(hand.page, { url } as never)
      hand.clicks++
      await hand.button('Print and files')
      const [pdf] = await Promise.all([hand.page.waitForEvent('download'), hand.button('Print the crew’s sheets')])
      expect(Number(/Pages:\s+(\d+)/.exec(execFileSync('pdfinfo', [await pdf.path()]).toString())![1])).toBeLessThanOrEqual(10)
    },
  },
]

for (const task of tasks) {
  test(`task: ${task.name}`, async ({ page, mallow }) => {
    const hand = new Hand(page)
    await task.does(hand, mallow.url)
    console.log(`${task.name}: ${hand.clicks} clicks, ${hand.keys} keystrokes`)
    expect(hand.clicks, 'clicks').toBeLessThanOrEqual(task.most)
    expect(hand.keys, 'keystrokes').toBeLessThan(40)
  })
}

test('from nothing to a printed load', async ({ page, mallow }) => {
  const hand = new Hand(page)
  await hand.begin(mallow.url, /^Chain link/, { high: '4', long: '120', gate: 'Walk gate', falls: '18in' })
  await expect(load(page, 'bags')).toContainText('bags')
  await saved(page)
  await hand.button('Print and files')
  const [pdf] = await Promise.all([page.waitForEvent('download'), hand.button('Print the yard’s sheets')])
  const words = execFileSync('pdftotext', ['-layout', await pdf.path(), '-']).toString()
  expect(words).toContain('Load list')
  expect(words).toMatch(/\d+ bags/)
  console.log(`from nothing to a printed load: ${hand.clicks} clicks, ${hand.keys} keystrokes`)
  expect(hand.clicks).toBeLessThanOrEqual(11)
})
