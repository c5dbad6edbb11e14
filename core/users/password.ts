/** Fewest and most characters of a password. */
export const SHORTEST = 12;
export const LONGEST = 200;

/** What is tried first by whoever guesses, of twelve characters and more; compared without case and signs. */
const COMMON = new Set(
  `123456789012 1234567890123 12345678901234 123456789123 123123123123 123321123321 111111111111 000000000000 987654321098
  112233445566 121212121212 qwertyuiop12 qwertyuiopas qwertyuiop123 qwertyqwerty 1qaz2wsx3edc 1q2w3e4r5t6y qwerty123456 asdfghjkl123
  asdfasdfasdf zxcvbnmasdfg passwordpassword password1234 password12345 password123456 passw0rd1234 mypassword123 adminadmin12
  administrator administrator1 letmeinletmein iloveyou1234 iloveyouiloveyou welcomewelcome welcome12345 welcome123456 changeme1234
  changemechangeme abcdefghijkl abcdefghijklm abcabcabcabc abc123abc123 aaaaaaaaaaaa football1234 baseball1234 superman1234
  sunshine1234 princess1234 trustno1trustno1 dragondragon monkeymonkey mastermaster shadowshadow correcthorsebatterystaple
  construction construction1 subcontractor accounting123 ledrinledrin ledrin123456 summer202600 winter202600`.split(/\s+/),
);

/**
 * Why a password is not taken; null where it is. Length counts most: at least twelve characters, none of the common ones, not the
 * person's own name or address, not one character or run over and over (OWASP ASVS 2.1).
 */
export function passwordFault(password: string, own: readonly string[] = []): string | null {
  if (password.length < SHORTEST) return `expected at least ${SHORTEST} characters; a few words in a row do well`;
  if (password.length > LONGEST) return `expected at most ${LONGEST} characters`;
  const plain = password.toLowerCase().replace(/[^a-z0-9]/g, '');
  if (COMMON.has(plain) || COMMON.has(password.toLowerCase()))
    return 'is among the passwords everybody tries first; choose another';
  if (/^(.{1,4})\1+.{0,3}$/.test(password)) return 'is the same over and over; choose another';
  const ownWords = own.map((it) => it.toLowerCase().replace(/[^a-z0-9]/g, '')).filter((it) => it.length >= 4);
  if (ownWords.some((it) => plain.replace(/\d/g, '') === it.replace(/\d/g, '')))
    return 'is your own name or address; choose another';
  return null;
}
