// Rgb8 and Bgr8: rule 5 of docs/pixel-rules.md.
#include "formats/channel_bytes.hpp"
#include "formats/layers.hpp"

#include "coldbrick/formats.hpp"

namespace coldbrick::inline v0::detail {

namespace {

template <Order order>
struct OpaqueLayer {
    static constexpr int pixel_bytes = 3;
    explicit OpaqueLayer(Color color) noexcept
        : source{encode<order>(color)}, spread_source{spread(read_bytes<3>(source.data()))} {}
    void operator()(std::uint8_t* pixel, unsigned alpha) const noexcept {
        write_bytes<3>(mixed_bytes(spread_source, read_bytes<3>(pixel), alpha), pixel);
    }
    [[nodiscard]] auto ready(std::uint8_t alpha) const noexcept {
        return [blend = OpaqueBlend{source.data(), 3, alpha}](std::uint8_t* pixels, std::size_t count) {
            blend(pixels, 3 * count);
        };
    }

    Bytes4 source;
    std::uint64_t spread_source;
};

template <Order order>
constexpr FormatKernel opaque_kernel() noexcept {
    return {.pixel_bits = 24,
            .order = order.channels(),
            .is_by_byte = true,
            .load = load_channels<order, 3>,
            .store = store_channels<order, 3>,
            .blend = blend_layer<OpaqueLayer<order>>,
            .cover = cover_layer<OpaqueLayer<order>>,
            .trace = trace_layer<OpaqueLayer<order>>,
            .put = put_one<order, 3>,
            .lay = lay_one<OpaqueLayer<order>>};
}

}  // namespace

constexpr FormatKernel rgb8_kernel = opaque_kernel<rgb>();
constexpr FormatKernel bgr8_kernel = opaque_kernel<bgr>();

}  // namespace coldbrick::inline v0::detail
