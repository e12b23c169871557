import { browsing } from './browsing.mjs';
const { browser, base, end } = await browsing('4192');
try {
const page = await (await browser.newContext({viewport:{width:1280,height:800}})).newPage();
page.on('pageerror', e=>console.log('ERR',e.message));
await page.goto(base + '/drills/mode');
await page.getByTestId('mode-count').waitFor();
await page.waitForTimeout(6000);
await page.screenshot({path:'/tmp/m1.png'});
await page.getByRole('button',{name:'Shoot 40 moments'}).click();
await page.getByTestId('drill-verdict').waitFor();
await page.screenshot({path:'/tmp/m2.png'});
for (let i=0;i<6;i++){ if (i) await page.getByRole('button',{name:'Shoot 40 moments'}).click(); await page.getByTestId('drill-verdict').waitFor(); console.log(await page.getByTestId('drill-verdict').textContent(), await page.locator('main p').allTextContents()); await page.getByRole('button',{name:/Next scene|How it went/}).click(); }
await page.screenshot({path:'/tmp/m3.png'});
await page.goto(base + '/drills/guess');
await page.getByTestId('guess-scene').waitFor();
await page.waitForTimeout(500);
await page.screenshot({path:'/tmp/g1.png'});
await page.getByRole('button',{name:'See'}).click();
await page.waitForTimeout(6000);
await page.screenshot({path:'/tmp/g2.png', fullPage:true});
const phone = await (await browser.newContext({viewport:{width:390,height:844}})).newPage();
await phone.goto(base + '/drills/guess'); await phone.getByTestId('guess-scene').waitFor(); await phone.waitForTimeout(500);
await phone.screenshot({path:'/tmp/g3.png', fullPage:true});
await phone.goto(base + '/drills/mode'); await phone.getByTestId('mode-count').waitFor(); await phone.waitForTimeout(4000);
await phone.screenshot({path:'/tmp/m4.png', fullPage:true});
} finally { await end(); }
