#include "coldbrick/detail/row_resizer.hpp"

#include "pictures/nearest.hpp"
#include "pictures/resizer.hpp"

namespace coldbrick::inline v0::detail {

class RowResizer::Method {
  public:
    Method() = default;
    Method(const Method&) = delete;
    Method(Method&&) = delete;
    Method& operator=(const Method&) = delete;
    Method& operator=(Method&&) = delete;
    virtual ~Method() = default;

    virtual void take(const Surface& rows, Point at, int y) = 0;
};

namespace {

template <class Number, class Texel>
class Mixed final : public RowResizer::Method {
  public:
    Mixed(Size from, bool has_alpha, const Surface& result, Scaling how)
        : result_{result},
          columns_{mixes(from.width, result.size.width, how), from.width},
          rows_{mixes(from.height, result.size.height, how), from.height},
          resizer_{from.width, has_alpha, result_, columns_, rows_} {}

    void take(const Surface& rows, Point at, int y) override { resizer_.take(rows, at, y); }

  private:
    Surface result_;
    Mixes<Number> columns_;
    Mixes<Number> rows_;
    Resizer<Number, Texel> resizer_;
};

class Nearest final : public RowResizer::Method {
  public:
    Nearest(Size from, const Surface& result) : from_{from}, result_{result} {}

    void take(const Surface& rows, Point at, int y) override {
        auto row = rows;
        row.window = {.at = at, .size = {.width = from_.width, .height = 1}};
        const auto [width, height] = result_.size;
        for (; next_ < height && place_under(next_, from_.height, height) == y; ++next_) {
            auto to = result_;
            static_cast<Target&>(to) = moved_to(result_, {.x = 0, .y = next_});
            to.size = {.width = width, .height = 1};
            to.window = {.at = {}, .size = to.size};
            resize_nearest(row, to);
        }
    }

  private:
    Size from_;
    Surface result_;
    int next_ = 0;
};

}  // namespace

RowResizer::RowResizer(Size from, const Surface& rows, const Surface& result, Scaling how) {
    check_scaling("resize", how);
    if (how == Scaling::nearest) {
        method_ = std::make_unique<Nearest>(from, result);
        return;
    }
    check_mixed(result);
    const auto has_alpha = rows.kernel->has_alpha;
    if (rows.kernel->load_deep != nullptr || result.kernel->load_deep != nullptr) {
        method_ = std::make_unique<Mixed<double, Color16>>(from, has_alpha, result, how);
    } else if (how != Scaling::box || is_exact_in_short(has_alpha, from, result.size)) {
        method_ = std::make_unique<Mixed<float, Color>>(from, has_alpha, result, how);
    } else {
        method_ = std::make_unique<Mixed<double, Color>>(from, has_alpha, result, how);
    }
}

RowResizer::~RowResizer() = default;

void RowResizer::take(const Surface& rows, Point at, int y) { method_->take(rows, at, y); }

}  // namespace coldbrick::inline v0::detail
