import { existsSync, readFileSync } from 'node:fs';

const CONTAINERFILE = readFileSync('Containerfile', 'utf8');
const BUILD = readFileSync('scripts/build.mjs', 'utf8');

describe('the Containerfile', () => {
  it('starts only what the build makes', () => {
    const started = [...CONTAINERFILE.matchAll(/dist\/([\w-]+)\.js/g)].map(([, name]) => name!);
    expect(started.length).toBeGreaterThan(3);
    for (const name of started) {
      expect(BUILD).toContain(`'${name}'`);
      expect(existsSync(`src/programs/entry/${name}.ts`)).toBe(true);
    }
    expect(BUILD).toContain("outfile: 'dist/agent.mjs'");
  });

  it('gives console, peer and agent an image each, none of them run as root, and looks whether those that listen answer', () => {
    const stages = CONTAINERFILE.split(/^FROM /m).slice(1);
    for (const name of ['console', 'peer', 'agent']) {
      const stage = stages.find((text) => text.startsWith(`base AS ${name}`));
      expect(stage).toMatch(/^USER node$/m);
      expect(stage).toMatch(/^ENTRYPOINT \["node", /m);
      if (name !== 'agent') expect(stage).toMatch(/^HEALTHCHECK .*\/peer\/v1\/info/m);
    }
  });

  it('lets the one that they run as write to the volume', () => {
    expect(CONTAINERFILE).toMatch(/chown node:node \/data\nVOLUME \/data/);
  });

  it('names no registry, and takes nothing from the network at run time', () => {
    expect(CONTAINERFILE).not.toMatch(/\b[\w-]+\.(io|com|org)\//);
    const afterBuilt = CONTAINERFILE.split('AS base')[1]!;
    expect(afterBuilt).not.toMatch(/npm (ci|install)|curl|wget/);
  });

  it('leaves behind what lies in a working folder', () => {
    const ignored = readFileSync('.containerignore', 'utf8').trim().split('\n');
    expect(ignored).toEqual(expect.arrayContaining(['node_modules', 'data', 'demo-data', '.next', 'dist', '.git']));
  });
});
