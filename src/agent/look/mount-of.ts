/** A mounted file system, as a line of /proc/self/mountinfo tells of it (proc(5)). */
export interface Mount {
  readonly folder: string;
  readonly fileSystem: string;
  readonly source: string;
}

const NETWORK =
  /^(nfs4?|cifs|smb[23]?|9p|afs|ceph|glusterfs|lustre|virtiofs|davfs|fuse\.(sshfs|rclone|davfs|glusterfs|s3fs|curlftpfs))$/;
const MEMORY = /^(tmpfs|ramfs|devtmpfs)$/;

/** The kernel writes space, tab, line feed and backslash as octal. */
const plain = (text: string) =>
  text.replace(/\\([0-7]{3})/g, (_, octal: string) => String.fromCharCode(parseInt(octal, 8)));

export function readMounts(text: string): Mount[] {
  return text.split('\n').flatMap((line) => {
    const [before, after] = line.split(' - ');
    const folder = before?.split(' ')[4];
    const [fileSystem, source] = after?.split(' ') ?? [];
    if (folder === undefined || fileSystem === undefined || source === undefined) return [];
    return [{ folder: plain(folder), fileSystem, source: plain(source) }];
  });
}

/** What a folder lies on: the innermost mount, of those at one place the last. Null: nothing is known of it. */
export function mountOf(mounts: readonly Mount[], folder: string): Mount | null {
  const holds = ({ folder: at }: Mount) => at === '/' || folder === at || folder.startsWith(`${at}/`);
  return mounts
    .filter(holds)
    .reduce<Mount | null>(
      (best, mount) => (best === null || mount.folder.length >= best.folder.length ? mount : best),
      null,
    );
}

export function placeOf({ fileSystem }: Pick<Mount, 'fileSystem'>): 'network' | 'own-disk' | 'memory' {
  if (NETWORK.test(fileSystem)) return 'network';
  return MEMORY.test(fileSystem) ? 'memory' : 'own-disk';
}
