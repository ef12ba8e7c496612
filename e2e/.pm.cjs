const { chromium } = require("playwright-core"); const fs=require("fs");
(async () => {
  const [dir,out,...names]=process.argv.slice(2);
  const b = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox","--allow-file-access-from-files"] });
  const p = await b.newPage({ viewport: { width: 1500, height: 1000 } });
  const html=names.map(n=>`<figure style="margin:2px;display:inline-block"><img width=490 src="data:image/png;base64,${fs.readFileSync(dir+"/"+n+".png").toString("base64")}"><figcaption>${n}</figcaption></figure>`).join("");
  await p.setContent(html); await p.waitForTimeout(500);
  await p.screenshot({ path: out, fullPage:true });
  await b.close();
})();
