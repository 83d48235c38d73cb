"""Fits how the evidence of `core/cutout/evidence.ts` is weighed: a network that gives each source its weight, on
pixels of pictures that the segmentation model was not trained on.

    npm run bench -- odds data/calibration > pixels.csv
    python3 odds.py pixels.csv ../packages/core/cutout/model/odds.ts

Prints the squared error per pixel of the model alone and of networks on pictures that were kept from them, in five folds;
the network that is written has seen all pictures, for as many rounds as were best on those kept apart.
"""
import sys

import numpy as np
import torch
from torch import nn

ROUNDS = 24


SOURCES = 3


# The least and the most of each source's weight, as factors on its usual one (`evidence.ts` has the same): the model is
# always heard, the border's colours may be told to be silent.
BOUNDS = torch.tensor([[0.6, 1.4], [0, 1], [0.3, 1.7]])


class Gate(nn.Module):
    """Log-odds as the sum of the sources' own, each times its usual weight and a bounded factor by the other evidence."""

    def __init__(self, inputs):
        super().__init__()
        self.hidden, self.gate = nn.Linear(inputs - SOURCES, 16), nn.Linear(16, SOURCES)
        self.usual = nn.Parameter(torch.zeros(SOURCES))
        self.intercept = nn.Parameter(torch.zeros(1))

    def forward(self, x):
        factors = BOUNDS[:, 0] + (BOUNDS[:, 1] - BOUNDS[:, 0]) * torch.sigmoid(self.gate(torch.relu(self.hidden(x[:, SOURCES:]))))
        return (self.weights() * factors * x[:, :SOURCES]).sum(1, keepdim=True) + self.intercept

    def weights(self):
        """The usual weights; the border's colours never weigh more than the model."""
        model, colour, taught = torch.exp(self.usual)
        return torch.stack([model, torch.minimum(colour, model), taught])


def fit(x, truth, weight, rounds, check=None):
    """A fitted network, and its weighted squared error on `check` after every round."""
    torch.manual_seed(3)
    net = Gate(x.shape[1])
    opt = torch.optim.AdamW(net.parameters(), lr=8e-3, weight_decay=1e-2)
    errors = []
    for r in range(rounds):
        for g in opt.param_groups:
            g["lr"] = 8e-3 * (1 - r / ROUNDS) + 1e-4
        order = torch.randperm(len(x))
        for part in order.split(4096):
            loss = nn.functional.binary_cross_entropy_with_logits(net(x[part])[:, 0], truth[part], weight[part])
            opt.zero_grad()
            loss.backward()
            opt.step()
        if check is not None:
            with torch.no_grad():
                off = (torch.sigmoid(net(check[0])[:, 0]) - check[1]) ** 2
            errors.append(float((off * check[2]).sum() / check[2].sum()))
    return net, errors


if __name__ == "__main__":
    lines = open(sys.argv[1]).read().splitlines()
    head = next(i for i, line in enumerate(lines) if line.startswith("number,"))
    rows = np.array([[float(v) for v in line.split(",")] for line in lines[head + 1 :] if line.count(",") == lines[head].count(",")])
    number, x, truth, weight = rows[:, 0], rows[:, 1:-2], rows[:, -2], rows[:, -1]
    x, truth, weight = (torch.tensor(a, dtype=torch.float32) for a in (x, truth, weight))
    weight = weight / weight.mean()
    alone = ((torch.sigmoid(3 * x[:, 0]) - truth) ** 2 * weight).mean()
    fold = torch.tensor(np.random.RandomState(5).randint(0, 5, int(number.max()) + 1)[number.astype(int)])
    curves = []
    for k in range(5):
        a, b = fold != k, fold == k
        curves.append(fit(x[a], truth[a], weight[a], ROUNDS, (x[b], truth[b], weight[b]))[1])
    curve = np.mean(curves, 0)
    best = int(curve.argmin()) + 1
    print(f"{len(rows)} pixels; squared error of the model alone {alone:.4f}, of the network on pictures kept from it {curve[best - 1]:.4f}, after {best} rounds")
    net, _ = fit(x, truth, weight, best)
    with torch.no_grad(), open(sys.argv[2], "w") as f:
        f.write("/** Written by `training/odds.py`; see there. */\nexport const EVIDENCE_NETWORK = {\n  layers: [\n")
        for layer in (net.hidden, net.gate):
            weights = ", ".join("[" + ", ".join(f"{v:.4g}" for v in row.tolist()) + "]" for row in layer.weight)
            f.write(f"    {{ weights: [{weights}], bias: [{', '.join(f'{v:.4g}' for v in layer.bias.tolist())}] }},\n")
        usual = ", ".join(f"{v:.4g}" for v in net.weights().tolist())
        f.write(f"  ],\n  usual: [{usual}],\n  intercept: {net.intercept.item():.4g},\n}};\n")
