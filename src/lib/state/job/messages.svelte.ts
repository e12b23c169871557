/** The one message on the screen. */
interface Message {
  readonly text: string;
  readonly kind: 'done' | 'problem';
  /** The step it can take back: that one, whatever has been done since. */
  readonly step: number | null;
}

export class Messages {
  shown = $state.raw<Message | null>(null);

  done(text: string, step: number | null = null): void {
    this.shown = { text, kind: 'done', step };
  }

  problem(text: string): void {
    this.shown = { text, kind: 'problem', step: null };
  }

  close(message: Message | null = this.shown): void {
    if (this.shown === message) this.shown = null;
  }
}
