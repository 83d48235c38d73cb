"""Writes a trained model as ONNX with free width and height: python3 export.py MODEL.pt OUT.onnx"""
import sys

import torch

from model import Segmenter


class Answer(torch.nn.Module):
    """The model with its logits turned into shares."""

    def __init__(self, net):
        super().__init__()
        self.net = net

    def forward(self, picture):
        return torch.sigmoid(self.net(picture))


if __name__ == "__main__":
    net = Segmenter()
    net.load_state_dict(torch.load(sys.argv[1], map_location="cpu"))
    net.eval()
    torch.onnx.export(
        Answer(net),
        torch.zeros(1, 6, 256, 256),
        sys.argv[2],
        opset_version=13,
        input_names=["picture"],
        output_names=["answer"],
        dynamic_axes={"picture": {2: "height", 3: "width"}, "answer": {2: "height", 3: "width"}},
    )
