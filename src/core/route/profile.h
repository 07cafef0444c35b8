#pragma once
// Profiles: the ground along an alignment, and a design of grades and parabolic vertical curves.

#include <memory>
#include <optional>
#include <vector>

#include "core/base/result.h"
#include "core/route/alignment.h"
#include "core/terrain/locator.h"

namespace erdwerk::route {

/// How a profile goes on from a point where the path curves over a triangle: at a distance s behind it, it
/// has come by way(s) in plan and risen by gradient · way(s), exactly.
struct Bow {
    Vec2 gradient;  ///< rise of the triangle per unit of plan, to the east and north
    Angle direction;
    double curvature = 0;  ///< of the path at the point, positive to the right
    double change = 0;     ///< of the curvature per unit of length
    [[nodiscard]] Vec2 way(double distance) const;
    [[nodiscard]] double rise(double distance) const { return geometry::dot(gradient, way(distance)); }
};

/// Heights by station, rising stations; height absent off the surface.
struct ProfilePoint {
    double station = 0;
    Vec2 place;
    std::optional<double> height;
    std::optional<Bow> bow = {};  ///< up to the next point; straight without
};

/// The ground under the alignment: a point at its start, its end, where its elements meet and at each
/// triangle edge crossed, on arcs and clothoids themselves.
std::vector<ProfilePoint> groundProfile(const AlignmentGeometry& alignment,
                                        const terrain::TinLocator& surface);
/// The same element by element, so that a change of some leaves the others as they are. Stations count from
/// each element's start.
struct GroundPieces {
    Path path;
    std::shared_ptr<const terrain::TinLocator> surface;
    std::vector<std::shared_ptr<const std::vector<ProfilePoint>>> pieces;
};
/// Takes from `before` (may be null) what lies on the same elements over the same surface; the rest in
/// parallel.
GroundPieces groundPieces(const Path& path, std::shared_ptr<const terrain::TinLocator> surface,
                          const GroundPieces* before = nullptr);
std::vector<ProfilePoint> joined(const GroundPieces& pieces, const AlignmentGeometry& alignment);

/// The same profile as straights from point to point, none farther than `tolerance` > 0 off in height, for
/// who draws or writes it.
std::vector<ProfilePoint> straightened(const std::vector<ProfilePoint>& profile, double tolerance);

/// Height of a profile at a station, between its points as the ground runs there; nothing where a neighbour
/// is missing.
std::optional<double> heightAt(const std::vector<ProfilePoint>& profile, double station);

/// Point of vertical intersection. `curveLength` is the horizontal length of the parabola, half before and
/// half after; 0 for a plain grade break.
struct Pvi {
    double station = 0;
    double height = 0;
    double curveLength = 0;
    double byK = 0;  ///< the length follows from this K (see curveLengthByK); 0: it is as it was typed
    /// The grade to the next one stays when either of them is moved (see design_edit.h).
    bool locked = false;
    /// To the next one it is not straight: the ground plus this much (see laidOnGround).
    std::optional<double> onGround = {};
    friend bool operator==(const Pvi&, const Pvi&) = default;
};

/// Rising stations, lengths not negative, curves that do not overlap nor pass the ends.
Result<void> validate(const std::vector<Pvi>& pvis);

/// What stands between the PVIs: grades before and after, and for a curve its K value (length per per cent of
/// change).
struct PviFigures {
    std::optional<Grade> gradeIn;
    std::optional<Grade> gradeOut;
    std::optional<double> k;
    bool crest = false;
};
std::vector<PviFigures> figures(const std::vector<Pvi>& pvis);

/// Height and grade of the design at a station; nothing outside the first and last PVI. On a curve
/// y = y0 + g1 x + (g2 - g1) x² / (2 L), x from the start of the curve.
struct DesignPoint {
    double height = 0;
    Grade grade;
};
std::optional<DesignPoint> designAt(const std::vector<Pvi>& pvis, double station);

/// Design minus ground at a station: positive is fill, negative cut.
std::optional<double> fillDepth(const std::vector<Pvi>& design, const std::vector<ProfilePoint>& ground,
                                double station);

}  // namespace erdwerk::route
