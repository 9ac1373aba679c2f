// Light and dark: what the device prefers, unless the user chose.
type Theme = 'light' | 'dark'

const KEY = 'mallow.theme'
const device = matchMedia('(prefers-color-scheme: dark)')

class ThemeState {
  chosen = $state<Theme | null>((localStorage.getItem(KEY) as Theme | null) ?? null)
  device = $state<Theme>(device.matches ? 'dark' : 'light')
  current = $derived(this.chosen ?? this.device)

  constructor() {
    device.addEventListener('change', (e) => (this.device = e.matches ? 'dark' : 'light'))
  }

  toggle() {
    this.chosen = this.current === 'dark' ? 'light' : 'dark'
    localStorage.setItem(KEY, this.chosen)
  }
}

export const theme = new ThemeState()
