import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { NO_LOG } from '../console/log';
import { isMadeUp, makersOf } from './makers';

describe('who made a network interface', () => {
  const makersFile = join(mkdtempSync(join(tmpdir(), 'bent-straw-')), 'makers.json');
  const makers = (...macs: string[]) => makersOf({ makersFile, log: NO_LOG }, macs).then((found) => [...found]);

  it('is not known, and nothing fails, where there is no table', async () => {
    expect(await makers('00:00:5e:00:53:01')).toEqual([['00:00:5e:00:53:01', null]]);
  });

  it('is told by the first 24 bits; an address that a device made up has no maker', async () => {
    writeFileSync(makersFile, JSON.stringify({ '00005E': 'Larkspur Instruments\n1 Mill Lane\nQuill' }));
    expect(await makers('00:00:5e:00:53:01', '02:00:5e:00:53:01', '00:00:5f:00:53:01')).toEqual([
      ['00:00:5e:00:53:01', 'Larkspur Instruments'],
      ['02:00:5e:00:53:01', null],
      ['00:00:5f:00:53:01', null],
    ]);
    expect([isMadeUp('02:00:5e:00:53:01'), isMadeUp('00:00:5e:00:53:01')]).toEqual([true, false]);
  });

  it('is found in the table that comes with the program', async () => {
    const found = await makersOf({ makersFile: 'node_modules/oui-data/index.json', log: NO_LOG }, [
      '00:00:0c:00:00:01',
    ]);
    expect(found.get('00:00:0c:00:00:01')).toEqual(expect.any(String));
  });
});
