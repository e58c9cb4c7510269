import { withApp } from './lib/browser.mjs';
await withApp('shots', 4590, () => {}, async (browser, address) => {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true });
  const page = await context.newPage();
  const st = '/jobs/a0000000-0000-4000-8000-000000000001/stations/a0000000-0000-4000-8000-000000000101/';
  for (const p of ['cover','view','view/rig','cover/limits','focus','focus/stop'].map(x=>st+x).concat(['/jobs','/begin','/words','/kit','/kit/new/lens','/rigs','/rigs/c0000000-0000-4000-8000-000000000016','/rigs/compare?rigs=c0000000-0000-4000-8000-000000000001'])) {
    await page.goto(address+p); await page.waitForTimeout(900);
    const w = await page.evaluate(() => [document.documentElement.scrollWidth, [...document.querySelectorAll('*')].filter(e=>e.getBoundingClientRect().right>391 && !e.closest('svg')).slice(0,4).map(e=>e.tagName+'.'+String(e.className).slice(0,80)+Math.round(e.getBoundingClientRect().right)+(e.textContent||'').slice(0,30))]);
    if (w[0]>390) console.log(p, JSON.stringify(w));
  }
  await page.goto(address+st+'cover'); await page.waitForTimeout(900); await page.screenshot({path:'/tmp/shot-p-cover.png'});
  await page.goto(address+'/begin'); await page.waitForTimeout(900); await page.screenshot({path:'/tmp/shot-p-begin.png'});
});
