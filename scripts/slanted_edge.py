"""An independent reading of slanted edges, in numpy: python3 scripts/slanted_edge.py > src/core/bench/numpyEdges.json

Edges are drawn by supersampling (eight by eight in each pixel), with noise, as bytes; MTF50 is read by another way than the application's:
the edge by a straight line through each row's half-way place, bins of a tenth of a pixel over all rows, no window but a cut, Hamming's.
"""

import base64
import json

import numpy as np
from math import erf

WIDTH, HEIGHT, FINE = 64, 120, 8
step = np.vectorize(lambda x: 0.5 * (1 + erf(x / np.sqrt(2))))


def drawn(sigma, angle, noise, seed):
    """Light from 0.18 to 0.72, blurred by a Gaussian of `sigma` pixels; bytes in proportion to light."""
    random = np.random.default_rng(seed)
    x = (np.arange(WIDTH * FINE) + 0.5) / FINE - WIDTH / 2
    y = (np.arange(HEIGHT * FINE) + 0.5) / FINE - HEIGHT / 2
    a = np.deg2rad(angle)
    off = x[None, :] * np.cos(a) - y[:, None] * np.sin(a)
    light = 0.18 + 0.54 * step(off / sigma)
    light = light.reshape(HEIGHT, FINE, WIDTH, FINE).mean(axis=(1, 3))
    light += noise * random.standard_normal(light.shape)
    return np.clip(np.round(255 * light), 0, 255).astype(np.uint8)


def mtf50(pixels):
    light = pixels / 255.0
    middle = (light[:, :6].mean() + light[:, -6:].mean()) / 2
    places = []
    for row in light:
        smooth = np.convolve(row, np.ones(5) / 5, mode="same")
        at = np.flatnonzero((smooth[2:-3] < middle) & (smooth[3:-2] >= middle))[0] + 2
        places.append(at + (middle - smooth[at]) / (smooth[at + 1] - smooth[at]))
    b, a = np.polyfit(np.arange(HEIGHT), places, 1)
    rows, columns = np.mgrid[0:HEIGHT, 0:WIDTH]
    off = (columns - a - b * rows) * np.cos(np.arctan(b))
    fine = 10
    index = np.round(off * fine).astype(int)
    low = -18 * fine
    edge = np.array([light[index == k].mean() for k in range(low, -low + 1)])
    spread = np.gradient(edge)
    spread *= np.hamming(len(spread))
    power = np.abs(np.fft.rfft(spread, 8192))
    nu = np.fft.rfftfreq(8192, 1 / fine)
    # Central difference of two bins, and the bin.
    contrast = power / power[0] / (np.sinc(2 * nu / fine) * np.sinc(nu / fine))
    at = np.flatnonzero(contrast < 0.5)[0]
    return float(np.interp(0.5, contrast[[at, at - 1]], nu[[at, at - 1]]))


edges = []
for number, (sigma, angle, noise) in enumerate([(0.5, 5, 0), (0.8, 4, 0), (1.3, 7, 0), (2, 6, 0), (0.8, 5, 0.004), (1.3, 9, 0.004)]):
    pixels = drawn(sigma, angle, noise, number)
    edges.append(
        {
            "sigma": sigma,
            "angleDeg": angle,
            "mtf50": round(mtf50(pixels), 5),
            "pixels": base64.b64encode(pixels.tobytes()).decode(),
        }
    )
print(json.dumps({"width": WIDTH, "height": HEIGHT, "edges": edges}))
