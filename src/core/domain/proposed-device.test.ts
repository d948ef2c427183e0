import { proposedDevice } from './proposed-device';

const PHONE = 'Mozilla/5.0 (Linux; Android 14; Pixel 8) AppleWebKit/537.36 Chrome/156.0 Mobile Safari/537.36';
const TABLET = 'Mozilla/5.0 (Linux; Android 14; SM-X200) AppleWebKit/537.36 Chrome/156.0 Safari/537.36';
const COMPUTER = 'Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 Chrome/156.0 Safari/537.36';

describe('the name proposed for a device', () => {
  it('is what the browser says that it runs on', () => {
    expect(proposedDevice(PHONE, [])).toEqual({ name: 'Android phone', kind: 'phone' });
    expect(proposedDevice(TABLET, [])).toEqual({ name: 'Android tablet', kind: 'tablet' });
    expect(proposedDevice(COMPUTER, [])).toEqual({ name: 'Linux computer', kind: null });
  });

  it('is none that another device has', () => {
    expect(proposedDevice(PHONE, ['android phone', 'Android phone 2']).name).toBe('Android phone 3');
  });

  it('is blank where the browser says nothing', () => {
    expect(proposedDevice('curl/8', [])).toEqual({ name: '', kind: null });
  });
});
