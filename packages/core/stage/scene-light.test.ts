import { describe, expect, test } from '@jest/globals';
import { createRgba } from '../raster/pixels';
import { lightOnTurned, meanLinear, sceneLight, type Linear } from './scene-light';
import type { ToneMeasure } from './tone-match';

const GROUND: Linear = [0.4, 0.25, 0.1];
const light = (azimuthDeg: number, elevationDeg: number, softness: number) =>
  sceneLight({ azimuthDeg, elevationDeg, softness }, GROUND, null);
const luma = ([r, g, b]: readonly number[]) => 0.2126 * r + 0.7152 * g + 0.0722 * b;

describe('the light at a place', () => {
  test.each([
    [0, 20, [0, -1]],
    [90, 35, [1, 0]],
    [-90, 50, [-1, 0]],
    [180, 70, [0, 1]],
  ])('comes from %s degrees, %s high, in a direction of length 1', (azimuth, elevation, [right, away]) => {
    const { to } = light(azimuth, elevation, 0.3);
    expect(Math.hypot(...to)).toBeCloseTo(1);
    expect(Math.asin(to[2]) * (180 / Math.PI)).toBeCloseTo(elevation);
    const level = Math.hypot(to[0], to[1]);
    expect(to[0] / level).toBeCloseTo(right);
    expect(to[1] / level).toBeCloseTo(away);
  });

  test('what faces it is lit a little over white, whatever its height and softness', () => {
    const all = [5, 20, 45, 90].flatMap((e) => [0, 0.5, 1].map((s) => luma(light(30, e, s).key)));
    for (const key of all) expect(key).toBeCloseTo(all[0]);
    expect(all[0]).toBeGreaterThan(1);
    expect(all[0]).toBeLessThan(1.5);
    expect(light(30, 45, 1).size).toBeGreaterThan(light(30, 45, 0).size);
  });

  test('a low light stays above the ground', () => {
    expect(light(0, 1, 0).to[2]).toBeGreaterThan(0);
  });

  test('the ground throws back its own colour, greyer and a little darker', () => {
    const { bounce } = light(0, 40, 0.2);
    expect(bounce[0]).toBeGreaterThan(bounce[1]);
    expect(bounce[1]).toBeGreaterThan(bounce[2]);
    expect(bounce[0] / bounce[2]).toBeLessThan(GROUND[0] / GROUND[2] / 1.5);
    expect(luma(bounce)).toBeLessThan(luma(GROUND));
    expect(luma(bounce)).toBeGreaterThan(0.7 * luma(GROUND));
  });

  test('a warm scene has a warm light of the same strength, and a sky less warm', () => {
    const tone = { a: 0.02, b: 0.08 } as ToneMeasure;
    const warm = sceneLight({ azimuthDeg: 0, elevationDeg: 40, softness: 0.2 }, GROUND, tone);
    const plain = light(0, 40, 0.2);
    expect(luma(warm.key)).toBeCloseTo(luma(plain.key));
    expect(warm.key[0] / warm.key[2]).toBeGreaterThan(1.05);
    expect(warm.sky[0] / warm.sky[2]).toBeGreaterThan(1);
    expect(warm.sky[0] / warm.sky[2]).toBeLessThan(warm.key[0] / warm.key[2]);
  });
});

describe('light on what is shown turned', () => {
  test('not turned it is what it was; turned about and back as well', () => {
    const plain = light(-60, 35, 0.2);
    const there = lightOnTurned(plain, 0, 15);
    there.to.forEach((v, k) => expect(v).toBeCloseTo(plain.to[k]));
    const back = lightOnTurned(lightOnTurned(plain, 70, 15), -70, 15);
    back.to.forEach((v, k) => expect(v).toBeCloseTo(plain.to[k]));
  });

  test('on its head right is left, and the angle between light and up stays', () => {
    const plain = light(70, 30, 0.2);
    const turned = lightOnTurned(plain, 180, 0);
    expect(turned.to[0]).toBeCloseTo(-plain.to[0]);
    const angle = (l: typeof plain) => l.to.reduce((sum, v, k) => sum + v * l.up[k], 0);
    for (const degrees of [15, 90, 200])
      expect(angle(lightOnTurned(plain, degrees, 20))).toBeCloseTo(angle(plain));
  });
});

describe('the ground’s mean colour', () => {
  const picture = createRgba(40, 20);
  for (let i = 0; i < 40 * 20; i++)
    picture.data.set(i % 40 < 20 ? [188, 188, 188, 255] : [10, 10, 10, 255], i * 4);

  test('is that of the part asked for, linear', () => {
    expect(meanLinear(picture, { x: 0, y: 0, width: 20, height: 20 })[0]).toBeCloseTo(0.503, 2);
  });

  test('a few bright or dark places of it do not count', () => {
    const spotted = { ...picture, data: picture.data.slice() };
    for (let i = 0; i < 30; i++) spotted.data.set([255, 255, 255, 255], ((i % 20) * 40 + (i % 19)) * 4);
    expect(meanLinear(spotted, { x: 0, y: 0, width: 20, height: 20 })[0]).toBeCloseTo(0.503, 2);
  });

  test('outside the picture it is a middling grey', () => {
    expect(meanLinear(picture, { x: 100, y: 0, width: 5, height: 5 })).toEqual([0.3, 0.3, 0.3]);
  });
});
