"""Trains the segmentation model on pictures made by compose.py.

    python3 train.py MODEL.pt POOL.npy [POOL.npy ...] --minutes N [--sizes 160x16,...] [--start MODEL.pt] [--threads 2]

Pictures are mirrored, recoloured and cropped as they are read, and half of them come with a hint, as a person would
give it: a box drawn loosely round the thing, a click or two on it, a click beside it.
"""
import argparse
import math
import os
import time

import numpy as np
import torch
import torch.nn.functional as F

from model import Segmenter, load_grown
from packing import load


def hints(shape, rnd):
    """Hint planes (3, H, W) for one picture's coverage."""
    h, w = shape.shape
    out = np.zeros((3, h, w), np.float32)
    inside = shape > 0.6
    if rnd.rand() < 0.5 or not inside.any():
        return out
    kind = rnd.rand()
    if kind < 0.55:
        ys, xs = np.where(inside)
        j = lambda: int(rnd.normal(0.012, 0.015) * max(h, w))
        out[0] = -1
        out[0, max(0, ys.min() - j()) : ys.max() + 1 + j(), max(0, xs.min() - j()) : xs.max() + 1 + j()] = 1
    if kind > 0.45:
        yy, xx = np.mgrid[0:h, 0:w]
        for plane, where, most in ((1, inside, 3), (2, shape < 0.05, 3)):
            n = rnd.randint(1 if plane == 1 else 0, most)
            ys, xs = np.where(where)
            for _ in range(n):
                if not len(ys):
                    break
                k = rnd.randint(len(ys))
                r = max(1.5, rnd.uniform(0.004, 0.02) * max(h, w))
                out[plane][(yy - ys[k]) ** 2 + (xx - xs[k]) ** 2 <= r * r] = 1
    return out


