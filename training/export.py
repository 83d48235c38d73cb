"""Writes a trained model as ONNX with free width and height: python3 export.py MODEL.pt OUT.onnx

Batch normalisation is folded into the convolutions, and their weights are stored in 8 bits (3 MB instead of 12); the
runtime widens them once, when it loads the file, and computes in single precision.
"""
import sys

import torch
from torch import nn
from torch.nn.utils.fusion import fuse_conv_bn_eval

from model import PLANES, Segmenter
from packing import load, pack


class Answer(nn.Module):
    """The model with its logits turned into shares."""

    def __init__(self, net):
        super().__init__()
        self.net = net

    def forward(self, picture):
        return torch.sigmoid(self.net(picture))


class PackedConv(nn.Module):
    """A convolution whose weights are kept in 8 bits."""

    def __init__(self, conv):
        super().__init__()
        integers, scale = pack(conv.weight.detach())
        self.weight, self.scale = nn.Parameter(integers, requires_grad=False), nn.Parameter(scale, requires_grad=False)
        self.bias = None if conv.bias is None else nn.Parameter(conv.bias.detach(), requires_grad=False)
        self.stride, self.padding = conv.stride, conv.padding

    def forward(self, x):
        return nn.functional.conv2d(x, self.weight.float() * self.scale, self.bias, self.stride, self.padding)


def folded(module):
    """The module with batch normalisation folded in and every convolution packed, in place."""
    names = list(module._modules)
    for name, after in zip(names, names[1:] + [None]):
        child = module._modules[name]
        follows = module._modules[after] if after is not None else None
        if isinstance(module, nn.Sequential) and isinstance(child, nn.Conv2d) and isinstance(follows, nn.BatchNorm2d):
            child = fuse_conv_bn_eval(child, follows)
            module._modules[after] = nn.Identity()
        module._modules[name] = PackedConv(child) if isinstance(child, nn.Conv2d) else folded(child)
    return module


if __name__ == "__main__":
    net = Segmenter()
    net.load_state_dict(load(sys.argv[1]))
    net.eval()
    torch.onnx.export(
        Answer(folded(net)),
        torch.zeros(1, PLANES, 256, 256),
        sys.argv[2],
        opset_version=13,
        do_constant_folding=False,
        input_names=["picture"],
        output_names=["answer"],
        dynamic_axes={"picture": {2: "height", 3: "width"}, "answer": {2: "height", 3: "width"}},
    )
