#include "paint/brushes/prepared.hpp"

#include "coldbrick/error.hpp"

namespace coldbrick::inline v0::detail {

ReadyInk::ReadyInk(const Target& target, const Ink& ink)
    : ink_{ink}, kernel_{target.kernel}, brush_{brush_for(target, ink_)} {
    if (target.kernel->is_indexed) palette_ = palette_of(target);
    if (brush_.runs != Brush::Runs::bytes) return;
    curves_.emplace(target, ink_.how(), *ink_.color()).find_table();
    brush_.curves = &*curves_;
}

void ReadyInk::check(const Target& target) const {
    if (target.kernel != kernel_) {
        throw Error{
            "prepared ink: it was made ready for pixels of another format than those that are drawn on; "
            "allowed are pixels of its own format"};
    }
    if (palette_ && *palette_ != palette_of(target)) {
        throw Error{
            "prepared ink: it was made ready for another palette than that of the buffer that is drawn on; "
            "allowed is a palette with the same entries"};
    }
}

Shared<ReadyInk> ready_ink(const Target& target, const Ink& ink) { return make_shared_value<ReadyInk>(target, ink); }

void check_ready(const Target& target, const Shared<ReadyInk>& ready) { ready->check(target); }

const Ink& ink_of(const Shared<ReadyInk>& ready) noexcept { return ready->ink(); }

Box paint(const Surface& surface, const Shared<ReadyInk>& ready, const AreaRef& area) {
    ready->check(surface);
    return paint(surface, ready->brush(), area);
}

Box mark(const Surface& surface, Point at, const Shared<ReadyInk>& ready) {
    ready->check(surface);
    return mark(surface, at, ready->brush());
}

}  // namespace coldbrick::inline v0::detail
