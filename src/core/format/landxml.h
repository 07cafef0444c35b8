#pragma once
// LandXML 1.2: points, surfaces, alignments with profiles, parcels. Coordinates stand as northing easting
// height.

#include <string>
#include <vector>

#include "core/base/id.h"
#include "core/base/progress.h"
#include "core/base/result.h"
#include "core/derive/model.h"
#include "core/geometry/path.h"
#include "core/route/profile.h"
#include "core/route/stationing.h"
#include "core/survey/points.h"
#include "core/terrain/tin.h"

namespace erdwerk::format {

/// A breakline, or a boundary of a surface.
struct XmlSurfaceLine {
    std::string name;
    std::vector<geometry::Vec3> places;
    bool closed = false;
    objects::Role role = objects::Role::Breakline;  ///< Breakline, Contour, Edge, Opening or Island
    bool withHeights = true;                        ///< else the heights are not to be used
};

struct XmlSurface {
    std::string name;
    terrain::Tin tin;
    std::vector<XmlSurfaceLine> lines = {};  ///< what it was made from
};

struct XmlProfile {
    std::string name;
    std::vector<route::Pvi> design;
};

/// The ground under an alignment, by running station; where it is broken there is another one of that name.
struct XmlGround {
    std::string name;
    std::vector<geometry::Vec2> places;  ///< station, height
};

/// At a running station: heights by offset, right positive, of one surface each.
struct XmlCrossSection {
    double station = 0;
    struct Surface {
        std::string name;
        std::vector<geometry::Vec2> places;  ///< offset, height
    };
    std::vector<Surface> surfaces;
};

struct XmlAlignment {
    std::string name;
    route::Stationing stationing;
    geometry::Path path;
    std::vector<XmlProfile> profiles;
    std::vector<XmlGround> grounds = {};
    std::vector<XmlCrossSection> sections = {};
};

struct XmlParcel {
    std::string name;
    geometry::Path path;
};

struct LandXml {
    LengthUnit unit = LengthUnit::Metre;
    std::vector<survey::SurveyPoint> points;
    std::vector<XmlSurface> surfaces;
    std::vector<XmlAlignment> alignments;
    std::vector<XmlParcel> parcels;
    std::vector<std::string> left;  ///< what was passed over, and why
};

Result<LandXml> readLandXml(const std::string& path, const Context& context = {});
Result<void> writeLandXml(const std::string& path, const LandXml& content, const std::string& projectName);
/// Cross-sections that are written with alignments.
struct XmlSectionOptions {
    /// Nothing: at the ticks of those alignments that have a profile; 0: none.
    std::optional<double> interval = {};
    double left = 10;
    double right = 10;
};
/// What the format holds of a project; `left` names the rest (labels, sheets, rules …).
LandXml landXmlOf(const derive::Derived& derived, const XmlSectionOptions& sections = {});

}  // namespace erdwerk::format
