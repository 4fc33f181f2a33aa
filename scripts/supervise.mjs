/** Waits before a process that ended is started again, ms; the last one repeats. */
const BACK_OFF_MS = [500, 1000, 2000, 5000, 10_000, 30_000]
/** A process that ran this long has come up: the next end counts as the first. */
const CAME_UP_MS = 60_000
/** So many ends without coming up, and it is given up. */
const MOST_ENDS = 10

/**
 * Keeps a process running: `start` makes it, and when it ends by itself it is started again, later each time, and given
 * up after ten ends in a row. What happens is said by `say`. `givenUp` is called once, when it is.
 */
export function supervise(
  name,
  start,
  {
    say = console.error,
    givenUp = () => {},
    backOffMs = BACK_OFF_MS,
    cameUpMs = CAME_UP_MS,
    mostEnds = MOST_ENDS,
  } = {},
) {
  let ends = 0
  let stopped = false
  let timer = null
  let child = null
  const begin = () => {
    const since = Date.now()
    child = start()
    child.on('exit', (code, signal) => {
      if (stopped) return
      ends = Date.now() - since > cameUpMs ? 1 : ends + 1
      const how = signal ? `by ${signal}` : `with code ${code}`
      if (ends >= mostEnds) {
        stopped = true
        say(`The ${name} ended ${how}, ${ends} times in a row, and is not started again.`)
        givenUp(code ?? 1)
        return
      }
      const wait = backOffMs[Math.min(ends, backOffMs.length) - 1]
      say(`The ${name} ended ${how}; it is started again in ${wait / 1000} s.`)
      timer = setTimeout(begin, wait)
    })
  }
  begin()
  return {
    get pid() {
      return child.pid
    },
    kill(signal) {
      stopped = true
      if (timer) clearTimeout(timer)
      child.kill(signal)
    },
  }
}
