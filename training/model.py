"""The segmentation model: a small encoder-decoder that says what in a photo is the product.

Input (B, 7, H, W), H and W multiples of 32: RGB in 0..1, then three hint planes, all 0 where nobody has helped:
`box` (1 inside a drawn box, -1 outside), `keep` and `drop` (1 under a stroke or click); then `prior`, what an earlier look
at the same picture said (1 the product, -1 not, 0 where there was none). Output (B, 2, H, W) logits: `shape`, the coverage
of the product, and `seen`, how far the ground shows through it. To the seven planes the model itself adds what a small
network is slow to learn from colours: faint edges made visible, how like the border a place is, and what the earlier look
said of other places of the same colour.
"""
import torch
from torch import nn
import torch.nn.functional as F

WIDTHS = (20, 32, 64, 128, 192)
PLANES = 7
CLUES = 7


def normalised(x, coarse):
    """Local contrast normalisation (Jarrett et al. 2009), its mean and deviation found on a picture reduced by `coarse`:
    faint edges come out as strong as others."""
    up = lambda v: F.interpolate(v, size=x.shape[2:], mode="bilinear", align_corners=False)
    pool = lambda v: F.avg_pool2d(F.avg_pool2d(v, coarse), 5, 1, 2, count_include_pad=False)
    d = x - up(pool(x))
    return d / (torch.sqrt(up(pool(d * d))) + 0.012)


def nearest(places, border):
    """Squared distance from each place (B, N, C) to the nearest of the border's (B, M, C)."""
    d = (places * places).sum(2, keepdim=True) + (border * border).sum(2)[:, None] - 2 * places @ border.transpose(1, 2)
    return d.clamp(min=0)


def clues(rgb):
    """Five planes (B, 5, H, W) from colours in 0..1: contrast normalised in a small and a large surrounding; distance to the
    nearest colour of the border, in log; how much of the border is alike; and the same distance in chromaticity alone,
    which shadows leave as it is."""
    b, _, h, w = rgb.shape
    grey = rgb.mean(1, keepdim=True)
    small = F.avg_pool2d(rgb, 8)
    rows, columns = h // 8, w // 8
    flat = lambda v: v.reshape(b, v.shape[1], -1).transpose(1, 2)
    rim = lambda v: torch.cat([flat(v[:, :, :1]), flat(v[:, :, -1:]), flat(v[:, :, :, :1]), flat(v[:, :, :, -1:])], 1)
    chroma = small / (small.sum(1, keepdim=True) + 0.05)
    colour = nearest(flat(small), rim(small))
    hue = nearest(flat(chroma), rim(chroma)).amin(2)
    planes = torch.stack([
        torch.log(colour.amin(2).sqrt() + 0.01) / 2 + 1.2,
        torch.exp(-colour / 0.004).mean(2),
        torch.log(hue.sqrt() + 0.003) / 2 + 1.8,
    ], 1)
    planes = F.interpolate(planes.reshape(b, 3, rows, columns), size=(h, w), mode="bilinear", align_corners=False)
    return torch.cat([normalised(grey, 2), normalised(grey, 8), planes], 1)


def votes(features, prior, queries, grid, tolerance, rounds=3):
    """What `prior` says of places with like features: k-means from a grid of `grid` x `grid` places, its clusters soft
    (softmax of squared distances over `tolerance`), the mean prior of each cluster read back at `queries`.

    features (B, C, h, w) and prior (B, 1, h, w) on the same places, queries (B, C, H, W); returns (B, 1, H, W).
    """
    flat = lambda v: v.reshape(v.shape[0], v.shape[1], -1).transpose(1, 2)

    def share(places, centres):
        # |p|^2 of the squared distance |p|^2 + |c|^2 - 2 pc is the same for all centres of a place: softmax leaves it out.
        told = centres * (2 / tolerance)
        off = (centres * centres).sum(2) * (-1 / tolerance)
        return torch.softmax(torch.cat([places, torch.ones_like(places[:, :, :1])], 2) @ torch.cat([told, off.unsqueeze(2)], 2).transpose(1, 2), 2)

    centres, rough = flat(F.interpolate(features, size=(grid, grid), mode="nearest")), flat(F.avg_pool2d(features, 2))
    for _ in range(rounds):
        a = share(rough, centres)
        centres = (a.transpose(1, 2) @ rough) / (a.sum(1).unsqueeze(2) + 1e-3)
    a = share(flat(features), centres)
    said = (a.transpose(1, 2) @ flat(prior)) / (a.sum(1).unsqueeze(2) + 2)
    out = share(flat(queries), centres) @ said
    return out.transpose(1, 2).reshape(queries.shape[0], 1, queries.shape[2], queries.shape[3])


