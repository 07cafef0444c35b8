#pragma once
// Which triangle lies at a place: a grid over the triangles.

#include <functional>
#include <memory>
#include <optional>
#include <vector>

#include "core/terrain/tin.h"

namespace erdwerk::terrain {

/// Works on any Tin, with holes and notches as well. Immutable; shares ownership of its Tin. Building is
/// linear in the triangles; a query touches one cell. Places are decided exactly, edges and corners belong to
/// the surface.
class TinLocator {
public:
    explicit TinLocator(std::shared_ptr<const Tin> tin);
    [[nodiscard]] const Tin& tin() const { return *tin_; }
    [[nodiscard]] std::shared_ptr<const Tin> tinPointer() const { return tin_; }
    /// The triangle with the lowest number that contains the place.
    [[nodiscard]] std::optional<std::uint32_t> triangleAt(Vec2 place) const;
    /// Height of the surface; nothing outside it.
    [[nodiscard]] std::optional<double> heightAt(Vec2 place) const;
    /// Triangles whose box meets the window, each once, in rising order.
    [[nodiscard]] std::vector<std::uint32_t> near(const Box& window) const;
    /// Triangles that may meet the segment, each once, in rising order.
    [[nodiscard]] std::vector<std::uint32_t> along(Vec2 a, Vec2 b) const;

private:
    struct Span {
        int row;
        int firstColumn;
        int lastColumn;
    };
    template <class Visit>
    void rowsOf(std::span<const Vec2> shape, const Visit& visit) const;
    [[nodiscard]] int column(double x) const;
    [[nodiscard]] int row(double y) const;
    void collect(const Span& span, std::vector<std::uint32_t>& out) const;

    std::shared_ptr<const Tin> tin_;
    Box bounds_;
    double cell_ = 1;
    int columns_ = 1;
    int rows_ = 1;
    std::vector<std::uint32_t> start_;  ///< per cell, into members_
    std::vector<std::uint32_t> members_;
};

}  // namespace erdwerk::terrain
