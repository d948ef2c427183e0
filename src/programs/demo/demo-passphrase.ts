import { randomInt } from 'node:crypto';
import { makeFirstTechnician, type ConsoleContext } from '@/services';

/** Words of a bookbinder's workshop. Four of them: one in a hundred million by guessing, and guesses are counted. */
const WORDS = (
  'apron awl backing band bodkin board bolt bone book boss calf case catch clasp cloth cord corner cover crease deckle ' +
  'edge endpaper fibre flyleaf foil fold folder forwarding frame gather gilt glue gold grain groove guard hinge hollow ' +
  'joint kettle knife label lace leaf leather linen lining marble mould mull needle paper paste pencil plate plough ' +
  'press punch quire ribbon ruler saddle score seam section sewing sheet shears shoulder slip spine stamp stitch strap ' +
  'tail tape thread title tooling tray vellum wax weight wheel'
).split(' ');

/** Sets a made-up passphrase for the demo; null when there is one already. */
export async function demoPassphrase(context: ConsoleContext): Promise<string | null> {
  const passphrase = Array.from({ length: 4 }, () => WORDS[randomInt(WORDS.length)]).join(' ');
  const made = await makeFirstTechnician(context, { name: 'Ines', passphrase });
  return made.ok ? passphrase : null;
}
