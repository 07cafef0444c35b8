#pragma once
// Everything that is derived from one document. What each result holds is said in a header of its own
// (surface_result.h, route_result.h, line_result.h …), for those who look into it.

#include <map>
#include <memory>
#include <optional>
#include <vector>

#include "core/document/document.h"
#include "core/geometry/vec.h"

namespace erdwerk::annotate {
struct Dimensioned;
struct LabelText;
}  // namespace erdwerk::annotate
namespace erdwerk::linework {
struct Line3D;
struct ResolvedLine;
}  // namespace erdwerk::linework
namespace erdwerk::route {
struct AlignmentGeometry;
}
namespace erdwerk::survey {
class CloudTiles;
}
namespace erdwerk::terrain {
struct Contour;
class TinLocator;
}  // namespace erdwerk::terrain

namespace erdwerk::derive {

// Results speak of the objects they are of.
using document::Document;
using namespace objects;
using geometry::Vec2;

struct BandTable;
struct DesignCheck;
struct EarthworkResult;
struct FitResult;
struct FollowedLine;
struct ParcelResult;
struct ProfileResult;
struct ReadingResult;
struct SectionResult;
struct SurfaceResult;

template <class T>
using Results = std::map<ObjectId, std::shared_ptr<const T>>;

/// Everything derived from one document. A value; results that did not change are shared with the one before.
struct Derived {
    Derived();
    Derived(const Derived&);
    Derived(Derived&&) noexcept;
    Derived& operator=(const Derived&);
    Derived& operator=(Derived&&) noexcept;
    ~Derived();

    Document document;
    Results<SurfaceResult> surfaces;
    Results<std::vector<terrain::Contour>> contours;
    Results<std::vector<terrain::Contour>> contoursBefore;  ///< of what finished surfaces took away
    Results<FitResult> fits;   ///< of surfaces with dense heights to compare with
    Results<BandTable> bands;  ///< of surfaces that show them
    Results<survey::CloudTiles> clouds;
    Results<linework::ResolvedLine> lines;
    Results<FollowedLine> followed;  ///< of lines that follow others
    Results<EarthworkResult> earthworks;
    Results<route::AlignmentGeometry> alignments;
    Results<DesignCheck> designs;  ///< of alignments with criteria
    Results<ProfileResult> profiles;
    Results<SectionResult> sections;
    Results<ParcelResult> parcels;
    Results<ReadingResult> readings;
    Results<annotate::LabelText> labels;
    Results<annotate::Dimensioned> dimensions;

    template <class T>
    [[nodiscard]] static const T* in(const Results<T>& results, ObjectId id) {
        const auto it = results.find(id);
        return it == results.end() ? nullptr : it->second.get();
    }
    /// What `lines` has resolved: the object's own vertices, or those of a line that follows others. Null
    /// when there is no such line.
    [[nodiscard]] const linework::Line3D* definition(ObjectId line) const;
    /// Null when there is no such surface, or nothing of it.
    [[nodiscard]] const terrain::TinLocator* surface(ObjectId id) const;
    /// Height of the surface drawn on top at a place: the last one that reaches it.
    [[nodiscard]] std::optional<double> topHeight(geometry::Vec2 place) const;
    [[nodiscard]] const terrain::TinLocator* topSurface(geometry::Vec2 place) const;
};

}  // namespace erdwerk::derive
