#pragma once
// Parts of a surface as objects of their own, in a group for each kind; the surface is shown as before.

#include <set>

#include "core/derive/model.h"
#include "core/operations/edit.h"

namespace erdwerk::operations {

enum class Extract { Contours, Triangles, Edge, Points, SlopeArrows };
inline constexpr std::array allExtracts{Extract::Contours, Extract::Triangles, Extract::Edge, Extract::Points,
                                        Extract::SlopeArrows};
/// "contours", "triangles", "edge", "points", "slope arrows".
std::string_view extractName(Extract what);

struct ExtractOptions {
    Extract what = Extract::Contours;
    std::string group;        ///< name; made when it is not there. Empty: "Contours of Ground"
    bool indexOnly = false;   ///< contours
    double lowest = -1e300;   ///< contours: levels from …
    double highest = 1e300;   ///< … to
    std::set<double> levels;  ///< contours: only these; empty: all
    /// Triangles and slope arrows: only those round one of these places; empty: all.
    std::vector<geometry::Vec2> picked;
    double arrowLength = 0;  ///< project units; 0: half the mean side of a triangle
};

/// What was taken, not yet in a document.
struct Parts {
    std::string group;
    std::vector<NewObject> objects;  ///< without group
};

struct Extracted {
    Document document;
    std::size_t objects = 0;
    ObjectId group;
};

Result<Parts> partsOf(const Derived& derived, ObjectId surface, const ExtractOptions& options);
/// Adds them in their group, which is made when it is not there.
Extracted withParts(const Document& document, Parts parts);

/// Contours, edge, triangles and arrows become lines with fixed heights, points a set of survey points. What
/// the same extraction made before stays. BadInput when the surface is not there or gives nothing; more than
/// 100 000 objects are refused.
Result<Extracted> extractFrom(const Derived& derived, ObjectId surface, const ExtractOptions& options);

}  // namespace erdwerk::operations
