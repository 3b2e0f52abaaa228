// How much of each pixel lies inside a quarter of an upright ellipse: exact areas, by formula.
#pragma once

#include "geometry/trigonometry.hpp"

#include "coldbrick/geometry.hpp"

#include <memory_resource>
#include <vector>

namespace coldbrick::inline v0::detail {

// The upper left part of a shape's edge: straight up to the left end of a quarter of an ellipse, along that to its top,
// and straight on to the right. Of an ellipse it ends at its axes, of a rounded box at the box's. Places count from the
// upper left corner of a box of pixels.
struct QuarterEdge {
    Vec center;           // of the quarter
    Vec half_axes;        // 0 for a sharp corner
    double distance = 0;  // how far outside of the quarter the edge runs beside it, or inside if it is negative
};

// How much such a shape, with the edge on the quarter itself, covers of the pixels in the left half of a box, row by
// row in the upper half. The box's right half and lower half are mirror images: a middle column or row, which an odd
// number of them has, is covered as much as its half is.
class QuarterAreas {
  public:
    // Rows first to end - 1 are asked for.
    QuarterAreas(const QuarterEdge& edge, const Size& box, int first, int end, std::pmr::memory_resource* memory);

    // Columns begin to end - 1 are covered in part, those from end on whole.
    struct Columns {
        int begin;
        int end;
    };
    [[nodiscard]] Columns of_row(int row) const noexcept;

    // Sets how much of each of those is covered.
    void set_areas(int row, const Columns& columns, double* areas) const noexcept;

  private:
    // The part of a row that lies in the upper half.
    struct Band {
        double top;
        double bottom;
        double across_top;  // where the curve crosses its sides
        double across_bottom;
    };
    // A place on the curve.
    struct Place {
        double x;
        double y;
    };

    [[nodiscard]] Band band_of(int row) const noexcept;
    [[nodiscard]] double across_at(double y) const noexcept;
    [[nodiscard]] double height_at(double x) const noexcept;
    [[nodiscard]] double area_below(const Place& left, const Place& right, const Band& band) const noexcept;
    [[nodiscard]] double area_beyond_chord(double across, double down) const noexcept;

    Vec center_;
    Vec axes_;
    Vec scale_;    // from places to the unit circle
    Vec middle_;   // of the box
    double left_;  // of the shape
    double top_;
    int first_;
    std::pmr::vector<double> heights_;  // of the edge at the left side of each column
    std::pmr::vector<double> across_;   // and its place at the upper side of each row, from the first one on
};

}  // namespace coldbrick::inline v0::detail
