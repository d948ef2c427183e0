import { mkdtempSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Post } from '@/session';
import type { AgentHello } from '@/wire';
import { keepEnrolment, readEnrolment } from './enrolment';
import { joinConsole } from './join';

const HELLO: AgentHello = {
  ...{ version: '0.1.0', protocol: 1, clockMs: 0, outbox: 0, neighbours: [], can: [] },
  facts: { system: 'Debian', gateway: null, gatewayMs: null, resolvers: [], links: [] },
};
const JOINED = { deviceId: 'd1', deviceName: 'Attic box', officeName: 'Larkspur Bindery' };
const ORIGIN = 'http://192.0.2.20:4870';

describe('joining a console', () => {
  const join_ = (post: Post) =>
    joinConsole({
      ...{ origin: ORIGIN, post, code: 'KMT4QX', name: 'Attic box', spotName: 'Attic', hello: HELLO },
      link: { medium: 'unknown' },
    });
  const problem = (status: number, code: string, detail: string) =>
    Promise.resolve(Response.json({ code, detail }, { status }));

  it('sends the code, the name and what the machine sees, and tells what it became', async () => {
    const sent: { path: string; body: unknown }[] = [];
    const joined = await join_((path, body) => {
      sent.push({ path, body });
      return Promise.resolve(Response.json(JOINED, { status: 201 }));
    });
    expect(joined).toEqual(JOINED);
    expect(sent).toEqual([
      {
        path: '/api/v1/agents',
        body: { code: 'KMT4QX', name: 'Attic box', spotName: 'Attic', link: { medium: 'unknown' }, hello: HELLO },
      },
    ]);
  });

  it.each([
    [
      'the console refuses',
      () => problem(404, 'code-unknown', 'No office here has the code KMT4QX.'),
      'console-refused',
      'No office here has the code KMT4QX.',
    ],
    ['nobody answers', () => Promise.reject(new Error('ECONNREFUSED')), 'console-unreachable', ORIGIN],
    ['the console is starting', () => problem(502, 'console-unreachable', 'away'), 'console-unreachable', ORIGIN],
    ['something else answers', () => Promise.resolve(new Response('<html>')), 'console-odd', ORIGIN],
    ['it answers with something else', () => Promise.resolve(Response.json({ ok: true })), 'console-odd', ORIGIN],
  ])('says so when %s', async (_, post, code, words) => {
    await expect(join_(post)).rejects.toMatchObject({ code, message: expect.stringContaining(words) });
  });
});

describe('where a machine has joined', () => {
  let folder: string;
  beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'bent-straw-agent-'))));
  afterEach(() => rmSync(folder, { recursive: true }));
  const ENROLMENT = { origin: ORIGIN, name: 'Attic box', officeName: 'Larkspur Bindery' };

  it('is remembered, for its own user alone', () => {
    const own = join(folder, 'not', 'there', 'yet');
    expect(readEnrolment(own)).toBeNull();
    keepEnrolment(ENROLMENT, own);
    expect(readEnrolment(own)).toEqual(ENROLMENT);
    expect(statSync(join(own, 'agent.json')).mode & 0o777).toBe(0o600);
    keepEnrolment({ ...ENROLMENT, name: 'Attic box 2' }, own);
    expect(readEnrolment(own)?.name).toBe('Attic box 2');
  });

  it.each(['', '{', '[]', '{"origin": 7}'])('is nowhere where the file holds "%s"', (text) => {
    writeFileSync(join(folder, 'agent.json'), text);
    expect(readEnrolment(folder)).toBeNull();
  });
});
