import type { Migration } from './migration';

/** Who else agents have heard on the network of an office. */
export const neighbours: Migration = {
  name: '0025-neighbours',
  statements: [
    `CREATE TABLE neighbours (siteId TEXT NOT NULL REFERENCES sites (id) ON DELETE CASCADE, mac TEXT NOT NULL,
       address TEXT NOT NULL, name TEXT, deviceId TEXT NOT NULL, firstAtMs REAL NOT NULL, lastAtMs REAL NOT NULL,
       knownAtMs REAL, PRIMARY KEY (siteId, mac))`,
  ],
};
