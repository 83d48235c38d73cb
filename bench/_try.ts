import sharp from 'sharp';
import { cutOut } from '/work/main/packages/core/cutout/index';
import { matteError } from '/work/main/packages/core/cutout/matte-error';
import fs from 'fs';
const d='/work/main/demo/assets/products/';
const only = process.argv[2];
for (const f of fs.readdirSync(d).filter(f=>f.endsWith('.matte.png'))) {
  const name=f.replace('.matte.png','');
  if (only && !name.includes(only)) continue;
  const {data,info}=await sharp(d+name+'.jpg').ensureAlpha().raw().toBuffer({resolveWithObject:true});
  const m=await sharp(d+f).greyscale().raw().toBuffer();
  const t={width:info.width,height:info.height,data:Float32Array.from(m,v=>v/255)};
  const t0=performance.now();
  const c=cutOut({width:info.width,height:info.height,data:new Uint8ClampedArray(data)});
  const ms=performance.now()-t0;
  const e=matteError(c.matte,t);
  console.log(name.padEnd(18),'mse',e.mse.toFixed(5),'sad',e.sad.toFixed(2),'grad',e.gradient.toFixed(2),'conf',c.confidence.toFixed(2),Math.round(ms)+'ms');
  if (only||process.env.OUT) { 
   await sharp(Buffer.from(c.matte.data.map(v=>v*255) as any instanceof Float32Array ? Uint8Array.from(c.matte.data,v=>v*255):[]),{raw:{width:info.width,height:info.height,channels:1}}).png().toFile('/tmp/m-'+name+'.png');
   const diff=Uint8Array.from(c.matte.data,(v,i)=>Math.min(255,128+127*(v-t.data[i])));
   await sharp(Buffer.from(diff),{raw:{width:info.width,height:info.height,channels:1}}).png().toFile('/tmp/d-'+name+'.png');
  }
}
