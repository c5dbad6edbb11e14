import { passwordFault, SHORTEST } from '../../core/users/password';
import type { Codec } from '../kit/typed/codecs';

export const PASSWORD_HINT = `At least ${SHORTEST} characters; a few words in a row do well`;

/** Text as it is typed, blanks and all; `missing` is said where there is none. */
export const secret = (missing: string): Codec<string> => ({
  parse: (text) => (text === '' ? { ok: false, message: missing } : { ok: true, value: text }),
  format: (value) => value,
  nothing: '',
});

/** A password that is good enough. */
export const newPassword: Codec<string> = {
  parse: (text) => {
    const fault = passwordFault(text);
    return fault ? { ok: false, message: fault } : { ok: true, value: text };
  },
  format: (value) => value,
  nothing: '',
};
