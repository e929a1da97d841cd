'use strict';
// What the core tabled is looked up here, and stops are added: nothing else is computed.
(function () {
  const data = JSON.parse(document.getElementById('tables').textContent);
  const OLD = 'jumpstop-readings';
  const KEY = OLD + '-' + data.job;
  const held = document.getElementById('held');

  function share(level) {
    const place = (level - data.share.from) * data.share.steps;
    if (place <= 0) return 0;
    if (place >= data.share.table.length - 1) return data.share.most;
    const low = Math.floor(place);
    return data.share.table[low] + (place - low) * (data.share.table[low + 1] - data.share.table[low]);
  }

  /** The dial of one light with what has changed: its place on the scale, and what is short or too much. */
  function answer(pocket, light, now) {
    const camera = pocket.apertures[now.aperture].stops + pocket.isos[now.iso].stops + pocket.nds[now.nd].stops;
    const lit = pocket.lit + camera + pocket.shutters[now.shutter].stops + now.ambient;
    const need = light.wanted + (light.holds_ambient ? Math.max(share(lit - light.wanted), data.share.most) : 0);
    const whole = light.flash + camera + light.shutters[now.shutter] + light.distances[now.distance].stops - need;
    const clipped = whole + light.clips[now.shutter];
    const spare = clipped >= 0 && light.cut ? whole : clipped;
    const steps = Math.round(Math.max(spare, 0) / light.step);
    let below = Math.min(light.least + steps * light.step, light.most);
    let short = Math.max(0, -spare);
    if (now.seen !== null) {
      const level = light.wanted + now.seen;
      const flash = light.holds_ambient ? level + share(lit - level) : level;
      const exact = now.set * light.step - (need - flash);
      below = Math.min(Math.max(Math.round(exact / light.step) * light.step, 0), light.most);
      short = Math.max(0, -exact);
    }
    const over = now.seen === null ? Math.max(0, spare - (below - light.least) - light.step / 2) : 0;
    return { at: Math.round(below / light.step), short, over, lit, enough: light.holds_ambient && lit - light.wanted > data.alone,
      background: pocket.background + camera + pocket.shutters[now.shutter].stops + now.ambient };
  }
  window.jumpstop = { data, answer };

  function say(stops) {
    return (Math.round(stops * 10) / 10).toFixed(1).replace('.', data.decimal) + (Math.round(stops * 10) <= 10 ? ' stop' : ' stops');
  }

  function choice(row, label, options, at, change, named) {
    const holder = document.createElement('label');
    const pick = document.createElement('select');
    options.forEach((text, place) => {
      const one = document.createElement('option');
      one.value = String(place);
      one.textContent = text;
      pick.append(one);
    });
    pick.value = String(at);
    pick.setAttribute('aria-label', named || label);
    pick.addEventListener('change', () => change(Number(pick.value)));
    holder.append(label, pick);
    row.append(holder);
    return pick;
  }

  const thirds = [];
  for (let third = 9; third >= -9; third--) thirds.push(third / 3);
  const steps = (up, down, none) => thirds.map((one) => one === 0 ? none : say(Math.abs(one)) + ' ' + (one > 0 ? up : down));

  function panel(card, place) {
    const holder = document.querySelector('[data-card="' + place + '"] .ask');
    if (!card.pocket.lights.length) return;
    const title = document.createElement('h3');
    title.textContent = 'What if it changes?';
    const camera = document.createElement('div');
    camera.className = 'row';
    holder.append(title, camera);
    const now = { aperture: card.pocket.aperture, shutter: card.pocket.shutter, iso: card.pocket.iso, nd: card.pocket.nd, ambient: 0 };
    const parts = [];
    const stale = document.querySelector('[data-card="' + place + '"] .stale');
    const planned = JSON.stringify(now);
    const others = [];
    const redraw = () => {
      parts.forEach((one) => one());
      stale.hidden = JSON.stringify(now) === planned && others.every((one) => one());
    };
    for (const [name, label] of [['aperture', 'Aperture'], ['shutter', 'Shutter'], ['iso', 'ISO'], ['nd', 'Filter']])
      choice(camera, label, card.marks[name], now[name], (at) => { now[name] = at; redraw(); });
    choice(camera, 'Ambient now', steps('brighter', 'darker', 'as planned'), thirds.indexOf(0), (at) => { now.ambient = thirds[at]; redraw(); });
    const behind = document.createElement('p');
    holder.append(behind);
    parts.push(() => {
      const found = answer(card.pocket, card.pocket.lights[0], { ...now, distance: card.pocket.lights[0].distance, seen: null, set: 0 });
      const off = Math.round(found.background * 10) / 10;
      behind.textContent = 'Background ' + (Math.abs(off) < 0.05 ? 'as metered.' : say(Math.abs(off)) + (off > 0 ? ' over.' : ' under.'));
    });
    card.pocket.lights.forEach((light, at) => {
      const own = { distance: light.distance, seen: null, set: Math.round(light.dial_stops / light.step) };
      others.push(() => own.distance === light.distance && own.seen === null);
      const row = document.createElement('div');
      row.className = 'row';
      const out = document.createElement('p');
      out.className = 'answer';
      out.setAttribute('role', 'status');
      const log = document.createElement('button');
      log.type = 'button';
      log.textContent = 'Log it';
      choice(row, card.roles[at] + ', distance', card.distances[at], own.distance, (to) => { own.distance = to; redraw(); });
      choice(row, 'Dial as set', card.dials[at], own.set, (to) => { own.set = to; redraw(); }, card.roles[at] + ', dial as set');
      choice(row, 'It came out', ['not looked yet', ...steps('too bright', 'too dark', 'right')], 0,
        (to) => { own.seen = to === 0 ? null : thirds[to - 1]; redraw(); }, card.roles[at] + ', it came out');
      row.append(log);
      holder.append(row, out);
      log.addEventListener('click', () => {
        if (own.seen === null) { held.textContent = 'Say first how it came out.'; return; }
        keep(card, light, at, now, own);
      });
      parts.push(() => {
        const found = answer(card.pocket, light, { ...now, ...own });
        const dial = card.dials[at][Math.min(found.at, card.dials[at].length - 1)];
        out.textContent = card.roles[at] + ': ' + (found.enough ? 'no flash needed, the ambient is enough'
          : found.short > light.step / 2 ? 'full power, short by ' + say(found.short)
          : found.over > 0 ? dial + ', and still too bright by ' + say(found.over) : dial);
      });
    });
    redraw();
  }

  function stored(key) {
    try { return JSON.parse(localStorage.getItem(key) || '[]'); } catch { return []; }
  }
  const readings = () => stored(KEY);

  /** Readings of this job that were kept when all jobs had one list. */
  function takeOver() {
    const mine = (one) => one.entry && one.entry.job === data.job;
    const all = stored(OLD);
    if (!all.some(mine)) return;
    try {
      localStorage.setItem(KEY, JSON.stringify([...readings(), ...all.filter(mine)]));
      localStorage.setItem(OLD, JSON.stringify(all.filter((one) => !mine(one))));
    } catch { /* they stay where they are */ }
  }

  function send(file, name) {
    const link = document.createElement('a');
    link.href = URL.createObjectURL(file);
    link.download = name;
    link.click();
    setTimeout(() => URL.revokeObjectURL(link.href), 10000);
  }

  const DOTS = 3; // to a unit of the drawing
  function saveDrawing(button) {
    const drawing = button.closest('figure').querySelector('svg');
    const name = 'jumpstop-' + drawing.getAttribute('aria-label').toLowerCase().replace(/[^a-z0-9]+/g, '-').slice(0, 60);
    const file = new Blob([drawing.outerHTML], { type: 'image/svg+xml' });
    if (button.dataset.save === 'svg') { send(file, name + '.svg'); return; }
    const picture = new Image();
    picture.onload = () => {
      const canvas = document.createElement('canvas');
      canvas.width = drawing.width.baseVal.value * DOTS;
      canvas.height = drawing.height.baseVal.value * DOTS;
      canvas.getContext('2d').drawImage(picture, 0, 0, canvas.width, canvas.height);
      URL.revokeObjectURL(picture.src);
      canvas.toBlob((made) => made ? send(made, name + '.png') : (held.textContent = 'This browser cannot make a PNG of it: save the SVG.'), 'image/png');
    };
    picture.src = URL.createObjectURL(file);
  }

  function keep(card, light, at, now, own) {
    const entry = JSON.parse(JSON.stringify(card.blanks[at]));
    const two = (part) => String(part).padStart(2, '0');
    const time = new Date();
    entry.at = time.getFullYear() + '-' + two(time.getMonth() + 1) + '-' + two(time.getDate()) + 'T' + two(time.getHours()) + ':' + two(time.getMinutes()) + ':' + two(time.getSeconds());
    const seen = entry.seen;
    seen.stops = own.seen;
    seen.dial_stops = own.set * light.step;
    seen.ambient_stops = answer(card.pocket, light, { ...now, ...own }).lit;
    seen.camera = { f_number: card.pocket.apertures[now.aperture].value, shutter_s: card.pocket.shutters[now.shutter].value,
      iso: card.pocket.isos[now.iso].value, nd_stops: card.pocket.nds[now.nd].value };
    const metres = light.distances[own.distance].value;
    seen.was.distance_m = metres;
    entry.was.lights[light.light].distance_m = metres;
    const id = Array.from(crypto.getRandomValues(new Uint32Array(4)), (part) => part.toString(16).padStart(8, '0')).join('');
    const all = readings();
    all.push({ id, entry });
    try {
      localStorage.setItem(KEY, JSON.stringify(all));
      held.textContent = all.length + (all.length === 1 ? ' reading held here' : ' readings held here');
    } catch { held.textContent = 'This browser cannot store readings: note them on paper.'; }
  }

  document.getElementById('print').addEventListener('click', () => window.print());
  document.getElementById('save').addEventListener('click', () => {
    const all = readings();
    if (!all.length) { held.textContent = 'Nothing is logged here yet.'; return; }
    send(new Blob([JSON.stringify({ format: 'jumpstop-readings', version: 1, entries: all })], { type: 'application/json' }), 'jumpstop-readings.json');
    held.textContent = 'Saved. Bring the file to the log: each reading is taken in once.';
  });
  document.querySelectorAll('[data-save]').forEach((one) => one.addEventListener('click', () => saveDrawing(one)));
  data.cards.forEach(panel);
  takeOver();
  const count = readings().length;
  if (count) held.textContent = count + (count === 1 ? ' reading held here' : ' readings held here');
})();
