import { heatPicture, type PictureAsk } from '@/core/engines/heat/heat-picture'

/** One sweep of a source, one picture; off the page's thread. */
self.onmessage = ({ data }: MessageEvent<PictureAsk>) => self.postMessage(heatPicture(data))
