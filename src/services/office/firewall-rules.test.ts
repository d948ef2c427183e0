import { readFirewalld, readNft, readUfw } from './firewall-rules';

const UFW = `Status: active

To                         Action      From
--                         ------      ----
22/tcp                     ALLOW       Anywhere
5000:5010/tcp              ALLOW       Anywhere
22/tcp (v6)                ALLOW       Anywhere (v6)
`;
const NFT = `table inet filter {
	chain input {
		type filter hook input priority filter; policy drop;
		ct state established,related accept
		tcp dport 22 accept
		tcp dport 8000-8010 accept
	}
	chain forward {
		type filter hook forward priority filter; policy drop;
	}
}
`;

describe('what a firewall says of the port', () => {
  it('is read from ufw', () => {
    expect(readUfw('Status: inactive\n', 4870)).toBeNull();
    expect(readUfw(UFW, 4870)).toEqual({ name: 'ufw', open: false, step: 'ufw allow 4870/tcp' });
    expect(readUfw(UFW, 5003)).toMatchObject({ open: true });
    expect(readUfw(`${UFW}4870                       ALLOW       192.0.2.0/24\n`, 4870)).toMatchObject({ open: true });
  });

  it('is read from firewalld', () => {
    expect(readFirewalld(null, 4870)).toBeNull();
    expect(readFirewalld('', 4870)).toMatchObject({ open: false });
    expect(readFirewalld('80/tcp 4800-4900/tcp', 4870)).toMatchObject({ open: true });
  });

  it('is read from nftables where the input chain drops by policy', () => {
    expect(readNft(NFT, 4870)).toEqual({
      name: 'nftables',
      open: false,
      step: 'nft insert rule inet filter input tcp dport 4870 accept',
    });
    expect(readNft(NFT, 8004)).toMatchObject({ open: true });
    expect(
      readNft(NFT.replace('input priority filter; policy drop', 'input priority filter; policy accept'), 4870),
    ).toBeNull();
    expect(readNft('', 4870)).toBeNull();
  });
});
