import { solvedHeat, type EdgeHeatAsk } from '@/core/engines/heat/edge-heat'

/** One edge, one answer; off the page's thread. */
self.onmessage = ({ data }: MessageEvent<EdgeHeatAsk>) => self.postMessage(solvedHeat(data))
