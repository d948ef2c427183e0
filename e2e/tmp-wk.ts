import { writeFileSync } from 'node:fs';
import { openEngine } from './engines/engine-browser';
import { choose, press, resultOrEnd, seen, type as typeInto, untilSeen } from './engines/person';
const [url, name] = process.argv.slice(2) as [string, 'WebKit' | 'Firefox'];
const b = await openEngine(name);
await b.open(url);
await typeInto(b, 'Reading room laptop', `${name} phone`);
await choose(b, 'inside the office only');
await press(b, 'Measure');
console.log((await resultOrEnd(b)).slice(0, 900));
await untilSeen(b, 'Standing by');
writeFileSync('/tmp/wk.png', await b.screenshot());
await new Promise((r) => setTimeout(r, 4000));
console.log('---', (await seen(b)).slice(-300));
console.log(
  await b.evaluate(
    `new Promise(r=>{const log=[]; const s=new WebSocket(location.origin.replace(/^http/,'ws')+'/api/v1/standing-by'); s.onopen=()=>log.push('open'); s.onmessage=(e)=>log.push('m '+e.data); s.onclose=(e)=>log.push('close '+e.code+' '+e.reason); s.onerror=()=>log.push('error'); setTimeout(()=>r(log),5000)})`,
  ),
);
await b.close();
process.exit(0);
