/** What every refused request answers with. `field` is a path such as `lines.3.job`. */
export interface FaultReply {
  code: string;
  message: string;
  faults: { field: string; message: string }[];
  /** How many there are beside those listed. */
  more: number;
}
