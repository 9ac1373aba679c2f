// Each test drives the real binary with a fresh copy of the demo data.
import { spawn, type ChildProcess } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import { expect, test as base, type BrowserContext, type Locator, type Page } from '@playwright/test'

const binary = fileURLToPath(new URL('../bin/mallow', import.meta.url))

/** All that can be tried is tried (make test-full). */
export const full = !!process.env.MALLOW_FULL

export class Mallow {
  private constructor(
    private child: ChildProcess,
    readonly url: string,
    private args: string[],
  ) {}

  /** Starts the binary and waits for the address it prints. */
  static start(args = ['demo', '--listen', '127.0.0.1:0']): Promise<Mallow> {
    const child = spawn(binary, args, { stdio: ['ignore', 'pipe', 'pipe'] })
    return new Promise((resolve, reject) => {
      let said = ''
      child.stdout!.on('data', (text) => {
        said += text
        const url = /http:\/\/\S+\//.exec(said)?.[0]
        if (url) resolve(new Mallow(child, url, args))
      })
      child.stderr!.on('data', (text) => (said += text))
      child.on('exit', (code) => reject(new Error(`mallow stopped with ${code}: ${said}`)))
    })
  }

  stop(): Promise<void> {
    return new Promise((resolve) => {
      if (this.child.exitCode !== null) return resolve()
      this.child.on('exit', () => resolve())
      this.child.kill('SIGTERM')
    })
  }

  /** Starts again on the same port, with the same arguments. */
  async again(): Promise<Mallow> {
    await this.stop()
    const args = [...this.args]
    args[args.indexOf('--listen') + 1] = new URL(this.url).host
    return Mallow.start(args)
  }
}

/** A window whose list of findings is open, each with its ways out. */
const layout = JSON.stringify({ findings: true, details: true })
export const findingsOpen = (page: Page) =>
  page.addInitScript((layout) => {
    if (!localStorage.getItem('mallow.layout')) localStorage.setItem('mallow.layout', layout)
  }, layout)

/**
 * A page that works without the core in the browser, as where it cannot run: the
 * server answers the same calls. To compile it costs each fresh page seconds, so
 * only tests that are about it have it: `test.use({ core: true })`.
 */
export const withoutCore = (context: BrowserContext) =>
  context.addInitScript(() => {
    window.Worker = class extends EventTarget {
      onerror: (() => void) | null = null
      onmessage = null
      onmessageerror = null
      constructor() {
        super()
        queueMicrotask(() => this.onerror?.())
      }
      postMessage() {}
      terminate() {}
    } as unknown as typeof Worker
  })

export const test = base.extend<{ mallow: Mallow; core: boolean; quiet: void }>({
  core: [false, { option: true }],
  context: async ({ context, core }, use) => {
    if (!core) await withoutCore(context)
    await use(context)
  },
  mallow: async ({}, use) => {
    const mallow = await Mallow.start()
    await use(mallow)
    await mallow.stop()
  },
  // No page may complain: no error on the console, no break of the content
  // policy, nothing asked of another host.
  quiet: [
    // Depends on the server, so that it has its say before that stops.
    async ({ page, mallow: _ }, use, info) => {
      const heard: string[] = []
      await findingsOpen(page)
      page.on('pageerror', (e) => heard.push(e.message))
      page.on('console', (m) => m.type() === 'error' && !info.tags.includes('@refused') && heard.push(m.text()))
      page.on('request', (r) => {
        if (!/^(http:\/\/127\.0\.0\.1:|data:|blob:)/.test(r.url())) heard.push(`asked for ${r.url()}`)
      })
      await use()
      expect(heard).toEqual([])
    },
    { auto: true },
  ],
})

export { expect }

/** Opens a demo job by its name. */
export async function open(page: Page, mallow: Mallow, name = 'Tansy Bank Orchard') {
  await page.goto(mallow.url)
  await page.getByRole('link', { name: new RegExp(`^${name} \\d`) }).click()
  await expect(elevation(page)).toBeVisible()
}

/** A job in which nothing is measured yet, as an older file is one. */
export async function emptyJob(page: Page, url: string, name: string, system: 'imperial' | 'metric' = 'imperial') {
  const made = await page.request.post(`${url}api/jobs`, { data: { name, system } })
  const { id } = (await made.json()) as { id: string }
  await page.goto(`${url}jobs/${id}`)
}

/** The drawing from the side. */
export const elevation = (page: Page) => page.getByRole('application', { name: /from the side/ })
/** The drawing from above. */
export const siteMap = (page: Page) => page.getByRole('application', { name: /^Site map/ })
export const runLoad = (page: Page) => page.getByTestId('run-load')
/** Something of the menu at the drawing's edge. */
export async function view(page: Page, name: string | RegExp) {
  await page.getByRole('button', { name: /^View/ }).click()
  await page.getByRole('dialog', { name: 'View' }).getByRole('button', { name }).click()
  await page.keyboard.press('Escape')
}
/** Keys that follow each other at once, however slow the machine: within the half second in which nudges are one step. */
export const nudge = (on: Locator, key: string, times: number) =>
  on.evaluate(
    (at, [key, times]) => {
      for (let i = 0; i < times; i++) at.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }))
    },
    [key, times] as const,
  )
/** A part of the Walk bench. */
export const part = (page: Page, name: string) => page.getByRole('tab', { name: new RegExp(`^${name}`) }).click()

export const stage = (page: Page, name: string) => page.getByRole('tablist', { name: 'Stages of the work' }).getByRole('tab', { name: new RegExp(`^${name}`) }).click()
export const saved = (page: Page) =>
  expect(page.locator('[data-saving="saved"][data-planned="true"]')).toBeAttached()
export const load = (page: Page, what: string) => page.locator(`[data-load="${what}"]`)
export const finding = (page: Page, rule: string) => page.locator(`[data-finding="${rule}"]`)

/** Types into a field and enters it. */
export async function type(field: Locator, text: string) {
  await field.fill(text)
  await field.press('Enter')
}

/** The address of the open job itself. */
export const mallowPath = (page: Page) => /^.*\/jobs\/[^/?]+/.exec(page.url())![0]
