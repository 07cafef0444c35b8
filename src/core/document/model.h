#pragma once
// Derived results: pure functions of the objects they name, remembered by the identity of those objects and
// worked out again only when one of them is another object.

#include <map>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/base/progress.h"
#include "core/document/document.h"
#include "core/parcel/parcel.h"
#include "core/route/alignment.h"
#include "core/terrain/build.h"
#include "core/terrain/contours.h"
#include "core/terrain/locator.h"

namespace erdwerk::document {

/// A point of a set, by position.
struct PointRef {
    ObjectId set;
    std::size_t index = 0;
};

struct SurfaceCrossing {
    terrain::Crossing crossing;
    ObjectId first;
    ObjectId second;
};

struct SurfaceDuplicate {
    PointRef kept;
    PointRef dropped;
};

struct SurfaceResult {
    std::shared_ptr<const terrain::TinLocator>
        locator;  ///< null when there is no surface; `problem` says why
    std::string problem;
    std::size_t points = 0;
    terrain::TinFigures figures;
    std::vector<SurfaceCrossing> crossings;
    std::vector<SurfaceDuplicate> duplicates;
};

struct ProfileResult {
    std::vector<route::ProfilePoint> ground;
    std::string problem;  ///< why there is no ground
};

struct ParcelResult {
    parcel::ParcelGeometry geometry;
    std::string description;
    std::vector<parcel::CourseRow> table;
};

template <class T>
using Results = std::map<ObjectId, std::shared_ptr<const T>>;

/// Everything derived from one document. A value; results that did not change are shared with the one before.
struct Derived {
    Document document;
    Results<SurfaceResult> surfaces;
    Results<std::vector<terrain::Contour>> contours;
    Results<linework::ResolvedLine> lines;
    Results<route::AlignmentGeometry> alignments;
    Results<ProfileResult> profiles;
    Results<ParcelResult> parcels;
    Results<annotate::LabelText> labels;

    template <class T>
    [[nodiscard]] static const T* in(const Results<T>& results, ObjectId id) {
        const auto it = results.find(id);
        return it == results.end() ? nullptr : it->second.get();
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

/// One evaluation without memory.
Result<Derived> derive(const Document& document, const Context& context = {});

}  // namespace erdwerk::document
