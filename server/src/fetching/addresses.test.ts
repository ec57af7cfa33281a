import { isAllowedHost, isForbiddenAddress, isForbiddenLiteral } from './addresses';

describe('forbidden addresses', () => {
  // IANA IPv4 and IPv6 Special-Purpose Address Registries (RFC 6890 and updates): one address from each block.
  test.each(
    (
      '0.0.0.0 10.1.2.3 100.64.0.1 127.0.0.1 127.255.255.254 169.254.169.254 172.16.0.1 172.31.255.255 192.0.0.1 192.0.2.1 ' +
      '192.88.99.1 192.168.1.1 198.18.0.1 198.51.100.1 203.0.113.1 224.0.0.1 239.255.255.255 240.0.0.1 255.255.255.255 ' +
      ':: ::1 ::ffff:127.0.0.1 ::ffff:10.0.0.1 64:ff9b::7f00:1 64:ff9b:1::1 100::1 2001::1 2001:2::1 2001:db8::1 2001:20::1 ' +
      '2002:7f00:1::1 2002:c0a8:101::1 3fff::1 fc00::1 fd12:3456::1 fe80::1 ff02::1 5f00::1 4000::1 ::127.0.0.1'
    ).split(' '),
  )('%s', (address) => {
    expect(isForbiddenAddress(address)).toBe(true);
  });

  // Addresses given out by the regional registries, as the root and public resolvers publish them.
  test.each('193.0.14.129 198.41.0.4 9.9.9.9 2001:7fd::1 2606:4700::1111 2a00:1450::1 64:ff9b::909:909'.split(' '))(
    'but not %s',
    (address) => {
      expect(isForbiddenAddress(address)).toBe(false);
    },
  );

  it('takes what is no address for forbidden', () => {
    expect(isForbiddenAddress('localhost')).toBe(true);
  });

  // WHATWG URL, host parsing: all of these are 127.0.0.1 or ::1 when a browser reads them.
  test.each([
    'http://127.1/',
    'http://2130706433/',
    'http://0x7f.0.0.1/',
    'http://0177.0.0.1/',
    'http://[::1]/',
    'http://[::ffff:7f00:1]/',
  ])('sees through %s', (address) => {
    expect(isForbiddenLiteral(new URL(address))).toBe(true);
  });
});

describe('the allow-list', () => {
  const allowed = (address: string, list: string[]) => isAllowedHost(new URL(address), list);
  it('takes host and port together', () => {
    expect(allowed('http://slipway.localhost:4810/x', ['*.localhost:4810'])).toBe(true);
    expect(allowed('http://slipway.localhost:4811/x', ['*.localhost:4810'])).toBe(false);
    expect(allowed('http://localhost:4810/x', ['*.localhost:4810'])).toBe(false);
    expect(allowed('http://evil-localhost:4810/x', ['*.localhost:4810'])).toBe(false);
    expect(allowed('http://127.0.0.1:80/', ['127.0.0.1:80'])).toBe(true);
    expect(allowed('http://intranet/', [])).toBe(false);
  });
});
