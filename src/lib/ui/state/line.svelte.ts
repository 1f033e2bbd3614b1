/** Whether the studio is reached: told by the stream of events and by every request. */
class Line {
  reached = $state(true);
  private readonly waiting = new Set<() => void>();

  lost(): void {
    this.reached = false;
  }

  /** The studio answers: those who wait for it go on at once. */
  back(): void {
    if (this.reached) return;
    this.reached = true;
    for (const go of [...this.waiting]) go();
  }

  /** Calls `go` whenever the line is back, until the returned function is called. */
  onback(go: () => void): () => void {
    this.waiting.add(go);
    return () => void this.waiting.delete(go);
  }
}

export const line = new Line();
