/** The package brings no types; as far as it is used here. */
declare module 'pino-roll' {
  import type { DestinationStream } from 'pino';
  interface RollOptions {
    readonly file: string;
    readonly extension: string;
    /** Such as `5m`. */
    readonly size: string;
    /** How many older files are kept; `removeOtherLogFiles`: those of earlier processes are among them. */
    readonly limit: { readonly count: number; readonly removeOtherLogFiles: boolean };
    readonly mkdir: boolean;
  }
  interface RollingStream extends DestinationStream {
    on(event: 'error', listener: (error: Error) => void): this;
  }
  export default function roll(options: RollOptions): Promise<RollingStream>;
}
