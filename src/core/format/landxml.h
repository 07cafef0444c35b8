#pragma once
// LandXML 1.2: points, surfaces, alignments with profiles, parcels. Coordinates stand as northing easting
// height.

#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/derive/model.h"

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

struct XmlAlignment {
    std::string name;
    route::Stationing stationing;
    geometry::Path path;
    std::vector<XmlProfile> profiles;
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

Result<LandXml> readLandXml(const std::string& path);
Result<void> writeLandXml(const std::string& path, const LandXml& content, const std::string& projectName);
/// What the format holds of a project; `left` names the rest (labels, sheets, rules …).
LandXml landXmlOf(const derive::Derived& derived);

}  // namespace erdwerk::format
