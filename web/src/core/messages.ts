// What a window and its core say to each other.

/** A call, or that its answer is not wanted any more. */
export type Ask = { id: number; call: string; request: string } | { drop: number }

export type Answer =
  | { ready: true }
  | { failed: string }
  | { id: number; answer: Uint8Array<ArrayBuffer> }
  | { id: number; done: true; problem: string | undefined }
