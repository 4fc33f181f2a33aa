export function readDrawing(name: string, text: string): { pieces: number; cutMm: number }
export function watchFolder(dir: string, options?: { now?: () => number; bladeMmS?: number }): () => void
