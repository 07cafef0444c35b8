#pragma once
// Derived results: pure functions of the objects they name, remembered by the identity of those objects and
// worked out again only when one of them is another object.

#include <map>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/annotate/label.h"
#include "core/base/progress.h"
#include "core/document/document.h"
#include "core/earthwork/pad.h"
#include "core/earthwork/storage.h"
#include "core/parcel/compare_calls.h"
#include "core/parcel/description.h"
#include "core/route/alignment.h"
#include "core/survey/cloud_tiles.h"
#include "core/terrain/bands.h"
#include "core/terrain/build.h"
#include "core/terrain/contours.h"
#include "core/terrain/fit.h"
#include "core/terrain/locator.h"
#include "core/terrain/section.h"

namespace erdwerk::derive {

// Results speak of the objects they are of.
using document::Document;
using namespace objects;
using geometry::Vec2;

struct SurfaceCrossing {
    terrain::Crossing crossing;
    ObjectId first;
    ObjectId second;
};

struct SurfaceDuplicate {
    PointRef kept;
    PointRef dropped;
};

/// What thinning the clouds and rasters came to.
struct ThinFigures {
    std::size_t pointsIn = 0;
    std::size_t kept = 0;  ///< vertices
    std::size_t triangles = 0;
    double largestDeviation = 0;  ///< of all points
    double largestProved = 0;     ///< of those that are not excused
    std::size_t excused = 0;
    std::size_t beyond = 0;
    std::size_t contradicting = 0;
};

struct SurfaceWork;

/// How a surface differs from the one that it begins with.
struct SurfacePatch {
    std::shared_ptr<const terrain::TinLocator> base;
    std::vector<std::uint32_t> gone;   ///< triangles of the base
    std::vector<std::uint32_t> fresh;  ///< its own triangles that the base does not have
};

struct SurfaceResult {
    std::shared_ptr<const terrain::TinLocator>
        locator;  ///< null when there is no surface; `problem` says why
    std::string problem;
    std::size_t points = 0;
    terrain::TinFigures figures;
    std::vector<SurfaceCrossing> crossings;
    std::vector<SurfaceDuplicate> duplicates;
    std::optional<ThinFigures> thinned;
    std::vector<std::pair<std::size_t, std::string>> editProblems;  ///< own edits that do not apply, and why
    bool locally = false;                                           ///< worked out from the result before
    std::shared_ptr<const SurfaceWork> work;                        ///< for the next one; may be null
    std::shared_ptr<const SurfacePatch> patch;                      ///< of a finished surface; may be null
};

struct FitResult {
    terrain::FitFigures figures;
    terrain::DeviationMap map;
    double tolerance = 0;
    struct Place {
        geometry::Vec3 point;  ///< of the source
        double deviation = 0;
    };
    std::vector<Place> worst;  ///< beyond the tolerance, the worst first
};

struct BandTable {
    terrain::BandKind kind = terrain::BandKind::Height;
    std::vector<double> limits;
    std::vector<terrain::Band> bands;
};

struct ProfileResult {
    std::vector<route::ProfilePoint> ground;
    std::shared_ptr<const route::GroundPieces> pieces;  ///< of the ground, for the next one; may be null
    /// Another state of the same ground.
    struct Other {
        ObjectId surface;
        std::vector<route::ProfilePoint> points;
    };
    std::vector<Other> others;  ///< the finished surface of the ground; of a finished one what it begins with
    std::string problem;        ///< why there is no ground
    /// The design with those stretches laid on the ground that follow it; empty where none does, and the
    /// design is as the profile has it (see designOf).
    std::vector<route::Pvi> laid;
};
/// The design of a profile, on the ground where it follows that.
inline const std::vector<route::Pvi>& designOf(const Profile& profile, const ProfileResult* result) {
    return result != nullptr && !result->laid.empty() ? result->laid : profile.design;
}

/// A section that is kept, cut.
struct SectionResult {
    std::vector<Vec2> axis;
    std::vector<ObjectId> surfaces;
    std::vector<terrain::SectionRow> rows;  ///< a height for each of the surfaces
    std::string problem;                    ///< why there is none; empty when there is
};

/// An alignment and the designs over it, against its criteria.
struct DesignCheck {
    std::vector<route::DesignFinding> findings;
    std::string problem;  ///< why nothing could be checked; empty when it could
};

/// A part of a description as it stands in the text.
struct ParcelPassage {
    parcel::DescriptionPart part;
    std::string instead;  ///< what writes itself there, where it is changed by hand; else empty
    bool stale = false;   ///< that is not what was changed
};

struct ParcelResult {
    parcel::ParcelGeometry geometry;
    std::string description;  ///< with what was changed by hand
    std::vector<ParcelPassage> passages;
    parcel::Closure rounded;     ///< of the courses as the text calls them
    std::string wordingProblem;  ///< why its wording could not be taken; empty when it could
    std::vector<parcel::CourseRow> table;
};

/// A description that is read back, as it is now.
struct ReadingResult {
    parcel::ReadDescription read;
    std::vector<parcel::DrawnCourse> drawn;
    parcel::CalledShape shape;
    geometry::Path path;  ///< in the plan
    std::vector<parcel::TextDifference> differences;
    bool compared = false;  ///< with a parcel; else only the text with itself
    std::string problem;    ///< why nothing could be read; empty when something could
};

/// A line that follows others, as it is now.
struct FollowedLine {
    linework::Line3D line;  ///< what `lines` has resolved
    std::string problem;    ///< why it cannot follow; empty when it does
    friend bool operator==(const FollowedLine&, const FollowedLine&) = default;
};

/// A batter, pad or pond as it is now.
struct EarthworkResult {
    std::string problem;                                 ///< why there is none; empty when there is
    std::shared_ptr<const terrain::TinLocator> surface;  ///< faces, and the inside of a pad; may be null
    std::shared_ptr<const terrain::TinLocator> faces;    ///< of its batter alone; may be null
    std::shared_ptr<const terrain::TinLocator> ground;   ///< what it was made on; may be null
    earthwork::Batter batter;
    terrain::Volumes volumes;      ///< of a pad or a pond, in place, against the ground it was made on
    double net = 0;                ///< see earthwork::Earth
    std::optional<double> height;  ///< of the edge's first corner
    std::optional<earthwork::Storage> storage;  ///< of a pond
};

template <class T>
using Results = std::map<ObjectId, std::shared_ptr<const T>>;

/// Everything derived from one document. A value; results that did not change are shared with the one before.
struct Derived {
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
    [[nodiscard]] const linework::Line3D* definition(ObjectId line) const {
        if (const auto* follows = in(followed, line)) return &follows->line;
        const auto* own = document.get<Line>(line);
        return own == nullptr ? nullptr : &own->line;
    }
    [[nodiscard]] const terrain::TinLocator* surface(ObjectId id) const {
        const auto* result = in(surfaces, id);
        return result == nullptr ? nullptr : result->locator.get();
    }
    /// Height of the surface drawn on top at a place: the last one that reaches it.
    [[nodiscard]] std::optional<double> topHeight(geometry::Vec2 place) const;
    [[nodiscard]] const terrain::TinLocator* topSurface(geometry::Vec2 place) const;
};

/// Arcs are cut to this when a line becomes a breakline or an edge, in project units.
inline constexpr double breaklineSagitta = 0.01;

/// Keeps the memory between evaluations. Used by one thread at a time.
class Model {
public:
    Model();
    ~Model();
    Model(Model&&) noexcept;
    Model& operator=(Model&&) noexcept;

    /// Works out what differs from the last evaluation. Cancelled leaves the memory usable.
    Result<Derived> evaluate(const Document& document, const Context& context = {});
    /// How many results were worked out (not remembered) by the last evaluation.
    [[nodiscard]] std::size_t computedLast() const;

private:
    struct State;
    std::unique_ptr<State> state_;
};

/// Of the results of an older document those that hold for `newest` too: nothing that they depend on is
/// another object. Lines that depend on nothing are worked out. For saving without waiting.
Derived resultsFor(const Document& newest, const Derived& derived);

/// One evaluation without memory.
Result<Derived> evaluate(const Document& document, const Context& context = {});

}  // namespace erdwerk::derive
