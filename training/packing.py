"""Weights in 8 bits: python3 packing.py MODEL.pt PACKED.pt

Each output channel of a convolution has one scale, so a model takes a quarter of its size.

Rounding moves the model's answers by far less than a training step does; everything that is not a convolution's kernel
(normalisation, biases) stays in single precision.
"""
import sys

import torch


def pack(kernel):
    """A kernel (O, I, H, W) as 8-bit integers of the same shape and scales (O, 1, 1, 1): kernel ~ integers * scales."""
    scale = kernel.abs().amax((1, 2, 3), keepdim=True).clamp(min=1e-12) / 127
    return torch.round(kernel / scale).to(torch.int8), scale


def save(state, path):
    """Writes a state dict, its kernels packed."""
    torch.save({k: pack(v.float()) if v.dim() == 4 else v for k, v in state.items()}, path)


def load(path):
    """A state dict written by `save`, or by torch.save itself, in single precision."""
    wide = lambda v: v[0].float() * v[1] if isinstance(v, tuple) else v.float() if v.is_floating_point() else v
    return {k: wide(v) for k, v in torch.load(path, map_location="cpu").items()}


if __name__ == "__main__":
    save(load(sys.argv[1]), sys.argv[2])
