const { chromium } = require("playwright-core");
const B = "http://127.0.0.1:8333/reviews/";
(async () => {
  const b = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox"] });
  let p = await b.newPage({ viewport: { width: 1280, height: 800 } });
  await p.goto(B + "2/studies"); await p.waitForTimeout(2000);
  await p.getByRole("button", { name: "Another round" }).click(); await p.getByRole("radio", { name: /A journal/ }).check(); await p.waitForTimeout(500);
  await p.screenshot({ path: "/tmp/shots/form.png" });
  await p.goto(B + "2/studies?part=says"); await p.waitForTimeout(2500); await p.screenshot({ path: "/tmp/shots/says.png" });
  await p.goto(B + "2/studies?part=network"); await p.waitForTimeout(3000);
  const r = await p.evaluate(async () => {
    const svg = document.querySelector("main svg[role=img], svg[role=img][tabindex]");
    const box = svg.getBoundingClientRect(); const at = (t, x, y) => svg.dispatchEvent(new PointerEvent(t, { clientX: x, clientY: y, bubbles: true }));
    at("pointerdown", box.x + 300, box.y + 200);
    const times = []; let last = performance.now();
    for (let i = 0; i < 120; i++) { at("pointermove", box.x + 300 + (i % 60) * 3, box.y + 200 + (i % 30)); await new Promise(requestAnimationFrame); const now = performance.now(); times.push(now - last); last = now; }
    times.sort((a, b) => a - b);
    return { median: times[60], p95: times[114], max: times[119], works: document.querySelectorAll("svg circle.dot, svg rect.key").length };
  });
  console.log(JSON.stringify(r));
  const t = await p.evaluate(async () => { const tabs=[...document.querySelectorAll("[role=tab]")]; tabs[3].click(); await new Promise(r=>setTimeout(r,800)); const t0=performance.now(); tabs[2].click(); await new Promise(requestAnimationFrame); while(!document.querySelector("svg circle.dot")) await new Promise(requestAnimationFrame); await new Promise(requestAnimationFrame); return performance.now()-t0; });
  console.log("drawn ms", t);
  p = await b.newPage({ viewport: { width: 640, height: 800 } });
  await p.goto(B + "2/studies"); await p.waitForTimeout(2500); await p.screenshot({ path: "/tmp/shots/narrow.png" });
  p = await b.newPage({ viewport: { width: 1280, height: 800 } });
  await p.goto(B + "1/studies"); await p.waitForTimeout(2500); await p.screenshot({ path: "/tmp/shots/empty.png" });
  await b.close();
})();
