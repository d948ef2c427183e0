import { linuxView } from './linux/linux-view';
import type { MachineView } from './machine-view';
import { macosView } from './macos/macos-view';
import { printed } from './printed';
import { windowsView } from './windows/windows-view';

function viewOf(platform: NodeJS.Platform): MachineView {
  if (platform === 'win32') return windowsView(printed);
  return platform === 'darwin' ? macosView(printed) : linuxView();
}

/** The machine that this program runs on, by what its system comes with. */
export const thisMachine: MachineView = viewOf(process.platform);
