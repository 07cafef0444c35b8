#pragma once
// A section that is kept: where it is cut, through what, and what its table shows.

#include <vector>

#include "core/geometry/vec.h"
#include "core/objects/kind.h"
#include "core/terrain/section.h"

namespace erdwerk::objects {

struct Section {
    ObjectId along;                    ///< a line or an alignment; none: `axis`
    std::vector<geometry::Vec2> axis;  ///< its own
    std::vector<ObjectId> off;         ///< surfaces and clouds that it does not show
    double interval = 0;               ///< of the table's rows; 0: at triangle edges
    std::vector<terrain::SectionField> fields = {
        terrain::SectionField::Station, terrain::SectionField::Height, terrain::SectionField::Difference};
};

template <>
struct Kind<Section> : HasNoParts<Section> {
    static constexpr std::string_view name = "section";
    static constexpr std::optional<Role> sourceRole = std::nullopt;
    static void references(const Section& object, const Visit& visit);
    static std::optional<Section> without(Section object, ObjectId gone);
};

}  // namespace erdwerk::objects
