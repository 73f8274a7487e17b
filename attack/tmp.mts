import { makeWorld } from '../e2e/world';
import { crowd } from './crowd';
const world = await makeWorld({ speed: 60 });
const t=Date.now();
setInterval(()=>console.log('..',Math.round((Date.now()-t)/1000)),5000).unref();
const r = await crowd(world, { clients: 20, greedy: 4, edits: 40, seed:1, until: Date.now()+20000 });
console.log(JSON.stringify(r,null,1), Date.now()-t);
console.log(world.output().slice(-2000));
await world.close(); process.exit(0);
