import { deviceOfCookie } from '../access/device-cookie';
import { deviceForm, furnish, openTestConsole, type TestConsole } from '../console/console-for-tests';
import { removeDevice, saveDevice } from '../office';
import { AGENT_PROTOCOL } from '@/wire';
import { noteHello, ownAgentOf, retireAgent } from '.';

describe('the console’s own machine', () => {
  let console: TestConsole;
  beforeEach(async () => (console = await openTestConsole()));
  afterEach(() => console.close());
  const own = () => ownAgentOf(console.context, 'desk');

  it('is no agent as long as there is no office, and of the first one from then on', async () => {
    expect(await own()).toBeNull();
    const { siteId } = await furnish(console);
    const agent = await own();
    const device = await deviceOfCookie(console.context, agent!.cookie);
    expect(device).toMatchObject({ id: agent!.deviceId, name: 'desk', siteId, kind: 'box' });
    // The next start finds the same one, whatever it is called by then.
    await console.context.store.sites.saveDevice({ ...device!, name: 'Console in the attic' });
    expect(await own()).toMatchObject({ deviceId: agent!.deviceId, name: 'Console in the attic' });
  });

  it('takes no name away from a device that has it', async () => {
    const { siteId } = await furnish(console);
    await saveDevice(console.context, siteId, null, deviceForm({ name: 'Desk' }));
    expect(await own()).toMatchObject({ name: 'desk 2' });
  });

  it('stays away once somebody has retired or removed it', async () => {
    const { siteId } = await furnish(console);
    const agent = await own();
    await noteHello(
      console.context,
      { id: agent!.deviceId, siteId },
      {
        ...{ version: '0.1.0', protocol: AGENT_PROTOCOL, clockMs: 0, outbox: 0, neighbours: [], can: [] },
        facts: { system: 'Debian', gateway: null, gatewayMs: null, resolvers: [], links: [] },
      },
    );
    await retireAgent(console.context, agent!.deviceId);
    expect(await own()).toBeNull();
    await removeDevice(console.context, agent!.deviceId);
    expect(await own()).toBeNull();
  });
});
