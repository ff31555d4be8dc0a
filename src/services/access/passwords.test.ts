import { hash } from '@node-rs/argon2';
import { describe, expect, it } from 'vitest';
import { hashPassword, hashSecret, isOldHash, newPassword, newSecret, passwordFits, refuseCommon } from './passwords';

const HERE = { deploymentKey: 'a key of the tests' };

describe('a password', () => {
  it('is kept as an argon2id hash of its own, and fits only itself', async () => {
    const [one, two] = await Promise.all([hashPassword(HERE, 'tide and thyme'), hashPassword(HERE, 'tide and thyme')]);
    expect(one).toMatch(/^k1:\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
    expect(one).not.toBe(two);
    expect(await passwordFits(HERE, one, 'tide and thyme')).toBe(true);
    for (const wrong of ['tide and Thyme', 'tide and thyme ', '', one])
      expect(await passwordFits(HERE, one, wrong)).toBe(false);
  });

  it('fits only with the deployment’s key; one from before keys went in still fits, and is known as such', async () => {
    const kept = await hashPassword(HERE, 'tide and thyme');
    expect(await passwordFits({ deploymentKey: 'another' }, kept, 'tide and thyme')).toBe(false);
    const old = await hash('tide and thyme');
    expect(await passwordFits(HERE, old, 'tide and thyme')).toBe(true);
    expect([isOldHash(old), isOldHash(kept)]).toEqual([true, false]);
    expect(await passwordFits(HERE, '-', 'tide and thyme')).toBe(false);
  });

  it('of nobody fits nothing', async () => {
    for (const guess of ['a guess', '', 'tide and thyme'])
      expect(await passwordFits(HERE, undefined, guess)).toBe(false);
  });

  it('is long rather than odd', () => {
    expect(newPassword.safeParse('oars and onions').success).toBe(true);
    expect(newPassword.safeParse('tide-and-th').success).toBe(false);
    expect(newPassword.safeParse('x'.repeat(129)).success).toBe(false);
  });
});

describe('a common password', () => {
  it.each([
    'passwordpassword',
    'Password1234',
    '123456789012',
    'qwertyuiop[]',
    'P@ssw0rd2026!',
    'letmeinletmein',
    'logistra.logistra',
  ])('is refused: %s', async (password) => {
    await expect(refuseCommon(password, [])).rejects.toMatchObject({ problems: [{ where: 'password' }] });
  });

  it('is refused too where it is made of what others know of its owner', async () => {
    await expect(refuseCommon('robin.quay.robin', ['Robin', 'robin@quay.example'])).rejects.toThrow('guessed first');
  });

  it.each(['tide and thyme', 'oars and onions', 'kzq9 vbn mmlq r', 'ein langer satz über suppe'])(
    'is not %s',
    async (password) => {
      await expect(refuseCommon(password, ['Robin'])).resolves.toBeUndefined();
    },
  );
});

describe('a secret', () => {
  it('is 256 bits, safe in an address, never the same, and kept only as its hash', () => {
    const secrets = Array.from({ length: 200 }, newSecret);
    expect(new Set(secrets).size).toBe(200);
    for (const secret of secrets) {
      expect(Buffer.from(secret, 'base64url')).toHaveLength(32);
      expect(encodeURIComponent(secret)).toBe(secret);
    }
    expect(hashSecret('abc')).toBe('ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad');
  });
});
