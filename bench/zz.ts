import { discOf } from '#core/surface/disc';
import { figureMesh } from '#core/surface/figures';
import { flattening } from '#core/surface/flatten';
for (const fig of [{ kind: 'cap', widthMm: 340, heightMm: 60 },{ kind: 'saddle', alongMm: 700, acrossMm: 500, lengthMm: 400, widthMm: 400 }] as const) {
const made = figureMesh(fig as never, 30000) as any; const disc = discOf(made.mesh) as any;
for (const school of [0,1]) { const t=performance.now(); const way=flattening(disc.disc, school); let s=way.next(), n=0; const es:string[]=[]; while(!s.done){n++; es.push(s.value.energy.toExponential(3)+'@'+(performance.now()-t).toFixed(0)); s=way.next();} console.log(fig.kind, school, n, (performance.now()-t).toFixed(0), es.join(' ')); }
}
