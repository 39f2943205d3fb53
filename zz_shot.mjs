import { chromium } from '@playwright/test';
const [,, path='/', out='/tmp/scratch/p.png', script=''] = process.argv;
const b = await chromium.launch({executablePath:'/usr/bin/chromium', args:['--no-sandbox','--disable-gpu','--disable-quic','--no-first-run','--disable-background-networking','--disable-component-update','--disable-sync']});
const p = await b.newPage({viewport:{width:Number(process.env.W??1280),height:Number(process.env.H??800)}});
p.on('console',m=>{ if(m.type()==='error'||m.type()==='warning') console.log(m.type(),m.text());}); p.on('pageerror',e=>console.log('PAGEERROR',e.stack));
await p.goto('http://localhost:4600'+path); await p.waitForTimeout(2500);
if(script) await (new Function('p','return (async()=>{'+script+'})()'))(p);
await p.screenshot({path:out}); await b.close();
