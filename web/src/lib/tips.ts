// What a label means, where it is a term: shown as a tip on the label.
import { api } from './api'
import type { Term } from '../gen/api'

let asked: Promise<Term[]> | undefined
/** The terms, asked for once, and again only where that failed. */
const terms = () =>
  (asked ??= api.help().then(
    (help) => help.terms,
    () => {
      asked = undefined
      return []
    },
  ))

/**
 * The term that a label begins with: the longest of those that do. Of a term
 * that names two things a single word is meant only where it stands alone: the
 * crown at a post is not that of a drive.
 */
export function termOf(label: string, all: Term[]): Term | undefined {
  const said = label.toLowerCase()
  const alone = said.split(',')[0]!
  let found: Term | undefined
  let longest = 0
  for (const term of all)
    for (const name of [term.term, ...term.term.split(', ')].map((n) => n.toLowerCase()))
      if (
        name.length > longest &&
        (name === alone || name === said || name.includes(' ') || !term.term.includes(', ')) &&
        said.startsWith(name) &&
        !/^[a-z]/.test(said.slice(name.length))
      ) {
        found = term
        longest = name.length
      }
  return found
}

/** One tip for all labels: it opens over what is below, and any tap closes it. */
let shown: HTMLElement | undefined
function show(at: Element, term: Term) {
  shown ??= document.body.appendChild(
    Object.assign(document.createElement('div'), { className: 'tip', popover: 'auto' }),
  )
  shown.setAttribute('role', 'note')
  shown.textContent = term.means
  shown.showPopover()
  const box = at.getBoundingClientRect()
  shown.style.left = `${Math.max(8, Math.min(box.left, innerWidth - shown.offsetWidth - 8))}px`
  const above = box.top - shown.offsetHeight - 4
  shown.style.top = `${above > 0 ? above : box.bottom + 4}px`
}

/** A label that says what it means when it is tapped, or pointed at. */
export const tip = (label: string) => (at: HTMLElement) => {
  let gone = false
  let term: Term | undefined
  const tap = (e: Event) => {
    if (!term) return
    e.preventDefault() // the field is not opened by asking what it is
    show(at, term)
  }
  void terms().then((all) => {
    term = gone ? undefined : termOf(label, all)
    if (!term) return
    at.classList.add('term')
    at.title = term.means
    at.addEventListener('click', tap)
  })
  return () => {
    gone = true
    at.classList.remove('term')
    at.removeAttribute('title')
    at.removeEventListener('click', tap)
  }
}
