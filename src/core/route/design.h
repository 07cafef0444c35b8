#pragma once
// What a design over an alignment says, place by place.

#include <functional>

#include "core/route/profile.h"

namespace erdwerk::route {

/// The highest place of a crest or the lowest of a sag, within its curve.
struct HighLow {
    double station = 0;  ///< running
    double height = 0;
};
/// Of a PVI with a curve; nothing where both grades rise or fall, and without a curve.
std::optional<HighLow> highLowAt(const std::vector<Pvi>& pvis, std::size_t pvi);

/// A curve's length from its K value: K times the change of grade in per cent. The grades are those of the
/// PVIs beside it, so it can be asked before curves are set. Nothing at the ends.
std::optional<double> curveLengthByK(const std::vector<Pvi>& pvis, std::size_t pvi, double k);
/// The length of the curve at a PVI that runs through a place. With w from the PVI, e from the nearer tangent
/// and A the change of grade the parabola has e = A (L/2 - |w|)² / 2L, so L = 2 (h + sqrt(h² - w²)), h = |w|
/// + 2e/A. Nothing where the place lies on the wrong side of the tangents.
std::optional<double> curveLengthThrough(const std::vector<Pvi>& pvis, std::size_t pvi, double station,
                                         double height);

/// Two curves, or a curve and an end, that need the same stretch.
struct CurveOverlap {
    std::size_t pvi = 0;  ///< the second of both
    double length = 0;    ///< that they share
};
std::vector<CurveOverlap> overlaps(const std::vector<Pvi>& pvis);

/// Running stations at which a design is written out: its start and end, every multiple of the interval as it
/// is read on the line (0: none), every PVI, where curves begin and end, high and low points; each once,
/// rising, on the line.
std::vector<double> designStations(const AlignmentGeometry& alignment, const std::vector<Pvi>& pvis,
                                   double interval);

/// A loose line in space that an axis may cross.
struct AcrossLine {
    Path path;
    /// At a distance along the path; nothing where it has no height.
    std::function<std::optional<double>(double)> heightAt;
};
/// A point wherever one of the lines crosses the axis, straights, arcs and clothoids alike, rising stations.
std::vector<ProfilePoint> profileAcross(const AlignmentGeometry& axis, const std::vector<AcrossLine>& lines);

}  // namespace erdwerk::route