class Feed:
    def __init__(self, pools, sizes, seed, glass=False):
        self.pools = [np.load(p, mmap_mode="r") for p in pools]
        self.index = [(k, i) for k, p in enumerate(self.pools) for i in range(len(p))]
        self.sizes, self.rnd = sizes, np.random.RandomState(seed)
        self.size = sizes[0][0]
        self.glass = None
        if glass:
            self.glass = [(k, i) for k, i in self.index if self.pools[k][i, ::4, ::4, 4].astype(np.float32).sum() > 0.2 * self.pools[k][i, ::4, ::4, 3].astype(np.float32).sum() + 1000]

    def one(self):
        rnd = self.rnd
        index = self.glass if self.glass and rnd.rand() < 0.25 else self.index
        k, i = index[rnd.randint(len(index))]
        p = np.array(self.pools[k][i])
        s = p.shape[0]
        if rnd.rand() < 0.5:
            p = p[:, ::-1]
        if rnd.rand() < 0.06:
            p = np.rot90(p, rnd.randint(1, 4))
        crop = int(s * rnd.uniform(0.82, 1)) if rnd.rand() < 0.5 else s
        y, x = rnd.randint(0, s - crop + 1), rnd.randint(0, s - crop + 1)
        if rnd.rand() < 0.3 and (near := self.closer(p)):
            y, x, crop = near
        p = np.ascontiguousarray(p[y : y + crop, x : x + crop])
        t = torch.from_numpy(p).permute(2, 0, 1).float().div_(255)
        if crop != self.size:
            t = F.interpolate(t[None], size=(self.size, self.size), mode="bilinear", align_corners=False, antialias=crop > self.size)[0]
        rgb, shape, seen = t[:3], t[3:4], t[4:5]
        if rnd.rand() < 0.3:
            rgb = rgb[torch.from_numpy(rnd.permutation(3))]
        if rnd.rand() < 0.6:
            g = torch.from_numpy(rnd.uniform(0.8, 1.2, 3).astype(np.float32))[:, None, None]
            rgb = (rgb.clamp(0.001, 1) ** rnd.uniform(0.7, 1.4) * g).clamp(0, 1)
        none = torch.zeros_like(shape)
        return torch.cat([rgb, torch.from_numpy(hints(shape[0].numpy(), rnd)), none]), torch.cat([shape, seen])

    def closer(self, p):
        """A square round the thing with a little room, as the closer look has it, where that is large enough."""
        rows, columns = np.where(p[::4, ::4, 3] > 90)
        if not len(rows):
            return None
        top, bottom, left, right = (4 * v for v in (rows.min(), rows.max() + 1, columns.min(), columns.max() + 1))
        side = int(max(bottom - top, right - left) * self.rnd.uniform(1.2, 1.4))
        if side < 0.85 * self.size or side >= p.shape[0]:
            return None
        place = lambda a, b: int(np.clip((a + b - side) // 2 + self.rnd.randint(-4, 5), 0, p.shape[0] - side))
        return place(top, bottom), place(left, right), side

    def next(self):
        self.size, batch = self.sizes[self.rnd.randint(len(self.sizes))]
        items = [self.one() for _ in range(batch)]
        return torch.stack([a for a, _ in items]), torch.stack([b for _, b in items])


def with_prior(net, x, rnd):
    """`x` with what the model itself says, at a smaller size, as its prior plane: what the closer look is given."""
    side = max(64, int(x.shape[2] * rnd.uniform(0.55, 1.0)) // 32 * 32)
    net.eval()
    with torch.no_grad():
        small = F.interpolate(x, size=(side, side), mode="bilinear", align_corners=False, antialias=True)
        small[:, 3:6] = F.interpolate(x[:, 3:6], size=(side, side), mode="nearest")
        said = torch.tanh(net(small.contiguous(memory_format=torch.channels_last), first=True)[:, :1] / 2)
        x = x.clone()
        x[:, 6:7] = F.interpolate(said, size=x.shape[2:], mode="bilinear", align_corners=False)
    net.train()
    return x


def loss_of(out, rough, want):
    shape, seen = want[:, :1], want[:, 1:]
    largest = lambda v: F.max_pool2d(F.max_pool2d(v, (7, 1), 1, (3, 0)), (1, 7), 1, (0, 3))
    edge = (largest(shape) + largest(-shape)).clamp(0, 1)
    weight = 1 + 2 * edge
    bce = (F.binary_cross_entropy_with_logits(out[:, :1], shape, reduction="none") * weight).mean()
    p = torch.sigmoid(out[:, :1])
    inter, total = (p * shape).sum((1, 2, 3)), (p + shape).sum((1, 2, 3))
    dice = (1 - (2 * inter + 40) / (total + 40)).mean()
    through = (F.binary_cross_entropy_with_logits(out[:, 1:], seen, reduction="none") * (shape + 0.02)).mean()
    small = F.interpolate(shape, size=rough.shape[2:], mode="area")
    coarse = F.binary_cross_entropy_with_logits(rough[:, :1], small)
    return bce + 0.5 * dice + 0.7 * through + 0.3 * coarse, ((p - shape) ** 2).mean()


if __name__ == "__main__":
    p = argparse.ArgumentParser(description=__doc__)
    p.add_argument("model")
    p.add_argument("pools", nargs="+")
    p.add_argument("--minutes", type=float, default=60)
    p.add_argument("--sizes", default="160x16", help="SIDExBATCH,... of which one is drawn for each step")
    p.add_argument("--rate", type=float, default=2e-3)
    p.add_argument("--last", type=float, help="the rate at the end, reached along a cosine; a fiftieth of --rate when left out")
    p.add_argument("--start", dest="start", help="a model to train on from; a smaller one is grown")
    p.add_argument("--threads", type=int, default=2)
    p.add_argument("--seed", type=int, default=1)
    p.add_argument("--glass", action="store_true", help="train the head for glass alone, half of the pictures glass")
    a = p.parse_args()
    torch.set_num_threads(a.threads)
    torch.manual_seed(a.seed)
    net = Segmenter().to(memory_format=torch.channels_last)
    if a.start:
        load_grown(net, load(a.start))
    if a.glass:  # only how far the ground shows through is learnt; the rest stays as it is
        for name, p in net.named_parameters():
            p.requires_grad = name.startswith("seen.")
        for part in net.seen.modules():  # from anew: beside the shape it is easily drowned, and does not come back
            if hasattr(part, "reset_parameters"):
                part.reset_parameters()
    opt = torch.optim.AdamW([p for p in net.parameters() if p.requires_grad], lr=a.rate, weight_decay=1e-4)
    sizes = [tuple(map(int, s.split("x"))) for s in a.sizes.split(",")]
    feed = Feed(a.pools, sizes, a.seed, a.glass)
    if a.glass:
        net.eval()
        net.seen.train()
    t0, step, seen, mean, err = time.time(), 0, 0, None, None
    last = a.rate / 50 if a.last is None else a.last
    average = {k: v.clone() for k, v in net.state_dict().items()}
    while (done := (time.time() - t0) / 60 / a.minutes) < 1:
        rate = min(1, (step + 1) / 100) * (last + (a.rate - last) * 0.5 * (1 + math.cos(math.pi * done)))
        for g in opt.param_groups:
            g["lr"] = rate
        x, want = feed.next()
        first = a.glass or feed.rnd.rand() < 0.45
        if not first:
            x = with_prior(net, x, feed.rnd)
        out, rough = net(x.contiguous(memory_format=torch.channels_last), coarse=True, first=first)
        loss, mse = loss_of(out, rough, want)
        opt.zero_grad()
        loss.backward()
        torch.nn.utils.clip_grad_norm_([p for p in net.parameters() if p.requires_grad], 5.0)
        opt.step()
        step += 1
        seen += len(x)
        k = min(0.995, step / (step + 10))
        for name, value in net.state_dict().items():
            if value.dtype.is_floating_point:
                average[name].mul_(k).add_(value.detach(), alpha=1 - k)
            else:
                average[name].copy_(value)
        mean = loss.item() if mean is None else mean * 0.98 + loss.item() * 0.02
        err = mse.item() if err is None else err * 0.98 + mse.item() * 0.02
        if step % 100 == 0:
            print(f"{time.time() - t0:6.0f} s  step {step}  loss {mean:.4f}  mse {err:.4f}  {seen / (time.time() - t0):.1f} pictures/s", flush=True)
        if step % 250 == 0:
            torch.save(average, a.model)
    torch.save(average, a.model)
