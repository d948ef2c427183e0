import { generateKeyPairSync } from 'node:crypto';
import { publicKeyText } from './ticket/key-text';
import { checkIdentity, showIdentity } from './peer-identity';

const { privateKey, publicKey } = generateKeyPairSync('ed25519');
const other = generateKeyPairSync('ed25519');

describe('the identity of a peer', () => {
  it('is proven under the challenge that was asked, and under no other', () => {
    const shown = showIdentity(privateKey, 'challenge-1')!;
    expect(checkIdentity(shown, 'challenge-1')).toBe(publicKeyText(publicKey));
    expect(checkIdentity(shown, 'challenge-2')).toBeNull();
  });

  it('cannot be claimed with somebody else’s key, or with nonsense', () => {
    const shown = showIdentity(privateKey, 'c')!;
    expect(checkIdentity({ ...shown, publicKey: publicKeyText(other.publicKey) }, 'c')).toBeNull();
    expect(checkIdentity({ ...shown, proof: 'x' }, 'c')).toBeNull();
    expect(checkIdentity({ ...shown, publicKey: 'x' }, 'c')).toBeNull();
  });

  it('is shown for short challenges only', () => {
    expect(showIdentity(privateKey, '')).toBeNull();
    expect(showIdentity(privateKey, 'x'.repeat(65))).toBeNull();
  });
});
