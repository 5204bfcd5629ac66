export interface Streams {
  readonly out: (text: string) => void;
  readonly err: (text: string) => void;
}
