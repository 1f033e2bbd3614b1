/**
 * The tool that is in the hand. One that draws is let go of after one use and the hand goes back to its `home` tool; taken
 * twice it is kept, taken once more let go. Some are kept from the start.
 */
export class Hand<T extends string> {
  tool: T = $state() as T;
  kept = $state(false);

  constructor(
    private readonly home: T,
    /** Tools that are not let go of after one use, and have nothing to be kept. */
    private readonly lasting: readonly T[] = [],
    private readonly keptAtOnce: readonly T[] = [],
  ) {
    this.tool = home;
  }

  take(tool: T): void {
    const again = tool === this.tool && tool !== this.home && !this.lasting.includes(tool);
    this.tool = again && this.kept ? this.home : tool;
    this.kept = again ? !this.kept : this.keptAtOnce.includes(tool);
    if (this.tool === this.home) this.kept = false;
  }

  /** The tool has been used. */
  used(): void {
    if (!this.kept && !this.lasting.includes(this.tool)) this.letGo();
  }

  letGo(): void {
    this.tool = this.home;
    this.kept = false;
  }
}
