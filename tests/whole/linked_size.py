"""How large a program is that draws one circle with the core alone, and what it asks for at its start.

linked_size.py COMPILER INCLUDE_DIR LIBRARY FOLDER. The program is linked with section collection, as firmware is, and
stripped.
"""
import os
import re
import subprocess
import sys

compiler, include, library, folder = sys.argv[1:5]
MOST_BYTES = 1_400_000  # 1,300,000 when this was written
MOST_DATA = 32 << 10    # of variables, zeroed or not

SOURCE = """#include <coldbrick/draw.hpp>
int main() {
    coldbrick::Bitmap<coldbrick::Rgb8> buoy{{64, 64}};
    coldbrick::fill(buoy, coldbrick::Circle{.center = {30, 30}, .radius = 20}, coldbrick::Color{.red = 255});
    return buoy.bytes()[3 * (30 * 64 + 30)] == 255 ? 0 : 1;
}
"""
source = os.path.join(folder, "one_circle.cpp")
program = os.path.join(folder, "one_circle")
with open(source, "w", encoding="ascii") as file:
    file.write(SOURCE)
subprocess.run([compiler, "-std=c++20", "-O2", "-ffunction-sections", "-fdata-sections", "-I" + include, source, library,
                "-lpthread", "-Wl,--gc-sections", "-s", "-o", program], check=True)
subprocess.run([program], check=True)
sections = subprocess.run(["size", "-A", program], check=True, capture_output=True, text=True).stdout
data = sum(int(size) for size in re.findall(r"^\.(?:data|bss|tdata|tbss)\s+(\d+)", sections, re.MULTILINE))
size = os.path.getsize(program)
print(f"one circle: {size} bytes, {data} of variables")
assert size <= MOST_BYTES, f"the program has {size} bytes; allowed are {MOST_BYTES}"
assert data <= MOST_DATA, f"its variables have {data} bytes; allowed are {MOST_DATA}"
