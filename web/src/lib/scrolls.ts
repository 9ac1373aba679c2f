/** What scrolls by itself can be reached and scrolled by key, while it has something to scroll. */
export function scrolls(node: HTMLElement) {
  const look = () => {
    if (node.scrollWidth > node.clientWidth || node.scrollHeight > node.clientHeight) node.tabIndex = 0
    else node.removeAttribute('tabindex')
  }
  const watch = new ResizeObserver(look)
  watch.observe(node)
  for (const child of node.children) watch.observe(child)
  return () => watch.disconnect()
}
