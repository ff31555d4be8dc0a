import type { Problem } from './problems';

/** What an action answers: whether it worked, and what to mend where. */
export interface FormState {
  readonly ok: boolean;
  readonly message?: string;
  /** Shown once, to be copied: an address, a token. */
  readonly copy?: string;
  /** The password is to be given once more, then the form is sent again as it is. */
  readonly proof?: boolean;
  readonly problems?: readonly Problem[];
  /** The way back: what was done is then said in a notice with it. */
  readonly undo?: () => Promise<FormState>;
}
