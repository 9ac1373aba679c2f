// Who writes down what was seen: kept in this browser, and asked for once.
const KEY = 'mallow.writer'

class Writer {
  name = $state(localStorage.getItem(KEY) ?? '')

  set(name: string) {
    this.name = name.trim().slice(0, 80)
    localStorage.setItem(KEY, this.name)
  }
}

export const writer = new Writer()
