/**
 * The site's own small page: what hides behind the plates, and the scenario to be changed. For whoever plays
 * the house; the product never shows it.
 */
export const page = `<!doctype html>
<html lang="en">
<meta charset="utf-8">
<meta name="viewport" content="width=device-width">
<title>The made-up house</title>
<style>
  body { font: 16px/1.4 sans-serif; margin: 1rem auto; max-width: 60rem; padding: 0 1rem }
  table { border-collapse: collapse; width: 100% }
  th, td { border-bottom: 1px solid #999; padding: .4rem; text-align: left }
  textarea { font: 14px monospace; height: 22rem; width: 100% }
  button { font: inherit; min-height: 44px; padding: 0 1rem }
</style>
<h1>The made-up house</h1>
<p>Stands in for router, hubs, devices and assistants. Nothing here is real.</p>
<p id="router" role="status"></p>
<h2>Behind the plates</h2>
<table>
  <thead><tr>
    <th>Place</th><th>Device</th><th>Light</th><th>In its way</th><th>Channels</th><th></th>
  </tr></thead>
  <tbody id="devices"></tbody>
</table>
<h2>Scenario</h2>
<p><label for="scenario">Taken as it stands; everything then begins anew.</label></p>
<textarea id="scenario" spellcheck="false"></textarea>
<p><button id="take">Begin anew with this</button> <span id="said" role="status"></span></p>
<script type="module" src="/page.js"></script>
</html>`;

export const pageScript = `
const $ = (id) => document.getElementById(id);
const cell = (row, text) => { row.insertCell().textContent = text; };
const ask = (path, init) => fetch(path, init).then((answer) => answer.json());
let typed = false;
$('scenario').addEventListener('input', () => { typed = true; });
async function look() {
  const [site, { scenario, devices }] = await Promise.all([ask('/site'), ask('/scenario')]);
  $('router').textContent = site.name + ': ' + site.clients + ' of ' + site.clientLimit +
    ' clients, ' + site.bands.join(' and ') + ' GHz';
  if (!typed) $('scenario').value = JSON.stringify(scenario, null, 1);
  $('devices').replaceChildren(...devices.map((device) => {
    const row = document.createElement('tr');
    cell(row, device.place);
    cell(row, device.deviceId);
    cell(row, device.light + ', version ' + device.version);
    cell(row, device.causes.join(', ') || 'nothing');
    cell(row, device.channels.map((one) => one.id + ': ' + (one.on ? 'on ' + one.level : 'off')).join(', '));
    const button = document.createElement('button');
    button.textContent = 'Press at the wall';
    button.addEventListener('click', () => Promise.all(device.channels.map((one) => ask('/commands', {
      method: 'POST', headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ place: device.place, channel: one.id, on: !one.on, from: 'wall' }),
    }))).then(look));
    const hands = ['press', 'press-alternate', device.cutOut ? 'cut-in' : 'cut-out', 'reset'].map((does) => {
      const one = document.createElement('button');
      one.textContent = does;
      one.addEventListener('click', () => ask('/hands', {
        method: 'POST', headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ place: device.place, does }),
      }).then(look));
      return one;
    });
    row.insertCell().append(button, ...hands);
    return row;
  }));
}
$('take').addEventListener('click', async () => {
  const answer = await fetch('/scenario', {
    method: 'PUT', headers: { 'content-type': 'application/json' }, body: $('scenario').value,
  });
  const said = await answer.json();
  const wrong = (said.problems ?? [said]).map((one) => one.path + ' ' + one.message).join('; ');
  $('said').textContent = answer.ok ? 'taken' : wrong;
  if (answer.ok) typed = false;
  await look();
});
look();
setInterval(look, 2000);
`;
