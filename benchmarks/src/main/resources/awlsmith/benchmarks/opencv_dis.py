# Dense flow by OpenCV's DIS: opencv_dis.py PAIRS WIDTH HEIGHT PRESET THREADS OUT. PAIRS holds grey pictures, two and two; OUT gets
# for each pair u and v of every sample as 32-bit floats; printed is the time of a pair in milliseconds, the best of five.
import sys
import time

import cv2
import numpy

path, width, height, preset, threads, out = sys.argv[1:7]
width, height = int(width), int(height)
cv2.setNumThreads(int(threads))
made = {
    "ultrafast": cv2.DISOPTICAL_FLOW_PRESET_ULTRAFAST,
    "fast": cv2.DISOPTICAL_FLOW_PRESET_FAST,
    "medium": cv2.DISOPTICAL_FLOW_PRESET_MEDIUM,
}[preset]
pictures = numpy.fromfile(path, numpy.uint8).reshape(-1, height, width)
spent = 0.0
with open(out, "wb") as file:
    for i in range(0, len(pictures), 2):
        best = 1e9
        for _ in range(5):
            finder = cv2.DISOpticalFlow_create(made)
            begun = time.perf_counter()
            flow = finder.calc(pictures[i], pictures[i + 1], None)
            best = min(best, time.perf_counter() - begun)
        spent += best
        file.write(flow.astype(numpy.float32).tobytes())
print(1000 * spent / (len(pictures) // 2))
