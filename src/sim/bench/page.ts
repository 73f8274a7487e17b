/**
 * The bench's own small page: the radios as they lie there, with cable, switch, knob and key. `nonce` is that of its policy,
 * `key` what it shows when it asks; a page from elsewhere can read neither.
 */
export function benchPage(nonce: string, key: string): string {
  return `<!doctype html>
<html lang="en"><meta charset="utf-8"><title>Simulated bench</title>
<style nonce="${nonce}">
body{font:15px/1.5 system-ui,sans-serif;margin:2rem;max-width:60rem;background:#edf2ef;color:#18241f}
section{border:1px solid #d0dbd5;border-radius:8px;background:#fcfefd;padding:1rem;margin:1rem 0}
output{display:block;font:20px/1.4 monospace;background:#ccd8ca;border-radius:4px;padding:.5rem 1rem;margin:.5rem 0;min-height:3.4em;white-space:pre}
button{font:inherit;margin:0 .4rem .4rem 0;padding:.2rem .8rem}
</style>
<header><h1>Simulated bench</h1>
<p>Radios that behave like real ones. Veridon sees a radio while its cable is plugged in.</p></header>
<main id="radios" aria-live="polite"></main>
<script nonce="${nonce}">
const main=document.getElementById('radios');
const headers={Authorization:'Bearer ${key}'};
const post=(id,body,sub='')=>fetch('/bench/radios/'+id+sub,{method:'POST',headers,body:JSON.stringify(body)}).then(show);
function button(text,act){const b=document.createElement('button');b.textContent=text;b.onclick=act;return b}
async function show(){
  const {radios}=await (await fetch('/bench/radios',{headers})).json();
  main.replaceChildren(...radios.map(r=>{
    const s=document.createElement('section');
    const h=document.createElement('h2');h.textContent=r.label+' ('+r.serial+')';
    const o=document.createElement('output');
    o.textContent=!r.on?'':r.face.slot?[r.face.slot+'  '+r.face.marks.join(' '),r.face.large,r.face.small+'  '+r.face.shift].join('\\n'):r.face.large;
    const p=document.createElement('p');p.textContent=(r.plugged?'Plugged in. ':'Cable out. ')+(r.on?'On. ':'Off. ')+'Battery '+r.battery+'%.'+(r.halfWritten?' A write was cut off.':'');
    s.append(h,o,p,button(r.plugged?'Pull the cable':'Plug in',()=>post(r.id,{plugged:!r.plugged})),
      button(r.on?'Switch off':'Switch on',()=>post(r.id,{on:!r.on})),
      button('Knob back',()=>post(r.id,{turn:-1})),button('Knob on',()=>post(r.id,{turn:1})),
      button(r.keyDown?'Let the key go':'Press the key',()=>post(r.id,{keyDown:!r.keyDown})),
      button('Cut the next write at 5,000 bytes',()=>post(r.id,{kind:'pull',atByte:5000},'/faults')));
    return s}));
}
show();setInterval(()=>{if(!document.hidden&&!main.contains(document.activeElement))show()},1500);
</script></html>`;
}