def place_planes(v):
    """Columns and rows of `v` (B, C, h, w) as two planes in units of its longer side."""
    one = torch.ones_like(v[:, :1])
    planes = torch.cat([torch.cumsum(one, 3), torch.cumsum(one, 2)], 1)
    return planes / planes.amax((1, 2, 3), keepdim=True)


def colour_votes(rgb, prior):
    """Two planes (B, 2, H, W) in -1..1: the prior of places alike in colour anywhere, and alike in colour and near."""
    half, quarter, said = F.avg_pool2d(rgb, 2), F.avg_pool2d(rgb, 4), F.avg_pool2d(prior, 4)
    near = lambda v: torch.cat([v, 0.25 * place_planes(v)], 1)
    planes = torch.cat([votes(quarter, said, half, 8, 6e-4), votes(near(quarter), said, near(half), 10, 1.5e-3)], 1)
    return F.interpolate(planes, size=rgb.shape[2:], mode="bilinear", align_corners=False)


def conv(a, b, stride=1):
    return nn.Sequential(nn.Conv2d(a, b, 3, stride, 1, bias=False), nn.BatchNorm2d(b), nn.ReLU(inplace=True))


class Residual(nn.Module):
    def __init__(self, c):
        super().__init__()
        self.body = nn.Sequential(nn.Conv2d(c, c, 3, 1, 1, bias=False), nn.BatchNorm2d(c))

    def forward(self, x):
        return F.relu(x + self.body(x))


class Context(nn.Module):
    """What the whole picture is like, added everywhere."""

    def __init__(self, c):
        super().__init__()
        self.mix = nn.Sequential(nn.Conv2d(c, c, 1), nn.ReLU(inplace=True), nn.Conv2d(c, c, 1))

    def forward(self, x):
        return F.relu(x + self.mix(x.mean((2, 3), keepdim=True)))


class Segmenter(nn.Module):
    def __init__(self, w=WIDTHS, depths=(1, 2, 2, 4, 3)):
        super().__init__()
        ins = (PLANES + CLUES,) + tuple(w[:-1])
        self.down = nn.ModuleList(
            nn.Sequential(conv(a, b, 2), *[Residual(b) for _ in range(d)]) for a, b, d in zip(ins, w, depths)
        )
        self.context = Context(w[-1])
        self.after = Residual(w[-1])
        self.narrow = nn.ModuleList(nn.Conv2d(w[i], w[i - 1], 1) for i in range(len(w) - 1, 0, -1))
        self.up = nn.ModuleList(
            nn.Sequential(*[Residual(w[i - 1]) for _ in range(2 if i > 1 else 1)]) for i in range(len(w) - 1, 0, -1)
        )
        self.coarse = nn.Conv2d(w[2], 2, 1)
        self.seen = nn.Sequential(conv(w[1] + w[2], 24), Residual(24), nn.Conv2d(24, 1, 1))
        self.edge = nn.Sequential(conv(w[0], w[0]), nn.Conv2d(w[0], 8, 3, 1, 1), nn.PixelShuffle(2))

    def forward(self, x, coarse=False, first=False):
        """`first`: there was no earlier look, its votes are nought."""
        with torch.no_grad():
            rgb, prior = x[:, :3], x[:, 6:7]
            said = torch.zeros_like(x[:, :2]) if first else colour_votes(rgb, prior)
            x = torch.cat([(rgb - 0.5) * 2, x[:, 3:6], clues(rgb), prior, said], 1)
        skips, y = [], x
        for d in self.down:
            y = d(y)
            skips.append(y)
        y = self.after(self.context(y))
        rough, middle = None, []
        for k, (narrow, up) in enumerate(zip(self.narrow, self.up)):
            skip = skips[-2 - k]
            y = up(F.interpolate(narrow(y), scale_factor=2.0, mode="bilinear", align_corners=False) + skip)
            if k in (1, 2):
                middle.append(y)
            if k == 1 and coarse:
                rough = self.coarse(y)
        wide = F.interpolate(middle[0], scale_factor=2.0, mode="bilinear", align_corners=False)
        seen = F.interpolate(self.seen(torch.cat([middle[1], wide], 1)), scale_factor=4.0, mode="bilinear", align_corners=False)
        out = torch.cat([self.edge(y)[:, :1], seen], 1)
        return (out, rough) if coarse else out


def load_grown(net, old):
    """Fills `net` with the weights of a smaller model of the same plan so that it answers as that one did.

    Further channels start at random but are not listened to yet, further residual blocks start as identity
    (function-preserving growth, Chen et al., "Net2Net", 2016).
    """
    state = net.state_dict()
    for name, value in state.items():
        if name not in old:
            if name.endswith("body.1.weight"):
                value.zero_()
            continue
        source = old[name].to(value.dtype)
        if source.shape == value.shape:
            value.copy_(source)
            continue
        if value.dim() == 4:
            value[: source.shape[0], source.shape[1] :] = 0
        value[tuple(slice(0, n) for n in source.shape)] = source
    net.load_state_dict(state)
