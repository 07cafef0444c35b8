#pragma once
// LandXML 1.2: points, surfaces, alignments with profiles, parcels. Coordinates stand as northing easting
// height.

#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/document/model.h"

namespace erdwerk::format {

struct XmlSurface {
    std::string name;
    terrain::Tin tin;
};

struct XmlProfile {
    std::string name;
    std::vector<route::Pvi> design;
};

struct XmlAlignment {
    std::string name;
    double startStation = 0;
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
LandXml landXmlOf(const document::Derived& derived);

}  // namespace erdwerk::format
