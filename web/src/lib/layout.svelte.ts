// How the screen is shared out between the drawing and the work: each person's
// own, kept in this browser.

/** How high the drawing stands: a strip, as much as the work leaves it, or all that there is. */
export const heights = ['strip', 'half', 'full'] as const
export type Height = (typeof heights)[number]

interface Kept {
  height: Height
  map: boolean
  load: boolean
  findings: boolean
  details: boolean
  site: boolean
  keys: boolean
}
const KEY = 'mallow.layout'
const WIDE = matchMedia('(min-width: 64rem)')

function kept(): Partial<Kept> {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<Kept>
  } catch {
    return {}
  }
}

class Layout {
  private readonly was = kept()
  height = $state<Height>(heights.find((h) => h === this.was.height) ?? 'half')
  /** The site map stands beside the drawing. */
  map = $state(this.was.map ?? true)
  /** The load stands beside the work; else its sum is in the row of stages. */
  load = $state(this.was.load ?? true)
  /** The list of findings is open. On a phone it covers the work, so there it begins closed. */
  findings = $state(WIDE.matches && (this.was.findings ?? false))
  /** Every finding shows its ways out. */
  details = $state(this.was.details ?? false)
  /** Larger type and targets and the strongest contrast: for gloves and sun. */
  site = $state(this.was.site ?? false)
  /** Single letters and digits are keys, where nothing is typed. */
  keys = $state(this.was.keys ?? true)

  set(changes: Partial<Kept>) {
    Object.assign(this, changes)
    const { height, map, load, findings, details, site, keys } = this
    localStorage.setItem(KEY, JSON.stringify({ height, map, load, findings, details, site, keys }))
  }
  /** One step higher or lower. */
  step(by: 1 | -1) {
    const to = heights[heights.indexOf(this.height) + by]
    if (to) this.set({ height: to })
  }
  /** Whoever asks for the work sees it. */
  makeRoom() {
    if (this.height === 'full') this.set({ height: 'half' })
  }
}

export const layout = new Layout()
